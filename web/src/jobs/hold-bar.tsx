import { useState } from 'react';
import { isClosed, describeStopped, stoppedWords } from '@lanternwright/core/traveller';
import { formatTime } from '../shell/words.ts';
import { Button } from '../ui/button.tsx';
import { TextField } from '../ui/field.tsx';
import { Note } from '../ui/problem-note.tsx';
import { OutOfService } from './out-of-service.tsx';
import type { OpenJob } from './use-job.ts';

const acts = {
  'job-held': { label: 'Hold the job', ask: 'What it waits for', button: 'Hold it' },
  'job-voided': {
    label: 'Void the job',
    ask: 'Why it is void. Nothing more can be recorded on it',
    button: 'Void it',
  },
} as const;

/** Holding a job, resuming it, voiding it, ending it out of service. */
export function HoldBar({ open }: { open: OpenJob }) {
  const { job, person } = open;
  const [act, setAct] = useState<keyof typeof acts | null>(null);
  const [reason, setReason] = useState('');
  const [error, setError] = useState<string>();
  const { stopped } = job;
  if (stopped) {
    return (
      <Note tone="trouble">
        <span className="flex flex-wrap items-center justify-between gap-3">
          <span>
            {stoppedWords[stopped.as]}: {describeStopped(job)}. {stopped.by.name}, {formatTime(stopped.at)}.
          </span>
          {stopped.as === 'held' && (
            <Button onClick={() => setError(open.send({ kind: 'job-resumed' }) ?? undefined)}>
              Resume the job
            </Button>
          )}
        </span>
        {error}
      </Note>
    );
  }
  if (isClosed(job)) return null;
  const save = () => {
    if (!act) return;
    if (reason.trim() === '') return setError('Say why');
    const refused = open.send({ kind: act, reason: reason.trim() });
    if (refused) return setError(refused);
    setAct(null);
    setReason('');
  };
  if (!act) {
    return (
      <div className="flex flex-wrap gap-x-4 border-t border-rule pt-2">
        <Button weight="quiet" onClick={() => setAct('job-held')}>
          {acts['job-held'].label}
        </Button>
        {person.role === 'supervisor' && job.wheelEnds.every((w) => !w.release) && (
          <Button weight="quiet" onClick={() => setAct('job-voided')}>
            {acts['job-voided'].label}
          </Button>
        )}
        {person.role === 'supervisor' && <OutOfService open={open} />}
      </div>
    );
  }
  return (
    <form
      className="flex flex-col gap-2 border-t border-rule pt-3"
      onSubmit={(e) => {
        e.preventDefault();
        save();
      }}
    >
      <TextField
        label={acts[act].ask}
        value={reason}
        error={error}
        autoFocus
        onChange={(e) => setReason(e.target.value)}
      />
      <div className="flex gap-2">
        <Button type="submit" weight="grave">
          {acts[act].button}
        </Button>
        <Button onClick={() => setAct(null)}>Go on working</Button>
      </div>
    </form>
  );
}
