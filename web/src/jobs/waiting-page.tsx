import { useState } from 'react';
import { Link } from 'react-router';
import { may } from '@lanternwright/core/access';
import {
  fold,
  describeEvent,
  recordedBy,
  type Command,
  type EventBody,
  type Job,
} from '@lanternwright/core/traveller';
import type { Person } from '@lanternwright/contract/people';
import { usePerson } from '../people/people-api.ts';
import { formatTime, shopToday } from '../shell/words.ts';
import { useAppDispatch, useAppSelector } from '../store.ts';
import { Button } from '../ui/button.tsx';
import { Note } from '../ui/problem-note.tsx';
import { useJobQuery } from './jobs-api.ts';
import { letGo, type NotTaken } from './not-taken.ts';
import { maySend, type Waiting } from './outbox.ts';
import { fitsNow, takeAgain } from './settle.ts';
import { useReader } from '../shell/use-reader.ts';
import type { ReaderUnits } from '@lanternwright/core/quantity';

/** What somebody asked for, in the words its record would have. */
function describeCommand(job: Job, command: Command, reader: ReaderUnits): string {
  if (command.kind === 'wheel-end-released') return `released ${command.position}`;
  return describeEvent(job, { body: command as EventBody }, reader);
}

/** A record as it lies on the device. */
function RecordLine({ job, record, why }: { job: Job; record: Waiting; why?: string | null }) {
  const reader = useReader();
  return (
    <li className="border-b border-rule py-2 text-14">
      <span className="figure pr-3 text-13 text-muted">{formatTime(record.queuedAt)}</span>
      {recordedBy({ name: record.by.name, sentBy: record.sentBy })}:{' '}
      {describeCommand(job, record.command, reader)}
      {why && <span className="block text-13 text-rust">Does not fit any more: {why}</span>}
    </li>
  );
}

/** How much of what stands is shown beside what did not fit. */
const SHOWN = 8;

function positionOf({ command }: Waiting): string | undefined {
  return 'position' in command ? command.position : undefined;
}

/** One thing the server did not take: what was recorded here beside what stands there, and what becomes of it. */
function Conflict({
  entry,
  job,
  title,
  person,
}: {
  entry: NotTaken;
  job: Job;
  title: string;
  person: Person;
}) {
  const reader = useReader();
  const dispatch = useAppDispatch();
  const [putting, setPutting] = useState(false);
  const [first] = entry.records;
  const own = entry.records.every((r) => maySend(r, person.id));
  const maySettle = own || may(person.role, 'send-for-others');
  const why = fitsNow(job, entry, person, shopToday());
  const fits = why.filter((w) => w === null).length;
  const at = first && positionOf(first);
  const stands = job.events
    .filter((e) => at === undefined || !('position' in e.body) || e.body.position === at)
    .slice(-SHOWN);
  return (
    <section aria-label={title} className="flex flex-col gap-3 rounded-lg border border-rust bg-panel p-4">
      <h2 className="text-18">
        <Link to={`/jobs/${job.id}${at ? `?at=${at}` : ''}`} className="underline underline-offset-4">
          {title}
          {at && `, ${at}`}
        </Link>
      </h2>
      <Note tone="trouble">{entry.reason}</Note>
      <div className="grid gap-5 md:grid-cols-2">
        <div>
          <h3 className="caption pb-1">Recorded on this device</h3>
          <ul>
            {entry.records.map((r, i) => (
              <RecordLine key={r.id} {...{ job, record: r, why: why[i] }} />
            ))}
          </ul>
        </div>
        <div>
          <h3 className="caption pb-1">On the record{at && `, the last of ${at}`}</h3>
          <ul>
            {stands.map((e) => (
              <li key={e.id} className="border-b border-rule py-2 text-14">
                <span className="figure pr-3 text-13 text-muted">{formatTime(e.at)}</span>
                {recordedBy(e.by)}: {describeEvent(job, e, reader)}
              </li>
            ))}
          </ul>
        </div>
      </div>
      {!maySettle && <p className="text-14">{first?.by.name} or a supervisor settles it.</p>}
      {maySettle && !putting && (
        <div className="flex flex-wrap gap-3">
          {fits > 0 && (
            <Button weight="main" onClick={() => void dispatch(takeAgain(entry, person, shopToday()))}>
              {fits === why.length ? 'Record it after what stands' : `Record the ${fits} that fit`}
            </Button>
          )}
          <Button weight="grave" onClick={() => setPutting(true)}>
            What stands is right
          </Button>
        </div>
      )}
      {putting && (
        <Note tone="trouble">
          <p>
            What was recorded on this device is put away for good. What stands on the record stays as it is.
          </p>
          <div className="flex flex-wrap gap-3 pt-3">
            <Button weight="grave" onClick={() => void dispatch(letGo(entry.id))}>
              Put it away
            </Button>
            <Button onClick={() => setPutting(false)}>Leave it</Button>
          </div>
        </Note>
      )}
    </section>
  );
}

function ConflictOf({ entry, person }: { entry: NotTaken; person: Person }) {
  const { data } = useJobQuery(entry.jobId, { refetchOnMountOrArgChange: true });
  if (!data)
    return (
      <Note tone="trouble">
        {entry.records.length} {entry.records.length === 1 ? 'record was' : 'records were'} not taken:{' '}
        {entry.reason} The job cannot be shown just now; they stay here.
      </Note>
    );
  const title = `${data.unit.name}, job ${data.number}`;
  return <Conflict {...{ entry, job: fold(data.events), title, person }} />;
}

function WaitingOf({ jobId, records }: { jobId: string; records: readonly Waiting[] }) {
  const { data } = useJobQuery(jobId);
  const job = data && fold(data.events);
  return (
    <section className="flex flex-col gap-1">
      <h3 className="text-16 font-semibold">
        <Link to={`/jobs/${jobId}`} className="underline underline-offset-4">
          {data ? `${data.unit.name}, job ${data.number}` : 'A job that cannot be shown just now'}
        </Link>
      </h3>
      <ul>
        {records.map((r) =>
          job ? (
            <RecordLine key={r.id} {...{ job, record: r }} />
          ) : (
            <li key={r.id} className="border-b border-rule py-2 text-14">
              <span className="figure pr-3 text-13 text-muted">{formatTime(r.queuedAt)}</span>
              {r.by.name}: {r.command.kind}
            </li>
          ),
        )}
      </ul>
    </section>
  );
}

/** What lies on this device and not yet on the record: what the server did not take, and what waits to be sent. */
export function WaitingPage() {
  const person = usePerson();
  const { waiting } = useAppSelector((s) => s.outbox);
  const photos = useAppSelector((s) => s.photoQueue.waiting);
  const notTaken = useAppSelector((s) => s.notTaken.waiting);
  if (!person) return null;
  const jobs = [...new Set(waiting.map((w) => w.jobId))];
  const nothing = notTaken.length + waiting.length + photos.length === 0;
  return (
    <main className="mx-auto flex w-full max-w-[1100px] flex-col gap-6 p-5">
      <div>
        <h1 className="text-23">Waiting on this device</h1>
        <p className="text-13 text-muted">
          It survives a reload, a new version and a dead battery. Each record stays with the person who made
          it, whoever sends it.
        </p>
      </div>
      {!('serviceWorker' in navigator) && (
        <Note tone="plain">
          This address is not a secure one: without a network Lanternwright goes on here, but does not open
          anew. Use the shop’s https address for that.
        </Note>
      )}
      {nothing && <p className="text-16">Everything recorded on this device has been sent.</p>}
      {notTaken.length > 0 && (
        <section aria-label="Not taken" className="flex flex-col gap-4">
          {notTaken.map((entry) => (
            <ConflictOf key={entry.id} {...{ entry, person }} />
          ))}
        </section>
      )}
      {waiting.length > 0 && (
        <section aria-label="To be sent" className="flex flex-col gap-4">
          <h2 className="text-18">To be sent, in this order</h2>
          {jobs.map((jobId) => (
            <WaitingOf key={jobId} jobId={jobId} records={waiting.filter((w) => w.jobId === jobId)} />
          ))}
        </section>
      )}
      {photos.length > 0 && (
        <section aria-label="Photos" className="flex flex-col gap-1">
          <h2 className="text-18">Photos waiting to be sent</h2>
          <ul>
            {photos.map((p) => (
              <li key={p.id} className="border-b border-rule py-2 text-14">
                {p.by.name}, {p.position}
                {p.caption && `: ${p.caption}`}
              </li>
            ))}
          </ul>
        </section>
      )}
    </main>
  );
}
