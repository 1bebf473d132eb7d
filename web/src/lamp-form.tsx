import type { ReactNode } from 'react';
import { FormProblem } from './form-problem.tsx';
import { Button, type Weight } from './ui/button.tsx';

interface Props {
  /** What the form is called, where nothing in it says so. */
  label?: string;
  children: ReactNode;
  /** What the server refused, if it did. */
  error: unknown;
  isLoading: boolean;
  button: string;
  weight?: Weight;
  onSave: () => void;
  onCancel: () => void;
}

/** A form that opens where it is wanted and is the one thing looked at until it is saved or left. */
export function LampForm({
  label,
  children,
  error,
  isLoading,
  button,
  weight = 'main',
  onSave,
  onCancel,
}: Props) {
  return (
    <form
      aria-label={label}
      className="flex flex-col gap-3 rounded-lg border border-lamp-edge bg-lamp p-4"
      onSubmit={(e) => {
        e.preventDefault();
        onSave();
      }}
    >
      {children}
      <FormProblem error={error} />
      <div className="flex flex-wrap gap-2">
        <Button type="submit" weight={weight} disabled={isLoading}>
          {button}
        </Button>
        <Button onClick={onCancel}>Cancel</Button>
      </div>
    </form>
  );
}
