import { openFindings, type Job } from '@lanternwright/core/traveller';
import { formatTime } from '../shell/words.ts';
import { OpenFindings } from './open-findings.tsx';
import { WithReason, type RouteFormProps } from './with-reason.tsx';

/** A wheel end that is as it was is not done in this job. */
export function LeaveOut({ open, wheelEnd, done }: RouteFormProps) {
  const { position } = wheelEnd;
  const asks = openFindings(wheelEnd).length > 0;
  return (
    <section className="flex flex-col gap-3">
      <h3 className="text-18">Leave {position} out of this job</h3>
      <p className="text-14 text-muted">
        It stays as it is, with what was read on it. Parts that were kept for it are free again.
      </p>
      <OpenFindings {...{ open, wheelEnd }} />
      <WithReason
        label="Why"
        button={asks ? 'Answer the findings first' : `Leave ${position} out`}
        disabled={asks}
        onSend={(reason) => {
          const why = open.send({ kind: 'wheel-end-left-out', position, reason });
          if (why === null) done();
          return why;
        }}
        onCancel={done}
      />
    </section>
  );
}

/** Wheel ends that were in the job and are not any more, with why. */
export function LeftOut({ job }: { job: Job }) {
  return job.leftOut.map(({ position, leftOut }) => (
    <p key={position} className="border-b border-rule px-5 py-2 text-13 text-muted">
      {position} was left out of this job: {leftOut!.reason ?? 'the owner does not want it done now'}.{' '}
      {leftOut!.by.name}, {formatTime(leftOut!.at)}.
    </p>
  ));
}
