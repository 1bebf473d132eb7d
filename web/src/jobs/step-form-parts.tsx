import { useState, type ReactNode } from 'react';
import type { Step, StepData } from '@lanternwright/core/procedure';
import type { WheelEnd } from '@lanternwright/core/traveller';
import { Button } from '../ui/button.tsx';
import { TextField } from '../ui/field.tsx';

/** A step of one kind. */
export type Of<K extends Step['kind']> = Extract<Step, { kind: K }>;
export interface FormProps<K extends Step['kind']> {
  step: Of<K>;
  wheelEnd: WheelEnd;
  record: (data: StepData) => void;
}

/** A form whose Enter records the step. */
export function Form({
  onRecord,
  children,
  button,
  disabled = false,
}: {
  onRecord: () => void;
  children?: ReactNode;
  button: string;
  disabled?: boolean;
}) {
  return (
    <form
      className="flex flex-col gap-4"
      onSubmit={(e) => {
        e.preventDefault();
        onRecord();
      }}
    >
      {children}
      <div>
        <Button
          type="submit"
          weight="main"
          disabled={disabled}
          autoFocus={!children}
          className="min-h-14 px-6 text-18"
        >
          {button}
        </Button>
      </div>
    </form>
  );
}

/** A note nobody has to write, kept out of the way until it is wanted. */
export function OptionalNote({ note, set }: { note: string; set: (note: string) => void }) {
  const [open, setOpen] = useState(false);
  if (!open) {
    return (
      <Button weight="quiet" onClick={() => setOpen(true)} className="self-start">
        Add a note
      </Button>
    );
  }
  return <TextField label="Note" value={note} autoFocus onChange={(e) => set(e.target.value)} />;
}

export const noted = (note: string) => (note.trim() === '' ? {} : { note: note.trim() });
