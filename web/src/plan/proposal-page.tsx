import { useState } from 'react';
import { Link, useNavigate, useParams } from 'react-router';
import type { Proposal, Proposed } from '@lanternwright/contract/plan';
import { problemText } from '../api.ts';
import { useMay, useShop } from '../people/people-api.ts';
import { formatDate, formatRange, formatTime } from '../shell/words.ts';
import { Button } from '../ui/button.tsx';
import { Note } from '../ui/problem-note.tsx';
import { ProposalBays } from './proposal-bays.tsx';
import { useAcceptProposalMutation, useProposalQuery, useStopProposalMutation } from './plan-api.ts';

const keyOf = (row: Proposed) => row.bookingId ?? row.unit.id;
const digits = (hours: number) => Number(hours.toFixed(1));

/** Hours of a visit, with their range where that is one. */
function hoursOf({ low, usual, high }: NonNullable<Proposed['hours']>): string {
  const [least, most] = [digits(low), digits(high)];
  return `${digits(usual)} h${least === most ? '' : `, ${least} to ${most}`}`;
}

function useBayName(): (id: string) => string {
  const bays = useShop()?.bays ?? [];
  return (id) => bays.find((b) => b.id === id)?.name ?? 'a bay that is gone';
}

function Stand({ stand }: { stand: Proposed['to'] }) {
  const bay = useBayName()(stand.bayId);
  return (
    <>
      {bay}, {formatRange(stand.from, stand.until)}
      {stand.names.length > 0 && `, ${stand.names.join(' and ')}`}
    </>
  );
}

function Row({ row, on, able, toggle }: { row: Proposed; on: boolean; able: boolean; toggle: () => void }) {
  return (
    <li className="grid items-start gap-x-4 gap-y-1 border-b border-rule px-5 py-2 md:grid-cols-[300px_1fr]">
      <label className="flex min-h-12 min-w-0 items-center gap-3">
        {able && (
          <input type="checkbox" className="size-6 shrink-0 accent-action" checked={on} onChange={toggle} />
        )}
        <span className="min-w-0">
          <span className="block truncate text-16 font-semibold">{row.unit.name}</span>
          <span className="block truncate text-13 text-muted">{row.unit.owner.name}</span>
        </span>
      </label>
      <div className="py-1 text-14">
        {row.was && (
          <p className="text-muted line-through">
            <Stand stand={row.was} />
          </p>
        )}
        <p className="font-semibold">
          <Stand stand={row.to} />
          {row.lateDays > 0 && (
            <span className="text-rust">
              {', '}
              {row.lateDays === 1 ? 'a day' : `${row.lateDays} days`} late
            </span>
          )}
        </p>
        <p>{row.because}</p>
        <p className="text-13 text-muted">
          {row.what}
          {row.hours && `. ${hoursOf(row.hours)}, ${row.hours.measured > 0 ? 'from jobs here' : 'typical'}`}
        </p>
      </div>
    </li>
  );
}

const titles: Record<Proposal['kind'], string> = {
  propose: 'A plan for what is due',
  mend: 'Proposed changes',
  promise: 'A time that can be promised',
};

type Result = NonNullable<Proposal['result']>;

/** Whether a day can be promised, in a sentence. */
function describePromise({ rows: [own, ...moved], promise }: Result): string {
  if (!own || !promise) return 'No time was found.';
  const end = formatTime(own.to.until);
  if (promise.by === null) return `Finished ${end} at the earliest. No other booking moves.`;
  return {
    free: `Yes: finished ${end}. No other booking moves.`,
    moving: `Yes: finished ${end}, if ${moved.length === 1 ? 'one booking moves' : `${moved.length} bookings move`}.`,
    late: `${formatDate(promise.by)} cannot be promised. Finished ${end} at the earliest.`,
  }[promise.holds];
}

/** Parts that are not here, each with the day on which it can be had. */
function PartsNotHere({ parts }: { parts: NonNullable<Result['promise']>['parts'] }) {
  const words = ({ by, how }: (typeof parts)[number]) =>
    by === null
      ? 'Not in stock, delivery time unknown: not counted here'
      : how === 'on-order'
        ? `On order for ${formatDate(by)}`
        : `Not in stock. Ordered today, it arrives ${formatDate(by)}`;
  return (
    <ul className="border-b border-rule px-5 py-3 text-14">
      {parts.map((part) => (
        <li key={part.title} className="py-1">
          <b>
            {part.quantity > 1 && `${part.quantity} × `}
            {part.title}
          </b>{' '}
          <span className={part.by === null ? 'text-rust' : ''}>{words(part)}</span>
        </li>
      ))}
    </ul>
  );
}

function Progress({ proposal }: { proposal: Proposal }) {
  const [stop, { isLoading }] = useStopProposalMutation();
  const able = useMay();
  return (
    <section className="flex max-w-[560px] flex-col gap-3 p-5" aria-label="How far it is">
      <p className="text-16">
        {proposal.state === 'waiting'
          ? 'It waits for its turn.'
          : 'It is being worked on. Nothing changes meanwhile.'}
      </p>
      <progress className="h-3 w-full accent-action" max={1} value={proposal.done} aria-label="Progress" />
      {able('plan-work') && (
        <div>
          <Button disabled={isLoading} onClick={() => void stop(proposal.id)}>
            Stop it
          </Button>
        </div>
      )}
    </section>
  );
}

function Ready({ proposal, result }: { proposal: Proposal; result: NonNullable<Proposal['result']> }) {
  const able = useMay()('plan-work');
  const go = useNavigate();
  const [on, setOn] = useState<ReadonlySet<string>>(new Set());
  const [accept, { error, isLoading }] = useAcceptProposalMutation();
  const { rows, unplaced, gap, visitsSaved, promise } = result;
  const late = rows.filter((r) => r.lateDays > 0).length;
  const mends = proposal.kind === 'mend';
  const toggle = (key: string) => {
    const next = new Set(on);
    if (!next.delete(key)) next.add(key);
    setOn(next);
  };
  const book = async (units: readonly string[]) => {
    const answer = await accept({ id: proposal.id, units: [...units] });
    if (!answer.error) await go(`/plan/week`);
  };
  const quality =
    gap === null
      ? null
      : gap < 0.0005
        ? 'This plan cannot be improved.'
        : `At most ${(100 * gap).toFixed(1)} % could still be gained.`;
  return (
    <>
      <div className="flex flex-wrap items-center gap-x-6 gap-y-2 border-b border-rule px-5 py-3 text-14">
        <p className={promise ? 'text-18 font-semibold' : ''}>
          {promise
            ? describePromise(result)
            : mends
              ? `${rows.length === 0 ? 'Nothing has to move' : rows.length === 1 ? 'One booking moves' : `${rows.length} bookings move`}, all others stay. `
              : `${rows.length === 1 ? 'One visit' : `${rows.length} visits`}, ${late === 0 ? 'all on time' : `${late} of them late`}. `}
          {quality}
          {visitsSaved > 0 &&
            ` Combining work saves ${visitsSaved === 1 ? 'a visit' : `${visitsSaved} visits`}.`}
        </p>
        {able && promise && rows[0] && (
          <Button
            weight="main"
            className="ml-auto"
            disabled={isLoading}
            onClick={() => void book(rows.map(keyOf))}
          >
            {`Book ${rows[0].unit.name}`}
            {rows.length > 1 &&
              ` and move ${rows.length === 2 ? 'one booking' : `${rows.length - 1} bookings`}`}
          </Button>
        )}
        {able && !promise && rows.length > 0 && (
          <div className="ml-auto flex flex-wrap gap-2">
            <Button onClick={() => setOn(on.size === rows.length ? new Set() : new Set(rows.map(keyOf)))}>
              {on.size === rows.length ? 'None' : 'All'}
            </Button>
            <Button weight="main" disabled={on.size === 0 || isLoading} onClick={() => void book([...on])}>
              {on.size === 0
                ? 'Choose what to accept'
                : mends
                  ? `Move ${on.size === 1 ? 'one booking' : `${on.size} bookings`}`
                  : `Book ${on.size === 1 ? 'one unit' : `${on.size} units`}`}
            </Button>
          </div>
        )}
      </div>
      {error && (
        <div className="p-5">
          <Note tone="trouble">{problemText(error)}</Note>
        </div>
      )}
      {promise && promise.parts.length > 0 && <PartsNotHere parts={promise.parts} />}
      {unplaced.map((u) => (
        <p key={u.unit.id} className="border-b border-rule px-5 py-3 text-14 text-rust">
          <span className="font-semibold">{u.unit.name}</span>: {u.why}
        </p>
      ))}
      {rows.length === 0 && unplaced.length === 0 && (
        <p className="px-5 py-8 text-16 text-muted">
          {mends ? 'The plan holds as it is.' : 'Everything due is booked.'}
        </p>
      )}
      {rows.length > 0 && <ProposalBays {...{ rows, keyOf, toggle }} chosen={able && !promise ? on : null} />}
      <ul>
        {rows.map((row) => (
          <Row
            key={keyOf(row)}
            {...{ row, able: able && !promise }}
            on={on.has(keyOf(row))}
            toggle={() => toggle(keyOf(row))}
          />
        ))}
      </ul>
    </>
  );
}

/** A plan that was asked for: how far it is, then what it proposes, to be accepted whole or in part. */
export function ProposalPage() {
  const { id = '' } = useParams();
  const [over, setOver] = useState(false);
  const { data, error } = useProposalQuery(id, {
    pollingInterval: over ? 0 : 600,
    refetchOnMountOrArgChange: true,
  });
  const busy = data?.state === 'waiting' || data?.state === 'running';
  if (data && !busy && !over) setOver(true);
  return (
    <main>
      <div className="flex flex-wrap items-baseline gap-x-4 border-b border-rule px-5 py-4">
        <h1 className="text-23">{data ? titles[data.kind] : 'Plan'}</h1>
        <Link to="/plan/week" className="text-14 underline underline-offset-2">
          Schedule
        </Link>
      </div>
      {error && (
        <div className="p-5">
          <Note tone="trouble">{problemText(error)}</Note>
        </div>
      )}
      {data && busy && <Progress proposal={data} />}
      {data?.state === 'ready' && data.result && <Ready proposal={data} result={data.result} />}
      {(data?.state === 'stopped' || data?.state === 'failed') && (
        <p className="px-5 py-8 text-16">
          {data.state === 'stopped'
            ? 'It was stopped.'
            : 'The plan was not finished: the server stopped, or it was too large.'}{' '}
          Nothing was changed.{' '}
          <Link to="/plan" className="underline">
            Ask again from the plan
          </Link>
        </p>
      )}
    </main>
  );
}
