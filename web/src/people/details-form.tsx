import { z } from 'zod';
import type { ListedPerson } from '@lanternwright/contract/people';
import { FormProblem } from '../form-problem.tsx';
import { Button } from '../ui/button.tsx';
import { TextField } from '../ui/field.tsx';
import { useRequestForm } from '../use-request-form.ts';
import { useSaveDetailsMutation } from './people-api.ts';

const detailsSchema = z.object({ telephone: z.string(), mail: z.string() });

/** How a person is reached. It stands beside the record of the shop, so it can be erased; that it was is recorded. */
export function DetailsForm({ person, onDone }: { person: ListedPerson; onDone: () => void }) {
  const [saveDetails, { isLoading, error }] = useSaveDetailsMutation();
  const { telephone, mail } = person;
  const { field, handleSubmit } = useRequestForm(detailsSchema, { telephone, mail }, error);
  const save = (details: z.output<typeof detailsSchema>) =>
    void saveDetails({ id: person.id, ...details }).then(({ data }) => data && onDone());
  const known = telephone !== '' || mail !== '';
  return (
    <form
      aria-label={`How ${person.name} is reached`}
      className="flex flex-col gap-3 border-t border-rule pt-3"
      onSubmit={(e) => void handleSubmit(save)(e)}
    >
      <div className="grid gap-3 sm:grid-cols-2">
        <TextField label="Telephone" type="tel" {...field('telephone')} />
        <TextField label="Mail" inputMode="email" {...field('mail')} />
      </div>
      <p className="text-13 text-muted">
        Kept beside the record of the shop: what is erased here is gone, but for backups made before.
      </p>
      <FormProblem error={error} />
      <div className="flex flex-wrap gap-3">
        <Button type="submit" weight="main" disabled={isLoading}>
          Save telephone and mail
        </Button>
        {known && (
          <Button weight="grave" disabled={isLoading} onClick={() => save({ telephone: '', mail: '' })}>
            Erase them
          </Button>
        )}
      </div>
    </form>
  );
}
