import { useState } from 'react';
import type { Command } from '@lanternwright/core/traveller';
import { Button } from '../ui/button.tsx';
import { TextField } from '../ui/field.tsx';
import type { OpenJob } from './use-job.ts';

interface Props {
  open: OpenJob;
  eventId: string;
  onDone: () => void;
  /** What should have been recorded; without it the record is struck out. */
  replacement?: Extract<Command, { kind: 'correction' }>['replacement'];
}

/** Corrects a record with a reason. Nothing is overwritten: both stay in the record. */
export function StrikeOut({ open, eventId, onDone, replacement = null }: Props) {
  const [reason, setReason] = useState('');
  const [error, setError] = useState<string>();
  const save = () => {
    if (reason.trim() === '') return setError('Say why');
    const refused = open.send({ kind: 'correction', corrects: eventId, reason: reason.trim(), replacement });
    if (refused) setError(refused);
    else onDone();
  };
  return (
    <form
      className="flex flex-col gap-2"
      onSubmit={(e) => {
        e.preventDefault();
        save();
      }}
    >
      <TextField
        label="Why it is wrong"
        value={reason}
        error={error}
        autoFocus
        onChange={(e) => setReason(e.target.value)}
      />
      <div className="flex flex-wrap gap-2">
        <Button type="submit" weight="grave">
          {replacement ? 'Correct this record' : 'Strike out this record'}
        </Button>
        <Button onClick={onDone}>Leave it</Button>
      </div>
    </form>
  );
}
