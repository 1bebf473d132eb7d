import { z } from 'zod';
import { Button } from './ui/button.tsx';
import { TextField } from './ui/field.tsx';
import { useRequestForm } from './use-request-form.ts';

const reasonSchema = z.object({ reason: z.string().trim().min(1, 'Enter a reason') });

interface Props {
  label: string;
  button: string;
  cancel?: string;
  /** @returns why it is refused, or null when it is done */
  onSave: (reason: string) => string | null | Promise<string | null>;
  onCancel: () => void;
}

/** Something grave that is done only with why. */
export function ReasonForm({ label, button, cancel = 'Cancel', onSave, onCancel }: Props) {
  const { field, formState, handleSubmit, setError } = useRequestForm(reasonSchema, { reason: '' }, null);
  const save = handleSubmit(async ({ reason }) => {
    const refused = await onSave(reason);
    if (refused) setError('reason', { message: refused });
  });
  return (
    <form className="flex flex-col gap-2" onSubmit={(e) => void save(e)}>
      <TextField label={label} maxLength={200} autoFocus {...field('reason')} />
      <div className="flex flex-wrap gap-2">
        <Button type="submit" weight="grave" disabled={formState.isSubmitting}>
          {button}
        </Button>
        <Button onClick={onCancel}>{cancel}</Button>
      </div>
    </form>
  );
}
