import type { ReactNode } from 'react';
import { Link } from 'react-router';
import type { UnitSummary, WheelEndState, WheelEndSummary } from '@lanternwright/contract/fleet';
import { unitKinds } from '@lanternwright/core/axle-plan';
import { useReader } from '../shell/use-reader.ts';
import { formatDate, formatMeter, formatPlay } from '../shell/words.ts';
import { AxlePlan } from '../ui/axle-plan.tsx';
import { StateMark, stateWords } from '../ui/state-mark.tsx';

/** States of wheel ends, the gravest first. */
export const states: readonly WheelEndState[] = [
  'working',
  'out-of-service',
  'loose',
  'tight',
  'repeat',
  'in-band',
  'not-measured',
];

/** The wheel end one would look at first: worst state, then newest reading. */
function worstOf(unit: UnitSummary): WheelEndSummary | undefined {
  const rank = (w: WheelEndSummary) => states.indexOf(w.state);
  return [...unit.wheelEnds].sort(
    (a, b) => rank(a) - rank(b) || (b.readAt ?? '').localeCompare(a.readAt ?? ''),
  )[0];
}

function newestReading(unit: UnitSummary): WheelEndSummary | undefined {
  return unit.wheelEnds.filter((w) => w.readAt).sort((a, b) => b.readAt!.localeCompare(a.readAt!))[0];
}

/** What is due now, in words: follow-ups and works past their interval. */
const dueWords = (followUps: number, due: number) =>
  [
    followUps > 0 && (followUps === 1 ? '1 follow-up due' : `${followUps} follow-ups due`),
    due > 0 && (due === 1 ? '1 work overdue' : `${due} works overdue`),
  ]
    .filter(Boolean)
    .join(', ');

interface UnitRowProps {
  unit: UnitSummary;
  /** Where units of several owners stand under one another. */
  withOwner?: boolean;
  followUps?: number;
  due?: number;
}

/** A unit in a list: its axle plan, and the wheel end to look at first. */
export function UnitRow({ unit, withOwner, followUps = 0, due = 0 }: UnitRowProps) {
  const reader = useReader();
  const worst = worstOf(unit);
  const last = newestReading(unit);
  const dueNow = dueWords(followUps, due);
  const working = worst?.state === 'working';
  const trouble =
    worst && ['out-of-service', 'loose', 'tight', 'repeat'].includes(worst.state) ? worst : undefined;
  return (
    <li className={`border-b border-rule ${working ? 'bg-linear-to-r from-lamp to-transparent' : ''}`}>
      <Link
        to={`/fleet/${unit.id}`}
        className="grid min-h-[84px] grid-cols-[1fr_auto] items-center gap-x-4 gap-y-1 px-5 py-2 hover:bg-side sm:grid-cols-[150px_1fr_190px]"
      >
        <span className="min-w-0">
          <span className="block truncate text-16 font-semibold">{unit.name}</span>
          <span className="block truncate text-13 text-muted">
            {withOwner ? unit.owner.name : unitKinds[unit.kind]}
          </span>
          <span className="block truncate text-12 text-muted">
            {[unit.plate, formatMeter(unit.meterKm, unit.hours, reader)].filter(Boolean).join(' · ')}
          </span>
        </span>
        <span className="order-last col-span-2 min-w-0 overflow-hidden sm:order-none sm:col-span-1">
          <AxlePlan axles={unit.axles} wheelEnds={unit.wheelEnds} label={`Axle plan of ${unit.name}`} />
        </span>
        <span className="text-13">
          {working ? (
            <span className="flex items-center gap-2 font-semibold">
              <StateMark state="working" /> in a job,{' '}
              {unit.wheelEnds
                .filter((w) => w.state === 'working')
                .map((w) => w.position)
                .join(' ')}
            </span>
          ) : trouble ? (
            <span
              className={`flex items-center gap-2 font-semibold ${trouble.state === 'tight' ? 'text-blue' : 'text-rust'}`}
            >
              <StateMark state={trouble.state} /> {trouble.position} {stateWords[trouble.state]}
              {trouble.endPlayMm !== null && `, ${formatPlay(trouble.endPlayMm, reader.length)}`}
            </span>
          ) : last ? (
            <span className="flex items-center gap-2">
              <StateMark state={last.state} /> {last.position}{' '}
              <span className="figure">{formatPlay(last.endPlayMm!, reader.length)}</span>
            </span>
          ) : (
            <span className="flex items-center gap-2 text-muted">
              <StateMark state="not-measured" /> not measured
            </span>
          )}
          {dueNow !== '' && <span className="block pl-6 text-12 font-semibold">{dueNow}</span>}
          {last?.readAt && (
            <span className="block pl-6 text-12 text-muted">measured {formatDate(last.readAt)}</span>
          )}
        </span>
      </Link>
    </li>
  );
}

/** Units under one another, two beside each other where there is room. */
export function UnitRows({ children }: { children: ReactNode }) {
  return <ul className="lg:grid lg:grid-cols-2 lg:[&>li:nth-child(odd)]:border-r">{children}</ul>;
}

/** How many units, in words. */
export const countOf = (units: number) => (units === 1 ? '1 unit' : `${units.toLocaleString('en')} units`);
