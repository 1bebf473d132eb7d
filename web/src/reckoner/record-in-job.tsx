import { useState } from 'react';
import { Link } from 'react-router';
import { JOBS_A_PAGE } from '@lanternwright/contract/jobs';
import { describeResult } from '@lanternwright/core/reckoner';
import { fold, isClosed } from '@lanternwright/core/traveller';
import { useJobQuery, useJobsQuery } from '../jobs/jobs-api.ts';
import { record } from '../jobs/outbox.ts';
import { usePerson } from '../people/people-api.ts';
import { useAppDispatch, useAppSelector } from '../store.ts';
import { Button } from '../ui/button.tsx';
import { SelectField, TextField } from '../ui/field.tsx';
import { Note } from '../ui/problem-note.tsx';
import { useReader } from '../shell/use-reader.ts';

interface Kept {
  name: string;
  title: string;
  input: unknown;
  result: unknown;
}

/** The job and wheel end somebody came from, as the address names them. */
export interface ForJob {
  job: string | null;
  at: string | null;
}

/** A job with wheel ends that a result can still be put to. */
interface Target {
  id: string;
  title: string;
  ends: string[];
}

/** The open jobs, the newest first, and the one somebody came from though it be not among them. */
function useTargets(from: string | null): { targets: Target[]; more: boolean } {
  const { data: jobs = [] } = useJobsQuery({ status: 'open', page: 1 });
  const listed = jobs.map((j) => ({
    id: j.id,
    title: `${j.unit.name}, ${j.title}`,
    ends: j.wheelEnds.filter((w) => !w.released).map((w) => w.position),
  }));
  const missing = from !== null && !listed.some((t) => t.id === from);
  const { data: own } = useJobQuery(from ?? '', { skip: !missing });
  const job = missing && own ? fold(own.events) : null;
  const ends = (job?.wheelEnds ?? []).filter((w) => w.release === null).map((w) => w.position);
  const cameFrom =
    own && job && !isClosed(job) ? [{ id: job.id, title: `${own.unit.name}, ${job.title}`, ends }] : [];
  return {
    targets: [...cameFrom, ...listed.filter((t) => t.ends.length > 0)],
    more: jobs.length === JOBS_A_PAGE,
  };
}

/** No job and no wheel end is chosen beforehand but those somebody came from. */
function Choose({
  sum,
  targets,
  more,
  from,
  onDone,
}: {
  sum: Kept;
  targets: Target[];
  more: boolean;
  from: ForJob;
  onDone: () => void;
}) {
  const reader = useReader();
  const dispatch = useAppDispatch();
  const person = usePerson();
  const [jobId, setJobId] = useState(from.job ?? '');
  const [at, setAt] = useState(from.at ?? '');
  const [note, setNote] = useState('');
  const [savedIn, setSavedIn] = useState<string | null>(null);
  const [tried, setTried] = useState(false);
  const job = targets.find((j) => j.id === jobId);
  const position = job?.ends.find((end) => end === at);
  const refusal = useAppSelector((s) => s.outbox.refusal);
  const words = describeResult(sum.name, sum.result as Record<string, unknown>, reader);
  const keep = () => {
    setTried(true);
    if (!person || !job || !position) return;
    const command = {
      kind: 'reckoning-kept' as const,
      position,
      name: sum.name,
      title: sum.title,
      summary: words.slice(0, 500),
      reckoned: JSON.parse(JSON.stringify({ input: sum.input, result: sum.result })),
      ...(note.trim() ? { note: note.trim() } : {}),
    };
    void dispatch(record(job.id, 1, command, person));
    setSavedIn(`/jobs/${job.id}?at=${position}`);
  };
  if (savedIn && job && refusal?.jobId === job.id) return <Note tone="trouble">{refusal.text}</Note>;
  if (savedIn && job) {
    return (
      <Note tone="good">
        It stands in the record of {job.title}, {position}.{' '}
        <Link to={savedIn} className="underline">
          Open the job
        </Link>
      </Note>
    );
  }
  return (
    <form
      className="flex flex-col gap-3 rounded-lg border border-edge bg-panel p-4"
      onSubmit={(e) => {
        e.preventDefault();
        keep();
      }}
    >
      <div className="grid gap-3 sm:grid-cols-[2fr_1fr]">
        <SelectField
          label="Job"
          value={job?.id ?? ''}
          hint={more ? 'The newest are listed: into an older one, open the sum from its job' : undefined}
          error={tried && !job ? 'Choose the job' : undefined}
          onChange={(e) => setJobId(e.target.value)}
        >
          <option value="">Choose</option>
          {targets.map((j) => (
            <option key={j.id} value={j.id}>
              {j.title}
            </option>
          ))}
        </SelectField>
        <SelectField
          label="Wheel end"
          value={position ?? ''}
          error={tried && job && !position ? 'Choose the wheel end' : undefined}
          onChange={(e) => setAt(e.target.value)}
        >
          <option value="">Choose</option>
          {job?.ends.map((end) => (
            <option key={end}>{end}</option>
          ))}
        </SelectField>
      </div>
      <p className="text-14">
        <span className="text-muted">The record will say: </span>
        {sum.title}: {words}
      </p>
      <TextField
        label="Note, if any"
        value={note}
        maxLength={500}
        onChange={(e) => setNote(e.target.value)}
      />
      <div className="flex flex-wrap gap-3">
        <Button type="submit" weight="main">
          {position ? `Put it into the record of ${position}` : 'Put it into the record'}
        </Button>
        <Button onClick={onDone}>Leave it</Button>
      </div>
    </form>
  );
}

/** Puts a result, with its input, into the record of a wheel end in an open job. */
export function KeepInJob({ sum, from }: { sum: Kept; from: ForJob }) {
  const [choosing, setChoosing] = useState(from.job !== null);
  const { targets, more } = useTargets(from.job);
  if (!choosing)
    return (
      <div>
        <Button disabled={targets.length === 0} onClick={() => setChoosing(true)}>
          {targets.length === 0 ? 'No job is open to keep it in' : 'Put it into a job’s record'}
        </Button>
      </div>
    );
  if (targets.length === 0) return null;
  return (
    <Choose key={JSON.stringify(sum)} {...{ sum, targets, more, from }} onDone={() => setChoosing(false)} />
  );
}
