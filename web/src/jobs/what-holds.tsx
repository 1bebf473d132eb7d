import { lazy, Suspense, useState } from 'react';
import { Link } from 'react-router';
import {
  lastVerdict,
  stepAtHand,
  type RecordedReckoning,
  type WheelEnd,
  recordedBy,
} from '@lanternwright/core/traveller';
import { bandInMm } from '@lanternwright/core/procedure';
import { wheelTorqueKey } from '@lanternwright/core/route';
import { sheetLines, sheetSources } from '@lanternwright/core/procedure';
import { formatDate, formatDistance, formatPlay, formatTime } from '../shell/words.ts';
import { Button } from '../ui/button.tsx';
import { Photos } from './photos.tsx';
import { SinceSet } from './since-set.tsx';
import { StrikeOut } from './strike-out.tsx';
import type { OpenJob } from './use-job.ts';
import { useReader } from '../shell/use-reader.ts';

const ReadingsChart = lazy(() =>
  import('../fleet/readings-chart.tsx').then((m) => ({ default: m.ReadingsChart })),
);

/** Address of a sum with its input filled in, for a wheel end of this job. */
function sumAddress(name: string, input: unknown, jobId: string, at: string): string {
  return `/reckoner/${name}?${new URLSearchParams({ i: JSON.stringify(input), job: jobId, at })}`;
}

/** Sums that can be filled in from what is known of a wheel end. */
function sumsFor({ sheet, ...w }: WheelEnd): { name: string; title: string; input: unknown }[] {
  const { thread, lock, band, studs } = sheet;
  const wheelTorque = sheet[wheelTorqueKey(w.plan.stack)];
  const measuredMm = lastVerdict({ sheet, ...w })?.result.endPlayMm;
  const sums = [];
  if (thread && lock && band && measuredMm !== undefined) {
    const input = { thread, lock, measuredMm, band: bandInMm(band) };
    sums.push({ name: 'nut-setting', title: 'Nut setting', input });
  }
  if (wheelTorque) {
    const targetNm = wheelTorque.max.si;
    sums.push({ name: 'torque-setting', title: 'Torque setting', input: { targetNm } });
    if (studs)
      sums.push({
        name: 'tightening-sequence',
        title: 'Tightening sequence',
        input: { studs, stages: [0.5, 1], targetNm },
      });
  }
  return sums;
}

function RecordedSum({
  open,
  recorded,
  position,
}: {
  open: OpenJob;
  recorded: RecordedReckoning;
  position: string;
}) {
  const [striking, setStriking] = useState(false);
  const mayStrike = open.person.role === 'supervisor' || recorded.by.id === open.person.id;
  return (
    <li className="flex flex-col gap-1 border-t border-rule py-2 text-13">
      <Link
        to={sumAddress(recorded.name, recorded.reckoned.input, open.job.id, position)}
        className="font-semibold underline"
      >
        {recorded.title}
      </Link>
      <span className="figure">{recorded.summary}</span>
      {recorded.note && <span>{recorded.note}</span>}
      <span className="text-muted">
        {recordedBy(recorded.by)}, {formatTime(recorded.at)}
      </span>
      {mayStrike && !striking && (
        <Button weight="quiet" className="self-start" onClick={() => setStriking(true)}>
          Strike out
        </Button>
      )}
      {striking && <StrikeOut open={open} eventId={recorded.eventId} onDone={() => setStriking(false)} />}
    </li>
  );
}

function Reckoned({ open, wheelEnd }: { open: OpenJob; wheelEnd: WheelEnd }) {
  const { position, reckonings } = wheelEnd;
  const sums = wheelEnd.release ? [] : sumsFor(wheelEnd);
  if (sums.length === 0 && reckonings.length === 0) return null;
  return (
    <section>
      <h2 className="caption pb-1">Reckoned for {position}</h2>
      {sums.length > 0 && (
        <ul className="flex flex-wrap gap-x-4">
          {sums.map((sum) => (
            <li key={sum.name}>
              <Link
                to={sumAddress(sum.name, sum.input, open.job.id, position)}
                className="flex min-h-10 items-center text-14 underline"
              >
                {sum.title}
              </Link>
            </li>
          ))}
        </ul>
      )}
      <ul>
        {reckonings.map((recorded) => (
          <RecordedSum key={recorded.eventId} {...{ open, recorded, position }} />
        ))}
      </ul>
    </section>
  );
}

/** The right side: figures with their source, the caution, and what happened here before. */
export function WhatHolds({ open, wheelEnd }: { open: OpenJob; wheelEnd: WheelEnd }) {
  const reader = useReader();
  const unit = reader.length;
  const step = stepAtHand(wheelEnd);
  const { position, sheet } = wheelEnd;
  const lines = sheetLines(sheet, reader);
  const sources = sheetSources(lines);
  const before = open.detail.before.filter((r) => r.position === position);
  const last = before.filter((r) => r.final).at(-1);
  return (
    <aside
      aria-label="What holds"
      className="flex min-w-0 flex-col gap-6 border-t border-rule bg-side p-5 md:col-span-2 lg:col-span-1 lg:border-t-0 lg:border-l"
    >
      <section>
        <h2 className="caption pb-2">Sheet for {position}</h2>
        <dl className="grid grid-cols-[auto_1fr] gap-x-4 gap-y-1.5">
          {lines.map((l) => (
            <div key={l.label} className="contents">
              <dt className="text-13 text-muted">{l.label}</dt>
              <dd className="figure text-13">{l.value}</dd>
            </div>
          ))}
        </dl>
        <p className="pt-2 text-12 text-muted">
          {step && `This step: ${step.source}. `}
          {sources.join(' ')}
        </p>
      </section>
      {step?.caution && (
        <section>
          <h2 className="caption pb-2">Before you go on</h2>
          <p className="rounded-r-md border-l-4 border-rust bg-rust-wash px-3 py-2.5 text-14">
            {step.caution}
          </p>
          <p className="pt-2 text-12 text-muted">Follow the maker’s instructions and local rules.</p>
        </section>
      )}
      <Photos wheelEnd={wheelEnd} />
      <Reckoned open={open} wheelEnd={wheelEnd} />
      <section className="min-w-0">
        <h2 className="caption pb-2">{position} before</h2>
        {step?.id !== 'as-found' && <SinceSet open={open} wheelEnd={wheelEnd} />}
        {before.length === 0 ? (
          <p className="text-13 text-muted">No earlier reading.</p>
        ) : (
          <>
            <Suspense fallback={<div className="h-40" />}>
              <ReadingsChart readings={before} band={sheet.band} height={140} />
            </Suspense>
            {last && (
              <p className="pt-1 text-13 text-muted">
                Left at {formatPlay(last.endPlayMm, unit)} on {formatDate(last.at)}
                {last.km !== null && ` at ${formatDistance(last.km, reader)}`}.
              </p>
            )}
          </>
        )}
      </section>
    </aside>
  );
}
