import { useState } from 'react';
import { describeOff } from '@lanternwright/core/traveller';
import { Button } from '../ui/button.tsx';
import { TextField } from '../ui/field.tsx';
import { Note } from '../ui/problem-note.tsx';
import { Choices } from './step-form-parts.tsx';
import type { OpenJob } from './use-job.ts';

type Leaves = 'stays' | 'on-a-bed' | 'axle-lifted';
const ways: readonly (readonly [Leaves, string])[] = [
  ['stays', 'The unit stays'],
  ['on-a-bed', 'Leaves on a bed'],
  ['axle-lifted', 'Leaves with that axle lifted'],
];

/** Ends a job without a release: the honest way out when something on the never-list cannot be had. */
export function OutOfService({ open }: { open: OpenJob }) {
  const [asked, setAsked] = useState(false);
  const [reason, setReason] = useState('');
  const [told, setTold] = useState('');
  const [leaves, setLeaves] = useState<Leaves | ''>('');
  const [error, setError] = useState<string | null>(null);
  if (!asked)
    return (
      <Button weight="quiet" onClick={() => setAsked(true)}>
        End out of service
      </Button>
    );
  const off = open.job.wheelEnds.filter((w) => !w.release).map(describeOff);
  const save = () => {
    if (reason.trim() === '' || told.trim() === '' || leaves === '')
      return setError('Say why, how it leaves, and who was told');
    setError(open.send({ kind: 'ended-out-of-service', reason: reason.trim(), leaves, told: told.trim() }));
  };
  return (
    <form
      className="flex w-full flex-col gap-3 pt-2"
      onSubmit={(e) => {
        e.preventDefault();
        save();
      }}
    >
      <p className="text-14">
        {off.join('. ')}. It never rolls on this axle until a later job has released it.
      </p>
      <TextField
        label="Why it ends without a release"
        value={reason}
        autoFocus
        onChange={(e) => setReason(e.target.value)}
      />
      <Choices legend="How it leaves" name="leaves" choices={ways} chosen={leaves} onChoose={setLeaves} />
      <TextField label="Who was told" value={told} onChange={(e) => setTold(e.target.value)} />
      {error && <Note tone="trouble">{error}</Note>}
      <div className="flex flex-wrap gap-2">
        <Button type="submit" weight="grave">
          End it out of service
        </Button>
        <Button onClick={() => setAsked(false)}>Go on working</Button>
      </div>
    </form>
  );
}
