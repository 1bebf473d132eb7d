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
  /** The other side of the axle, where it is in this job. */
  other?: WheelEnd;
  record: (data: StepData) => void;
}

/** A form whose Enter records the step, from a field inside it or from its button. Nothing of it has the focus by itself. */
export function Form({
  onRecord,
  children,
  button,
  beside,
  disabled = false,
}: {
  onRecord: () => void;
  children?: ReactNode;
  button: string;
  /** Another way to record, beside the button. */
  beside?: ReactNode;
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
      <div className="flex flex-wrap gap-3">
        <Button type="submit" weight="main" disabled={disabled} className="min-h-14 px-6 text-18">
          {button}
        </Button>
        {beside}
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

/** One of a few, each a target a gloved hand hits. */
export function Choices<K extends string>({
  legend,
  name,
  choices,
  chosen,
  onChoose,
}: {
  legend: string;
  name: string;
  choices: readonly (readonly [K, string])[];
  chosen: K | '';
  onChoose: (id: K) => void;
}) {
  return (
    <fieldset className="grid gap-3 sm:grid-cols-2">
      <legend className="caption pb-1">{legend}</legend>
      {choices.map(([id, label]) => (
        <label
          key={id}
          className={`flex min-h-14 cursor-pointer items-center gap-3 rounded-lg border px-4 text-16 has-focus-visible:outline-3 has-focus-visible:outline-lamp-edge ${id === chosen ? 'border-lamp-edge bg-lamp font-semibold' : 'border-edge bg-panel'}`}
        >
          <input
            type="radio"
            name={name}
            className="size-5 accent-pine"
            checked={id === chosen}
            onChange={() => onChoose(id)}
          />
          {label}
        </label>
      ))}
    </fieldset>
  );
}
