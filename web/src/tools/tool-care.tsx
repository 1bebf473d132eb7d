import { useState } from 'react';
import { Link } from 'react-router';
import { z } from 'zod';
import type { ListedTool, ToolRecord } from '@lanternwright/contract/tools';
import { problemText } from '../api.ts';
import { LampForm } from '../lamp-form.tsx';
import { useMay, usePerson } from '../people/people-api.ts';
import { formatDate, formatTime, shopToday } from '../shell/words.ts';
import { Button } from '../ui/button.tsx';
import { TextField } from '../ui/field.tsx';
import { Note } from '../ui/problem-note.tsx';
import { useRequestForm } from '../use-request-form.ts';
import {
  useGiveToolBackMutation,
  useRecallToolMutation,
  useTakeToolMutation,
  useToolFoundMutation,
  useToolMissingMutation,
  useToolRecordsQuery,
} from './tool-care-api.ts';

const recallSchema = z.object({
  lastGood: z.string().min(1, 'Enter the last day on which it was found good'),
  reason: z.string().trim().min(1, 'Enter what was found'),
});

/** A tool that was found out of calibration. */
export function RecallForm({ listed, onDone }: { listed: ListedTool; onDone: () => void }) {
  const [recall, { isLoading, error }] = useRecallToolMutation();
  const { field, handleSubmit } = useRequestForm(recallSchema, { lastGood: '', reason: '' }, error);
  const { code, id } = listed.tool;
  const save = handleSubmit(async (told) => {
    const { data } = await recall({ id, seenVersion: listed.version, ...told });
    if (data) onDone();
  });
  return (
    <LampForm
      {...{ error, isLoading }}
      button={`Recall ${code}`}
      weight="grave"
      onSave={() => void save()}
      onCancel={onDone}
    >
      <p className="text-14">
        {code} is offered at no step from now on, until it has a calibration again. What was made with it
        since it was last good is listed here, for a supervisor to judge.
      </p>
      <div className="grid gap-3 sm:grid-cols-2">
        <TextField label="Last found good on" type="date" max={shopToday()} {...field('lastGood')} />
        <TextField
          label="What was found"
          placeholder="Reads 12 % high"
          maxLength={200}
          {...field('reason')}
        />
      </div>
    </LampForm>
  );
}

/** Records of one wheel end in one job stand together. */
function byWheelEnd(records: readonly ToolRecord[]): ToolRecord[][] {
  const ends = new Map<string, ToolRecord[]>();
  for (const r of records) {
    const key = `${r.jobId} ${r.position}`;
    ends.set(key, [...(ends.get(key) ?? []), r]);
  }
  return [...ends.values()].sort((a, b) => Number(b[0]!.released) - Number(a[0]!.released));
}

/** What was made with a recalled tool since it was last good: released wheel ends first, they roll on it. */
export function RecalledRecords({ listed }: { listed: ListedTool }) {
  const [all, setAll] = useState(false);
  const recall = (listed.recalls ?? []).at(-1);
  const { data, error } = useToolRecordsQuery(
    { id: listed.tool.id, since: recall?.lastGood ?? '' },
    { skip: !recall },
  );
  if (!recall) return null;
  const ends = byWheelEnd(data ?? []);
  return (
    <section aria-label={`Made with ${listed.tool.code}`} className="flex flex-col gap-2 pb-2">
      <p className="text-14">
        <span className="font-semibold text-rust">Found out of calibration</span> {formatDate(recall.at)} by{' '}
        {recall.by}: {recall.reason}. Last good on {formatDate(recall.lastGood)}.{' '}
        {data &&
          (ends.length === 0
            ? 'Nothing was recorded with it since.'
            : `${ends.length} ${ends.length === 1 ? 'wheel end was' : 'wheel ends were'} worked on with it since:`)}
      </p>
      {error && <Note tone="trouble">{problemText(error)}</Note>}
      <ul>
        {(all ? ends : ends.slice(0, 6)).map((records) => {
          const [first] = records as [ToolRecord];
          return (
            <li key={`${first.jobId}${first.position}`} className="border-b border-rule">
              <Link
                to={`/jobs/${first.jobId}?at=${first.position}`}
                className="block py-2 text-14 hover:bg-side"
              >
                <span className="font-semibold">
                  {first.unit}, {first.position}, job {first.jobNumber}
                </span>
                {first.released && <span className="font-semibold text-rust">, released</span>}
                <span className="block text-13 text-muted">
                  {records.map((r) => r.text.replace(`${r.position}, `, '')).join('; ')}. {first.by},{' '}
                  {formatTime(first.at)}
                </span>
              </Link>
            </li>
          );
        })}
      </ul>
      {ends.length > 6 && !all && (
        <Button weight="quiet" className="self-start" onClick={() => setAll(true)}>
          All {ends.length}
        </Button>
      )}
    </section>
  );
}

/** Who has a tool; it is taken and put back with one tap. */
export function ToolHolder({ listed }: { listed: ListedTool }) {
  const able = useMay();
  const person = usePerson();
  const [take, taking] = useTakeToolMutation();
  const [giveBack, giving] = useGiveToolBackMutation();
  const { tool, holder, missing } = listed;
  const [miss, missingIt] = useToolMissingMutation();
  const [find, finding] = useToolFoundMutation();
  const busy = taking.isLoading || giving.isLoading || missingIt.isLoading || finding.isLoading;
  const error = taking.error ?? giving.error ?? missingIt.error ?? finding.error;
  return (
    <span className="flex flex-wrap items-center gap-2 text-13">
      {holder && (
        <span>
          {holder.id === person?.id ? 'You have it' : `${holder.name} has it`} since{' '}
          {formatTime(holder.since)}
        </span>
      )}
      {missing && (
        <span className="font-semibold text-rust">
          Missing since {formatTime(missing.since)}, says {missing.by}
        </span>
      )}
      {able('use-parts') &&
        (missing ? (
          <Button disabled={busy} aria-label={`${tool.code} is found`} onClick={() => void find(tool.id)}>
            It is found
          </Button>
        ) : holder ? (
          <Button disabled={busy} aria-label={`Put ${tool.code} back`} onClick={() => void giveBack(tool.id)}>
            Put back
          </Button>
        ) : (
          <Button disabled={busy} aria-label={`Take ${tool.code}`} onClick={() => void take(tool.id)}>
            Take
          </Button>
        ))}
      {able('use-parts') && !missing && (
        <Button
          weight="quiet"
          disabled={busy}
          aria-label={`${tool.code} is missing`}
          onClick={() => void miss(tool.id)}
        >
          Missing
        </Button>
      )}
      {error && <Note tone="trouble">{problemText(error)}</Note>}
    </span>
  );
}
