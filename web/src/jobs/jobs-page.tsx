import { Link } from 'react-router';
import { JOBS_A_PAGE, type JobSummary } from '@lanternwright/contract/jobs';
import { unitKinds } from '@lanternwright/core/axle-plan';
import { stoppedWords } from '@lanternwright/core/traveller';
import { usePerson } from '../people/people-api.ts';
import { formatTime } from '../shell/words.ts';
import { Pager } from '../ui/pager.tsx';
import { StateMark } from '../ui/state-mark.tsx';
import { useJobsQuery } from './jobs-api.ts';
import { usePageNumber } from '../shell/use-page-number.ts';
import { JobsFrame } from './jobs-frame.tsx';
import { StageStrip, standWords } from './stage-strip.tsx';
import { findingsAsked, releasesWaiting } from './what-waits.ts';

function JobRow({ job }: { job: JobSummary }) {
  return (
    <li className="border-b border-rule">
      <Link
        to={`/jobs/${job.id}`}
        className="grid min-h-[92px] items-center gap-3 px-5 py-3 hover:bg-side md:grid-cols-[260px_1fr_150px]"
      >
        <span>
          <span className="block text-16 font-semibold">{job.unit.name}</span>
          <span className="block text-13 text-muted">
            {unitKinds[job.unit.kind]}, {job.unit.owner.name}
          </span>
        </span>
        <span className="flex flex-col gap-1.5">
          <span className="text-14">
            {job.title}
            {job.stopped && (
              <span className="font-semibold text-rust">
                {' '}
                · {stoppedWords[job.stopped.as].toLowerCase()}: {job.stopped.reason}
              </span>
            )}
          </span>
          {job.wheelEnds.map((w) => (
            <span key={w.position} className="flex flex-wrap items-center gap-x-3 gap-y-1 text-13">
              <span className="w-6 font-semibold">{w.position}</span>
              <StageStrip wheelEnd={w} />
              <span
                className={`flex items-center gap-1 ${w.trouble && !w.released ? 'font-semibold text-rust' : ''}`}
              >
                {(w.trouble === 'loose' || w.trouble === 'tight') && !w.released && (
                  <StateMark state={w.trouble} size={14} />
                )}
                {standWords(w)}
              </span>
              {w.who && <span className="text-muted">{w.who}</span>}
            </span>
          ))}
        </span>
        <span className="text-13 text-muted md:text-right">
          Job {job.number}
          <span className="block">{formatTime(job.openedAt)}</span>
        </span>
      </Link>
    </li>
  );
}

/** Findings that wait for a supervisor, from every open job. */
function DecideList({ jobs }: { jobs: readonly JobSummary[] }) {
  const asked = findingsAsked(jobs);
  if (asked.length === 0) return null;
  return (
    <section aria-label="Decide" className="border-b border-lamp-edge bg-lamp px-5 py-3">
      <h2 className="text-18">Decide</h2>
      <ul>
        {asked.map(({ job, position, q }) => (
          <li key={`${job.id}${position}${q.component}`}>
            <Link
              to={`/jobs/${job.id}?at=${position}`}
              className="flex min-h-12 flex-wrap items-center gap-x-3 text-16 hover:underline"
            >
              <span className="font-semibold">
                {job.unit.name}, {position}
              </span>
              <span>
                {q.title}: {q.seen.toLowerCase()}
              </span>
              <span className="text-13 text-muted">
                {q.askedBy}, {formatTime(q.at)}
              </span>
            </Link>
          </li>
        ))}
      </ul>
    </section>
  );
}

/** Wheel ends on which only the release is left: a supervisor looks and signs. */
function WaitingForRelease({ jobs }: { jobs: readonly JobSummary[] }) {
  const waiting = releasesWaiting(jobs);
  if (waiting.length === 0) return null;
  return (
    <section aria-labelledby="waiting" className="border-b border-rule px-5 py-4">
      <h2 id="waiting" className="pb-1 text-18">
        Waiting for release
      </h2>
      <ul>
        {waiting.map(({ job, ends }) => (
          <li key={job.id} className="border-b border-rule">
            <Link
              to={`/jobs/${job.id}/release`}
              className="flex min-h-12 flex-wrap items-center gap-x-3 text-16 hover:underline"
            >
              <span className="font-semibold">
                {job.unit.name}, {ends.map((w) => w.position).join(' and ')}
              </span>
              <span>{job.title}</span>
              <span className="text-13 text-muted">{ends[0]!.who}</span>
            </Link>
          </li>
        ))}
      </ul>
    </section>
  );
}

/** Estimates that an owner has not answered: nothing more comes off till then. */
function WaitingForAnswer({ jobs }: { jobs: readonly JobSummary[] }) {
  const asked = jobs.filter((j) => j.estimate === 'asks');
  if (asked.length === 0) return null;
  return (
    <section aria-labelledby="asked" className="border-b border-lamp-edge bg-lamp px-5 py-3">
      <h2 id="asked" className="text-18">
        Waiting for your answer
      </h2>
      <ul>
        {asked.map((job) => (
          <li key={job.id}>
            <Link
              to={`/jobs/${job.id}`}
              className="flex min-h-12 flex-wrap items-center gap-x-3 text-16 hover:underline"
            >
              <span className="font-semibold">{job.unit.name}</span>
              <span>{job.title}: estimate to answer</span>
            </Link>
          </li>
        ))}
      </ul>
    </section>
  );
}

/** Jobs: those that are open, or those that are done, newest first. */
function Jobs({ status }: { status: 'open' | 'closed' }) {
  const [page, turnTo] = usePageNumber();
  const { data, error } = useJobsQuery({ status, page });
  const isOwner = usePerson()?.role === 'owner-contact';
  return (
    <JobsFrame title={status === 'open' ? 'Jobs' : 'Closed jobs'} error={error}>
      {data && status === 'open' && isOwner && <WaitingForAnswer jobs={data} />}
      {data && status === 'open' && !isOwner && <DecideList jobs={data} />}
      {data && status === 'open' && !isOwner && <WaitingForRelease jobs={data} />}
      <ul>
        {data?.map((job) => (
          <JobRow key={job.id} job={job} />
        ))}
      </ul>
      {data?.length === 0 && (
        <p className="px-5 py-8 text-16 text-muted">
          {page > 1
            ? 'That was all.'
            : `No ${status} jobs.${isOwner ? '' : ' Open one from a unit in the fleet.'}`}
        </p>
      )}
      {data && <Pager page={page} more={data.length === JOBS_A_PAGE} onPage={turnTo} />}
    </JobsFrame>
  );
}

export const JobsPage = () => <Jobs status="open" />;
export const ClosedJobsPage = () => <Jobs status="closed" />;
