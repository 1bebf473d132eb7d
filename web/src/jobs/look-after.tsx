import { Dialog, DialogPanel, DialogTitle } from '@headlessui/react';
import { Link } from 'react-router';
import { wheelEndAt, type WheelEnd } from '@lanternwright/core/traveller';
import { problemText } from '../api.ts';
import { formatTime } from '../shell/words.ts';
import { Button } from '../ui/button.tsx';
import { Note } from '../ui/problem-note.tsx';
import { AlsoDueList } from './also-due.tsx';
import { RetorqueForm } from './retorque-form.tsx';
import { DraftScope } from './use-draft.ts';
import { useOpenJob, type OpenJob } from './use-job.ts';

function At({ open, wheelEnd }: { open: OpenJob; wheelEnd: WheelEnd }) {
  const { retorque, release } = wheelEnd;
  return (
    <section aria-label={wheelEnd.position} className="flex flex-col gap-3 border-t border-rule pt-4">
      <h3 className="text-23">{wheelEnd.position}</h3>
      <AlsoDueList {...{ open, wheelEnd }} />
      {retorque ? (
        <Note tone="good">
          Retorqued, {formatTime(retorque.at)}, by {retorque.doneBy ?? retorque.by.name}.
        </Note>
      ) : (
        release?.followUp && (
          <DraftScope value={`${open.job.id}/${wheelEnd.position}/released`}>
            <RetorqueForm {...{ open, wheelEnd }} />
          </DraftScope>
        )
      )}
    </section>
  );
}

export interface LookedAfter {
  jobId: string;
  unit: string;
  positions: readonly string[];
}

/** What a job left to be looked after, done where it is seen. */
export function LookAfter({ jobId, unit, positions, onClose }: LookedAfter & { onClose: () => void }) {
  const { open, error } = useOpenJob(jobId);
  return (
    <Dialog open onClose={onClose} className="relative z-30">
      <div className="fixed inset-0 bg-band/60" aria-hidden />
      <div className="fixed inset-0 overflow-y-auto p-4">
        <DialogPanel className="mx-auto flex w-full max-w-[640px] flex-col gap-4 rounded-lg border border-edge bg-panel p-5">
          <div className="flex flex-wrap items-baseline justify-between gap-3">
            <DialogTitle className="text-18">{unit}, to look after</DialogTitle>
            <Link to={`/jobs/${jobId}`} className="text-14 underline underline-offset-2">
              The whole job
            </Link>
          </div>
          {error !== undefined && !open && <Note tone="trouble">{problemText(error)}</Note>}
          {open &&
            positions.map((position) => {
              const wheelEnd = wheelEndAt(open.job, position);
              return wheelEnd && <At key={position} {...{ open, wheelEnd }} />;
            })}
          <div>
            <Button onClick={onClose}>Close</Button>
          </div>
        </DialogPanel>
      </div>
    </Dialog>
  );
}
