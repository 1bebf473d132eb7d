import type { ReactNode } from 'react';
import { Link, useParams } from 'react-router';
import { bandInMm, formatLimits, stages, torques } from '@lanternwright/core/procedure';
import { formatFor } from '@lanternwright/core/quantity';
import { works } from '@lanternwright/core/stack';
import {
  againstRelease,
  AS_FOUND,
  figureFor,
  hubHeat,
  describeParts,
  describeLayers,
  lockSteps,
  makersFigures,
  progressOf,
  readingsOf,
  describeObjection,
  describeStepData,
  stepsOfKind,
  stageAtHand,
  torqueFits,
  verdictOf,
  type StepProgress,
  type StepRecord,
  type WheelEnd,
  recordedBy,
} from '@lanternwright/core/traveller';
import { problemText } from '../api.ts';
import { formatDate, formatPlay, formatTime } from '../shell/words.ts';
import { Note } from '../ui/problem-note.tsx';
import { ThouRule } from '../ui/thou-rule.tsx';
import { OpenFindings } from './open-findings.tsx';
import { OutOfService } from './out-of-service.tsx';
import { ReleaseInDoubt } from './release-in-doubt.tsx';
import { ReleasePanel } from './release-panel.tsx';
import { useOpenJob, type OpenJob } from './use-job.ts';
import { useReader } from '../shell/use-reader.ts';

const by = (record: StepRecord) => `${recordedBy(record.by)}, ${formatTime(record.at)}`;

function EndPlay({ wheelEnd }: { wheelEnd: WheelEnd }) {
  const reader = useReader();
  const unit = reader.length;
  const { band } = wheelEnd.sheet;
  const [found, left] = [verdictOf(wheelEnd, AS_FOUND), verdictOf(wheelEnd)];
  const measuring = stepsOfKind(wheelEnd, 'measure').find((p) => p.step.stage === 'verify');
  const data = measuring?.record?.data;
  const last = readingsOf(wheelEnd).at(-1);
  if (!measuring && !found) return <p className="text-muted">Nothing was measured.</p>;
  return (
    <div className="flex flex-col gap-1">
      {band && left && (
        <ThouRule
          bandMm={bandInMm(band)}
          cyclesMm={left.cyclesMm}
          meanMm={left.endPlayMm}
          side={left.verdict}
          unit={unit}
        />
      )}
      <p>
        {left ? (
          <>
            <span className="figure">{formatPlay(left.endPlayMm, unit)}</span>{' '}
            {left.verdict.replace('-', ' ')}, {left.cyclesMm.length} cycles
            {last?.gauge && ` with ${last.gauge}`}
          </>
        ) : data?.kind === 'measure' ? (
          describeStepData(data, reader)
        ) : (
          <span className="text-rust">
            {measuring ? 'Not measured since the nut was moved.' : 'Not set in this job.'}
          </span>
        )}
        {data?.kind === 'measure' &&
          data.listed?.calibratedUntil &&
          `, in calibration until ${formatDate(data.listed.calibratedUntil)}`}
      </p>
      <p className="text-13 text-muted">
        {found
          ? `Found at ${formatPlay(found.endPlayMm, unit)}, ${found.verdict.replace('-', ' ')}.`
          : 'Not measured as found.'}
        {measuring?.record && ` ${by(measuring.record)}.`}
      </p>
    </div>
  );
}

/** What is off, open or not finished now; of what was not moved nothing is known. */
function Layers({ wheelEnd }: { wheelEnd: WheelEnd }) {
  const { notWhole, back, unknown } = describeLayers(wheelEnd);
  return (
    <>
      {notWhole && <p className="font-semibold text-rust">{notWhole}</p>} {back && <p>{back}</p>}
      {!notWhole && !back && <p>No layer was moved.</p>}
      {unknown && <p className="text-13 text-muted">{unknown}</p>}
    </>
  );
}

function Torques({ wheelEnd }: { wheelEnd: WheelEnd }) {
  const reader = useReader();
  const rows = stepsOfKind(wheelEnd, 'torque').filter((p) => !p.step.optional || p.record);
  if (rows.length === 0) return <p className="text-muted">None on this route.</p>;
  return (
    <ul>
      {rows.map(({ step, record }) => {
        if (step.kind !== 'torque') return null;
        const data = record?.data?.kind === 'torque' ? record.data : null;
        const figure = data && figureFor(wheelEnd.sheet[step.figure], data.asked);
        const off = data && figure && !torqueFits(data.torque.si, figure);
        const own = wheelEnd.sheet[step.figure];
        return (
          <li key={step.id} className="py-0.5">
            <span className="text-muted">{step.title}:</span>{' '}
            {data ? (
              <span className={off ? 'font-semibold text-rust' : ''}>
                <span className="figure">{formatFor(data.torque, reader)}</span> {data.tool}
                {data.listed?.calibratedUntil && `, until ${formatDate(data.listed.calibratedUntil)}`}
                {!data.listed && ', a tool that is not on the shop’s list'}
                {own
                  ? `, of ${formatLimits(own, reader)}`
                  : data.asked && `, maker’s ${formatFor(data.asked, reader)}`}
                {data.note && `. ${data.note}`}
              </span>
            ) : (
              <span className="text-rust">{record?.skipped ?? 'not recorded'}</span>
            )}
          </li>
        );
      })}
    </ul>
  );
}

function Recorded({ wheelEnd, rows, none }: { wheelEnd: WheelEnd; rows: StepProgress[]; none: string }) {
  const reader = useReader();
  if (rows.length === 0) return <p className="text-muted">{none}</p>;
  return (
    <ul>
      {rows.map(({ step, record }) => (
        <li key={step.id} className="py-0.5">
          <span className="text-muted">{step.title}:</span>{' '}
          {record?.data ? (
            `${describeStepData(record.data, reader, step, wheelEnd)}, ${recordedBy(record.by)}`
          ) : (
            <span className={step.optional ? 'text-muted' : 'text-rust'}>
              {record?.skipped ? `left out: ${record.skipped}` : 'not recorded'}
            </span>
          )}
        </li>
      ))}
    </ul>
  );
}

function Parts({ wheelEnd }: { wheelEnd: WheelEnd }) {
  const said = describeParts(wheelEnd);
  return said === null ? <p className="text-muted">Nothing was bare.</p> : <p>{said}</p>;
}

function Heat({ wheelEnd }: { wheelEnd: WheelEnd }) {
  const reader = useReader();
  const data = stepsOfKind(wheelEnd, 'heat')[0]?.record?.data;
  if (data?.kind !== 'heat') return <p className="text-muted">Not measured.</p>;
  const { verdict } = hubHeat(data, wheelEnd.sheet.heat);
  return (
    <p className={verdict === 'fine' ? '' : 'font-semibold text-rust'}>
      <span className="figure">{formatFor(data.here, reader)}</span>, other side{' '}
      {formatFor(data.other, reader)}
      {data.air && `, air ${formatFor(data.air, reader)}`}
      {data.note && `. ${data.note}`}
    </p>
  );
}

/** What was read off the maker's sheet: with the release it stands in the shop's own sheet of this axle. */
function Kept({ wheelEnd }: { wheelEnd: WheelEnd }) {
  const reader = useReader();
  const figures = makersFigures(wheelEnd);
  const kept = torques.filter(([key]) => figures[key]);
  if (kept.length === 0) return <p className="text-muted">Nothing new.</p>;
  return (
    <>
      {kept.map(([key, label]) => (
        <p key={key}>
          {label} <span className="figure">{formatLimits(figures[key]!, reader)}</span>
        </p>
      ))}
      <p className="text-13 text-muted">Read off the maker’s sheet; with the release, this axle’s own.</p>
    </>
  );
}

/** Everything somebody signs for, a row each. */
const rows: readonly [string, (w: WheelEnd) => ReactNode][] = [
  ['Work', (w) => w.firstBuild?.title ?? w.plan.works.map((x) => works[x]).join(', ')],
  ['Layers', (w) => <Layers wheelEnd={w} />],
  ['End play', (w) => <EndPlay wheelEnd={w} />],
  [
    'As found',
    (w) => <Recorded wheelEnd={w} rows={stepsOfKind(w, 'found', 'joint')} none="Nothing looked at." />,
  ],
  ['Torques', (w) => <Torques wheelEnd={w} />],
  ['Figures saved', (w) => <Kept wheelEnd={w} />],
  ['Lock', (w) => <Recorded wheelEnd={w} rows={lockSteps(w)} none="Nothing was unlocked." />],
  [
    'Measured sizes',
    (w) => (
      <Recorded
        wheelEnd={w}
        rows={stepsOfKind(w, 'rolling', 'shims', 'sensor', 'dimension', 'wear', 'stroke', 'cure')}
        none="None."
      />
    ),
  ],
  ['Parts', (w) => <Parts wheelEnd={w} />],
  [
    'Linings',
    (w) => <Recorded wheelEnd={w} rows={stepsOfKind(w, 'linings')} none="The brake was not touched." />,
  ],
  [
    'Lubricant',
    (w) => <Recorded wheelEnd={w} rows={stepsOfKind(w, 'pack', 'fill')} none="Nothing was filled." />,
  ],
  ['Hub after the road', (w) => <Heat wheelEnd={w} />],
  [
    'Left out',
    (w) => (
      <Recorded
        wheelEnd={w}
        rows={progressOf(w).filter((p) => p.record !== null && p.record.skipped !== null)}
        none="Nothing."
      />
    ),
  ],
  [
    'Photos',
    (w) =>
      w.photos.length === 0 ? (
        <p className="text-muted">None.</p>
      ) : (
        <div className="flex flex-wrap gap-2">
          {w.photos.map((p) => (
            <a key={p.photoId} href={`/api/jobs/photos/${p.photoId}`} target="_blank" rel="noreferrer">
              <img
                src={`/api/jobs/photos/${p.photoId}`}
                alt={p.caption || w.position}
                loading="lazy"
                className="h-16 rounded-sm border border-edge"
              />
            </a>
          ))}
        </div>
      ),
  ],
];

/** What stands against the release of each wheel end, first and large. */
function Against({ open, wheelEnd }: { open: OpenJob; wheelEnd: WheelEnd }) {
  const reader = useReader();
  const { position } = wheelEnd;
  if (wheelEnd.release) return null;
  const against = againstRelease(wheelEnd);
  if (against.length === 0) return null;
  const never = against.filter((o) => o.guard === 'never');
  const [first, ...rest] = never.length > 0 ? never : against;
  return (
    <div className="flex flex-wrap items-center justify-between gap-3 rounded-r-md border-l-4 border-rust bg-rust-wash px-4 py-3">
      <div>
        <p className="text-18 font-semibold">
          {position} {never.length > 0 ? 'stays' : 'asks for a reason'}:{' '}
          {describeObjection(wheelEnd, first!, reader)}
        </p>
        <p className="text-14">
          {rest.length > 0 && `And ${rest.length} more. `}
          {never.length > 0
            ? 'It cannot be released until then.'
            : 'A supervisor may release it with a written reason.'}
        </p>
      </div>
      <Link
        to={`/jobs/${open.job.id}?at=${position}`}
        className="inline-flex min-h-12 items-center rounded-md border border-edge bg-panel px-4 font-semibold"
      >
        Go to {stages.find((s) => s.id === stageAtHand(wheelEnd))!.title}, {position}
      </Link>
    </div>
  );
}

function ReleaseView({ open }: { open: OpenJob }) {
  const { job, detail } = open;
  const ends = job.wheelEnds;
  const people = [...new Set(ends.flatMap((w) => w.records.map((r) => recordedBy(r.by))))];
  const own = ends.some((w) => !w.release && w.records.some((r) => r.by.id === open.person.id));
  return (
    <main className="flex flex-1 flex-col">
      <div className="border-b border-rule px-5 py-3">
        <h1 className="text-23">Release {detail.unit.name}</h1>
        <p className="text-13 text-muted">
          <Link to={`/jobs/${job.id}`} className="underline">
            Job {detail.number}
          </Link>
          . {job.title}. Work by {people.join(' and ') || 'nobody yet'}.
        </p>
      </div>
      <div className="flex flex-col gap-4 p-5">
        {ends.map((w) => (
          <ReleaseInDoubt key={w.position} wheelEnd={w} />
        ))}
        {ends.map((w) => (
          <Against key={w.position} {...{ open, wheelEnd: w }} />
        ))}
        <div className="grid gap-8 empty:hidden md:grid-cols-2">
          {ends.map((w) => (
            <OpenFindings key={w.position} {...{ open, wheelEnd: w }} />
          ))}
        </div>
        {own && open.person.role === 'supervisor' && (
          <Note tone="plain">You did part of this work. The record will show that.</Note>
        )}
        <div className="overflow-x-auto">
          <table className="w-full min-w-[560px] table-fixed text-14">
            <thead>
              <tr className="border-b border-rule">
                <th scope="col" className="w-36 text-left">
                  <span className="sr-only">What</span>
                </th>
                {ends.map((w) => (
                  <th key={w.position} scope="col" className="px-3 py-2 text-left text-18">
                    {w.position}
                  </th>
                ))}
              </tr>
            </thead>
            <tbody>
              {rows.map(([title, cell]) => (
                <tr key={title} className="border-b border-rule align-top">
                  <th scope="row" className="py-2 text-left text-13 font-medium text-muted">
                    {title}
                  </th>
                  {ends.map((w) => (
                    <td key={w.position} className="px-3 py-2">
                      {cell(w)}
                    </td>
                  ))}
                </tr>
              ))}
            </tbody>
          </table>
        </div>
        <div className="grid gap-8 md:grid-cols-2">
          {ends.map((w) => (
            <section key={w.position} aria-label={`Release of ${w.position}`} className="flex flex-col gap-3">
              <ReleasePanel {...{ open, wheelEnd: w }} />
            </section>
          ))}
        </div>
        {open.person.role === 'supervisor' && !job.stopped && ends.some((w) => !w.release) && (
          <OutOfService open={open} />
        )}
      </div>
    </main>
  );
}

/** What a supervisor reads before a name is put to it: what stands against it, then everything measured and turned. */
export function ReleasePage() {
  const { id = '' } = useParams();
  const { open, error } = useOpenJob(id);
  if (open) return <ReleaseView key={id} open={open} />;
  return (
    <div className="p-5">
      {error ? <Note tone="trouble">{problemText(error)}</Note> : <p className="text-muted">Opening.</p>}
    </div>
  );
}
