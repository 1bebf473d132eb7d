import type { ReactNode } from 'react';
import { FormProblem } from '../form-problem.tsx';
import { Button } from '../ui/button.tsx';

interface Props {
  children: ReactNode;
  /** What the server refused, if it did. */
  error: unknown;
  isLoading: boolean;
  button: string;
  /** Another act beside the main one. */
  also?: ReactNode;
  onSave: () => void;
  onDone: () => void;
}

/** A small form in a panel of a unit: its fields, why it was refused, and the way out. */
export function PanelForm({ children, error, isLoading, button, also, onSave, onDone }: Props) {
  return (
    <form
      className="flex flex-col gap-2 py-2"
      onSubmit={(e) => {
        e.preventDefault();
        onSave();
      }}
    >
      {children}
      <FormProblem error={error} />
      <div className="flex flex-wrap gap-2">
        <Button type="submit" weight="main" disabled={isLoading}>
          {button}
        </Button>
        {also}
        <Button onClick={onDone}>Not now</Button>
      </div>
    </form>
  );
}
