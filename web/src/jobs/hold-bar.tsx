import { useState } from 'react';
import { isClosed, describeStopped, stoppedWords } from '@lanternwright/core/traveller';
import { ReasonForm } from '../reason-form.tsx';
import { formatTime } from '../shell/words.ts';
import { Button } from '../ui/button.tsx';
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
    <div className="border-t border-rule pt-3">
      <ReasonForm
        key={act}
        label={acts[act].ask}
        button={acts[act].button}
        cancel="Go on working"
        onCancel={() => setAct(null)}
        onSave={(reason) => {
          const refused = open.send({ kind: act, reason });
          if (!refused) setAct(null);
          return refused;
        }}
      />
    </div>
  );
}
