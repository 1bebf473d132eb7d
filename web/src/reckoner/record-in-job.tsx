import { useState } from 'react';
import { Link } from 'react-router';
import type { JobSummary } from '@lanternwright/contract/jobs';
import { describeResult } from '@lanternwright/core/reckoner';
import { useJobsQuery } from '../jobs/jobs-api.ts';
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

const openEnds = (job: JobSummary | undefined) => job?.wheelEnds.filter((w) => !w.released) ?? [];

function Choose({
  sum,
  jobs,
  from,
  onDone,
}: {
  sum: Kept;
  jobs: JobSummary[];
  from: ForJob;
  onDone: () => void;
}) {
  const reader = useReader();
  const dispatch = useAppDispatch();
  const person = usePerson();
  const [jobId, setJobId] = useState(from.job ?? jobs[0]!.id);
  const [at, setAt] = useState(from.at ?? '');
  const [note, setNote] = useState('');
  const [savedIn, setSavedIn] = useState<string | null>(null);
  const job = jobs.find((j) => j.id === jobId) ?? jobs[0]!;
  const ends = openEnds(job);
  const position = ends.find((w) => w.position === at)?.position ?? ends[0]!.position;
  const refusal = useAppSelector((s) => s.outbox.refusal);
  const words = describeResult(sum.name, sum.result as Record<string, unknown>, reader);
  const keep = () => {
    const command = {
      kind: 'reckoning-kept' as const,
      position,
      name: sum.name,
      title: sum.title,
      summary: words.slice(0, 500),
      reckoned: JSON.parse(JSON.stringify({ input: sum.input, result: sum.result })),
      ...(note.trim() ? { note: note.trim() } : {}),
    };
    if (!person) return;
    void dispatch(record(job.id, 1, command, person));
    setSavedIn(`/jobs/${job.id}?at=${position}`);
  };
  if (savedIn && refusal?.jobId === job.id) return <Note tone="trouble">{refusal.text}</Note>;
  if (savedIn) {
    return (
      <Note tone="good">
        It stands in the record of {job.unit.name}, {position}.{' '}
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
        <SelectField label="Job" value={job.id} onChange={(e) => setJobId(e.target.value)}>
          {jobs.map((j) => (
            <option key={j.id} value={j.id}>
              {j.unit.name}, {j.title}
            </option>
          ))}
        </SelectField>
        <SelectField label="Wheel end" value={position} onChange={(e) => setAt(e.target.value)}>
          {ends.map((w) => (
            <option key={w.position}>{w.position}</option>
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
          Put it into the record of {position}
        </Button>
        <Button onClick={onDone}>Leave it</Button>
      </div>
    </form>
  );
}

/** Puts a result, with its input, into the record of a wheel end in an open job. */
export function KeepInJob({ sum, from }: { sum: Kept; from: ForJob }) {
  const [choosing, setChoosing] = useState(from.job !== null);
  const { data } = useJobsQuery({ status: 'open', page: 1 });
  const jobs = data?.filter((j) => openEnds(j).length > 0) ?? [];
  if (!choosing)
    return (
      <div>
        <Button disabled={jobs.length === 0} onClick={() => setChoosing(true)}>
          {jobs.length === 0 ? 'No job is open to keep it in' : 'Put it into a job’s record'}
        </Button>
      </div>
    );
  if (jobs.length === 0) return null;
  return <Choose key={JSON.stringify(sum)} {...{ sum, jobs, from }} onDone={() => setChoosing(false)} />;
}
