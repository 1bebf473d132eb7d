import { lazy, Suspense } from 'react';
import { stepAtHand, type WheelEnd } from '@lanternwright/core/traveller';
import { sheetLines } from '../fleet/figure-words.ts';
import { sayDate, sayKm, sayPlay } from '../shell/words.ts';
import { useAppSelector } from '../store.ts';
import type { OpenJob } from './use-job.ts';

const ReadingsChart = lazy(() =>
  import('../fleet/readings-chart.tsx').then((m) => ({ default: m.ReadingsChart })),
);

/** The right side: figures with their source, the caution, and what happened here before. */
export function WhatHolds({ open, wheelEnd }: { open: OpenJob; wheelEnd: WheelEnd }) {
  const unit = useAppSelector((s) => s.preferences.unit);
  const step = stepAtHand(wheelEnd);
  const { position, sheet } = wheelEnd;
  const lines = sheetLines(sheet, unit);
  const sources = [...new Set(lines.flatMap((l) => (l.source ? [`${l.label}: ${l.source}.`] : [])))];
  const before = open.detail.before.filter((r) => r.position === position);
  const last = before.filter((r) => r.final).at(-1);
  return (
    <aside
      aria-label="What holds"
      className="flex min-w-0 flex-col gap-6 border-t border-rule bg-side p-5 md:col-span-2 lg:col-span-1 lg:border-t-0 lg:border-l"
    >
      <section>
        <h2 className="caption pb-2">What holds for {position}</h2>
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
      <section className="min-w-0">
        <h2 className="caption pb-2">{position} before</h2>
        {before.length === 0 ? (
          <p className="text-13 text-muted">No earlier reading.</p>
        ) : (
          <>
            <Suspense fallback={<div className="h-40" />}>
              <ReadingsChart readings={before} band={sheet.band} unit={unit} height={140} />
            </Suspense>
            {last && (
              <p className="pt-1 text-13 text-muted">
                Left at {sayPlay(last.endPlayMm, unit)} on {sayDate(last.at)}
                {last.km !== null && ` at ${sayKm(last.km)}`}.
              </p>
            )}
          </>
        )}
      </section>
    </aside>
  );
}
