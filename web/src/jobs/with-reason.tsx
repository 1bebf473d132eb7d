import { useState } from 'react';
import type { WheelEnd } from '@lanternwright/core/traveller';
import { Button } from '../ui/button.tsx';
import { TextField } from '../ui/field.tsx';
import { Note } from '../ui/problem-note.tsx';
import type { OpenJob } from './use-job.ts';

/** What every form that changes a wheel end's route is given. */
export interface RouteFormProps {
  open: OpenJob;
  wheelEnd: WheelEnd;
  done: () => void;
}

/** A reason and a button that says what follows. */
export function WithReason({
  label,
  button,
  disabled,
  onSend,
  onCancel,
}: {
  label: string;
  button: string;
  disabled: boolean;
  onSend: (reason: string) => string | null;
  onCancel: () => void;
}) {
  const [reason, setReason] = useState('');
  const [refused, setRefused] = useState<string | null>(null);
  return (
    <form
      className="flex flex-col gap-2"
      onSubmit={(e) => {
        e.preventDefault();
        if (reason.trim()) setRefused(onSend(reason.trim()));
      }}
    >
      <TextField label={label} value={reason} onChange={(e) => setReason(e.target.value)} />
      {refused && <Note tone="trouble">{refused}</Note>}
      <div className="flex flex-wrap gap-2">
        <Button type="submit" weight="main" disabled={disabled || reason.trim() === ''}>
          {button}
        </Button>
        <Button onClick={onCancel}>Leave it</Button>
      </div>
    </form>
  );
}
