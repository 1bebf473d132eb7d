import { useState } from 'react';
import { Link } from 'react-router';
import { v4 as uuid } from 'uuid';
import type { JobParts, PartLine } from '@lanternwright/contract/stores';
import { isClosed } from '@lanternwright/core/traveller';
import { problemText } from '../api.ts';
import { useMay } from '../people/people-api.ts';
import { formatDate } from '../shell/words.ts';
import { standWords, stockWords } from '../stores/part-words.ts';
import {
  useEndReservationMutation,
  useJobPartsQuery,
  useReserveAllPartsMutation,
  useReservePartMutation,
  useUsePartMutation,
} from '../stores/stores-api.ts';
import { Button } from '../ui/button.tsx';
import { SelectField } from '../ui/field.tsx';
import { Note } from '../ui/problem-note.tsx';
import type { OpenJob } from './use-job.ts';

/** What can be done with the parts of one line; whatever is sent twice is recorded once. */
function useLine({ position, line }: JobParts, jobId: string) {
  const [recordId, setRecordId] = useState(() => uuid());
  const [record, recording] = useUsePartMutation();
  const [reserve, reserving] = useReservePartMutation();
  const [end, ending] = useEndReservationMutation();
  const at = { jobId, position, ...(line ? { line } : {}) };
  const move = async (
    id: string,
    what: 'used' | 'returned',
    place: string,
    { batch, instead = [] }: { batch?: string | null; instead?: readonly string[] } = {},
  ) => {
    const movement = { what, quantity: 1, place, ...at, ...(batch ? { batch } : {}) };
    const { data } = await record({ id, recordId, movement, instead: [...instead] });
    if (data) setRecordId(uuid());
  };
  return {
    move,
    keep: async (id: string) => {
      const { data } = await reserve({
        id,
        reservation: { id: recordId, jobId, position, line, quantity: 1 },
      });
      if (data) setRecordId(uuid());
    },
    free: (id: string, reservationId: string) => void end({ id, reservationId }),
    busy: recording.isLoading || reserving.isLoading || ending.isLoading,
    error: recording.error ?? reserving.error ?? ending.error,
  };
}

/** Where one is put that was taken and not needed: where it was, or on the returns shelf. */
const backTo = (part: PartLine | undefined) => part?.places[0]?.place ?? 'Returns';

type Fitting = JobParts['fitting'][number];

/** What would have to be kept for others no longer so that this job can take one; nothing where one is free for it. */
function keptInTheWay({ onHand, keptFor }: Fitting): Fitting['keptFor'] {
  let free = onHand - keptFor.reduce((n, k) => n + k.quantity, 0);
  const inTheWay = [];
  for (const kept of keptFor) {
    if (free > 0) break;
    free += kept.quantity;
    inTheWay.push(kept);
  }
  return inTheWay;
}

const keptWords = ({ jobNumber, unit, day }: Fitting['keptFor'][number]) =>
  `job ${jobNumber}, ${unit}${day ? `, booked for ${formatDate(day)}` : ''}`;

/** A part that is kept for other jobs: taken after a second tap that says who will lack it. */
function TakeInstead({
  part,
  inTheWay,
  busy,
  onTake,
}: {
  part: Fitting;
  inTheWay: Fitting['keptFor'];
  busy: boolean;
  onTake: (place: string) => void;
}) {
  const [asking, setAsking] = useState(false);
  const from = part.places[0]!.place;
  if (!asking)
    return (
      <Button weight="quiet" disabled={busy} onClick={() => setAsking(true)}>
        Kept for {inTheWay.length === 1 ? 'another job' : 'other jobs'}: take it
      </Button>
    );
  return (
    <Note tone="plain">
      <p>Kept for {inTheWay.map(keptWords).join('; ')}. It will lack this part.</p>
      <span className="flex flex-wrap gap-2 pt-2">
        <Button disabled={busy} onClick={() => onTake(from)}>
          Take it from {from} all the same
        </Button>
        <Button weight="quiet" onClick={() => setAsking(false)}>
          Leave it
        </Button>
      </span>
    </Note>
  );
}

function Line({ needed, jobId, mayUse }: { needed: JobParts; jobId: string; mayUse: boolean }) {
  const { title, stand, fitting, kept, used } = needed;
  const act = useLine(needed, jobId);
  /** What was read on a part, by its id; nothing until somebody says. */
  const [batches, setBatches] = useState<Readonly<Record<string, string>>>({});
  const batchOf = (part: Fitting) => batches[part.id] ?? '';
  const of = (id: string) => fitting.find((f) => f.id === id);
  const keptOf = (part: PartLine) =>
    kept.filter((k) => k.partId === part.id).reduce((n, k) => n + k.quantity, 0);
  return (
    <li className="border-b border-rule py-3">
      <h4 className="text-16 font-semibold">{title}</h4>
      {(stand.state === 'ordered' || stand.state === 'late') && (
        <p className={`text-14 ${stand.state === 'late' ? 'font-semibold text-rust' : ''}`}>
          {standWords(stand)}
        </p>
      )}
      {used.map((u) => (
        <div key={u.partId} className="flex flex-wrap items-center justify-between gap-2">
          <span className="text-14">
            Used: {u.quantity} × <span className="figure">{u.number}</span>
            {u.batch && `, batch ${u.batch}`}
          </span>
          {mayUse && (
            <Button
              weight="quiet"
              disabled={act.busy}
              onClick={() => void act.move(u.partId, 'returned', backTo(of(u.partId)), { batch: u.batch })}
            >
              Return one to {backTo(of(u.partId))}
            </Button>
          )}
        </div>
      ))}
      {kept.map((k) => (
        <div key={k.id} className="flex flex-wrap items-center justify-between gap-2">
          <span className="text-14">
            Kept: {k.quantity} × <span className="figure">{k.number}</span>
            {k.planned && (
              <span className="block text-13 text-muted">
                Since the job is booked, or its work went deeper
              </span>
            )}
          </span>
          {mayUse && (
            <Button weight="quiet" disabled={act.busy} onClick={() => act.free(k.partId, k.id)}>
              Keep it no longer
            </Button>
          )}
        </div>
      ))}
      {fitting.map((part) => (
        <div key={part.id} className="flex flex-wrap items-center justify-between gap-2 py-1">
          <span className="text-14">
            <Link className="figure underline underline-offset-2" to={`/stores/${part.id}`}>
              {part.number}
            </Link>{' '}
            {part.title}
            <span className="block text-13 text-muted">{stockWords(part)}</span>
          </span>
          {mayUse && part.batches.length > 0 && (
            <SelectField
              label="Batch on it"
              value={batchOf(part)}
              onChange={(e) => setBatches({ ...batches, [part.id]: e.target.value })}
            >
              <option value="">Not read</option>
              {part.batches.map((b) => (
                <option key={b} value={b}>
                  {b}
                </option>
              ))}
            </SelectField>
          )}
          {mayUse && (
            <span className="flex flex-wrap gap-2">
              {part.places.length > 0 && keptInTheWay(part).length > 0 && (
                <TakeInstead
                  part={part}
                  inTheWay={keptInTheWay(part)}
                  busy={act.busy}
                  onTake={(place) =>
                    void act.move(part.id, 'used', place, {
                      batch: batchOf(part),
                      instead: keptInTheWay(part).map((k) => k.id),
                    })
                  }
                />
              )}
              {(keptInTheWay(part).length > 0 ? [] : part.places.slice(0, 3)).map(({ place }) => (
                <Button
                  key={place}
                  disabled={act.busy}
                  onClick={() => void act.move(part.id, 'used', place, { batch: batchOf(part) })}
                  aria-label={`Use one ${part.number} from ${place}`}
                >
                  Use one from {place}
                </Button>
              ))}
              {keptOf(part) === 0 && used.length === 0 && (
                <Button
                  disabled={act.busy}
                  onClick={() => void act.keep(part.id)}
                  aria-label={`Keep one ${part.number}`}
                >
                  Keep one
                </Button>
              )}
            </span>
          )}
        </div>
      ))}
      {fitting.length === 0 && used.length === 0 && kept.length === 0 && (
        <p className="text-13 text-muted">
          No part in the stores is set to fit here.{' '}
          {needed.line !== 'lubricant' && (
            <Link className="underline underline-offset-2" to="/stores?by=measure">
              Find one by measuring
            </Link>
          )}
        </p>
      )}
      {act.error && <Note tone="trouble">{problemText(act.error)}</Note>}
    </li>
  );
}

/** Parts that the routes of a job need: what fits, what is kept for it, what it used. */
export function PartsPanel({ open, back }: { open: OpenJob; back: () => void }) {
  const { job } = open;
  const able = useMay();
  const { data, error } = useJobPartsQuery(job.id);
  const mayUse = able('use-parts') && !isClosed(job);
  const [keepAll, keeping] = useReserveAllPartsMutation();
  const keepable = (data ?? []).filter(
    (l) => l.stand.state === 'here' && l.line.startsWith('part:') && l.kept.length + l.used.length === 0,
  ).length;
  const positions = [...new Set((data ?? []).map((l) => l.position))];
  return (
    <>
      <h2 className="text-26">Parts</h2>
      {error && <Note tone="trouble">{problemText(error)}</Note>}
      {!data && !error && <p className="text-16 text-muted">Looking in the store.</p>}
      {mayUse && keepable > 0 && (
        <div>
          <Button disabled={keeping.isLoading} onClick={() => void keepAll(job.id)}>
            Keep what is here for this job: {keepable === 1 ? '1 line' : `${keepable} lines`}
          </Button>
        </div>
      )}
      {keeping.error && <Note tone="trouble">{problemText(keeping.error)}</Note>}
      {data?.length === 0 && <p className="text-16 text-muted">The work of this job needs none.</p>}
      {positions.map((position) => (
        <section key={position} aria-label={`Parts of ${position}`}>
          <h3 className="text-18">{position}</h3>
          <ul>
            {data!
              .filter((l) => l.position === position)
              .map((needed) => (
                <Line key={needed.line} needed={needed} jobId={job.id} mayUse={mayUse} />
              ))}
          </ul>
        </section>
      ))}
      <div>
        <Button onClick={back}>Back to the work</Button>
      </div>
    </>
  );
}
