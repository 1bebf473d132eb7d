import { useState } from 'react';
import { ReasonForm } from '../reason-form.tsx';
import { Button } from '../ui/button.tsx';
import type { OpenJob } from './use-job.ts';

interface Props {
  open: OpenJob;
  eventId: string;
  /** What striking it out does, where that is more than the record itself. */
  effect?: string;
  onDone: () => void;
  /** What follows where it was struck out, instead of `onDone`. */
  onStruck?: () => void;
}

/** Strikes a record out with a reason. Nothing is removed: both stay in the record. */
export function StrikeOut({
  open,
  eventId,
  effect = 'Strike out this record',
  onDone,
  onStruck = onDone,
}: Props) {
  return (
    <ReasonForm
      label="Why it is wrong"
      button={effect}
      onCancel={onDone}
      onSave={(reason) => {
        const refused = open.send({ kind: 'correction', corrects: eventId, reason, replacement: null });
        if (!refused) onStruck();
        return refused;
      }}
    />
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
