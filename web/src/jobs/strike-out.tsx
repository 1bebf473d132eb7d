import { useState } from 'react';
import { Button } from '../ui/button.tsx';
import { TextField } from '../ui/field.tsx';
import type { OpenJob } from './use-job.ts';

interface Props {
  open: OpenJob;
  eventId: string;
  /** What striking it out does, where that is more than the record itself. */
  effect?: string;
  onDone: () => void;
}

/** Strikes a record out with a reason. Nothing is removed: both stay in the record. */
export function StrikeOut({ open, eventId, effect = 'Strike out this record', onDone }: Props) {
  const [reason, setReason] = useState('');
  const [error, setError] = useState<string>();
  const save = () => {
    if (reason.trim() === '') return setError('Say why');
    const refused = open.send({
      kind: 'correction',
      corrects: eventId,
      reason: reason.trim(),
      replacement: null,
    });
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
          {effect}
        </Button>
        <Button onClick={onDone}>Leave it</Button>
      </div>
    </form>
  );
}

/** Offers to take a record back, with a reason, to a supervisor and to whoever recorded it. */
export function TakeBack({
  open,
  eventId,
  by,
  words,
  effect,
}: {
  open: OpenJob;
  eventId: string;
  by: string;
  words: string;
  effect?: string;
}) {
  const [striking, setStriking] = useState(false);
  if (open.person.role !== 'supervisor' && open.person.id !== by) return null;
  if (striking) return <StrikeOut {...{ open, eventId }} effect={effect} onDone={() => setStriking(false)} />;
  return (
    <Button weight="quiet" className="self-start text-14" onClick={() => setStriking(true)}>
      {words}
    </Button>
  );
}
