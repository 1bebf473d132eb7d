import { useState } from 'react';
import { costRateAt } from '@lanternwright/core/reliability';
import { formatDate, formatDistance } from '../../shell/words.ts';
import { LinePlot } from '../../ui/line-plot.tsx';
import { LoadRing } from '../../ui/load-ring.tsx';
import { ShareBars } from '../../ui/share-bars.tsx';
import type { ViewProps } from './types.ts';
import { useReader } from '../../shell/use-reader.ts';

interface RowResult {
  epsilon: number;
  heaviestN: number;
  rollersN: number[];
}
interface Setting {
  settingMm: number;
  a: RowResult;
  b: RowResult;
  relativeLife: number;
}

const kn = (n: number) => `${(n / 1000).toFixed(1)} kN`;
/** The band of TMC RP 618, shaded behind the life curve for orientation. */
const BAND_MM = { from: 0.0254, to: 0.127 };

/** Load zone of both rows at one setting, and life over all of them. */
export function SettingLifeView({
  result,
  unit,
}: ViewProps<unknown, { settings: Setting[]; bestMm: number }>) {
  const sorted = [...result.settings].sort((x, y) => x.settingMm - y.settingMm);
  const [chosen, setChosen] = useState(Math.floor(sorted.length / 2));
  const setting = sorted[Math.min(chosen, sorted.length - 1)]!;
  const per = unit === 'in' ? 25.4 : 1;
  const say = (mm: number) => `${(mm / per).toFixed(unit === 'in' ? 4 : 3)} ${unit}`;
  return (
    <div className="flex flex-col gap-3">
      <p className="rounded-r-md border-l-4 border-rust bg-rust-wash px-3 py-2 text-14">
        A model for understanding. It is never a reason to change a band.
      </p>
      <label className="text-14">
        Setting {say(setting.settingMm)}
        {setting.settingMm < 0 ? ', preload' : ', end play'}: life {setting.relativeLife.toFixed(2)} of that
        at zero
        <input
          type="range"
          className="block w-full accent-lamp-edge"
          min={0}
          max={sorted.length - 1}
          value={Math.min(chosen, sorted.length - 1)}
          onChange={(e) => setChosen(Number(e.target.value))}
        />
      </label>
      <div className="flex flex-wrap justify-around gap-4">
        <LoadRing
          label="Row a"
          words={`heaviest roller ${kn(setting.a.heaviestN)}, ε ${setting.a.epsilon.toFixed(2)}`}
          rollersN={setting.a.rollersN}
        />
        <LoadRing
          label="Row b"
          words={`heaviest roller ${kn(setting.b.heaviestN)}, ε ${setting.b.epsilon.toFixed(2)}`}
          rollersN={setting.b.rollersN}
        />
      </div>
      {sorted.length > 1 && (
        <LinePlot
          label="Life against that at zero, over the setting; the usual band shaded"
          line={sorted.map((s) => ({ x: s.settingMm / per, y: s.relativeLife }))}
          shade={{ from: BAND_MM.from / per, to: BAND_MM.to / per }}
          mark={setting.settingMm / per}
          formatX={(x) => x.toFixed(unit === 'in' ? 3 : 2)}
          formatY={(y) => y.toFixed(2)}
        />
      )}
    </div>
  );
}

interface LiningInput {
  readings: { distanceKm: number; thicknessMm: number }[];
  minimumMm: number;
}

/** Readings of a lining, their line, and where it meets the minimum. */
export function LiningView({
  input,
  result,
}: ViewProps<
  LiningInput,
  { wearMmPer1000Km: number | null; atDistanceKm: number | null; remainingKm: number | null }
>) {
  const reader = useReader();
  const { wearMmPer1000Km: wear, atDistanceKm: at, remainingKm } = result;
  const first = Math.min(...input.readings.map((r) => r.distanceKm));
  const line =
    wear === null || at === null
      ? []
      : [
          { x: first, y: input.minimumMm + ((at - first) * wear) / 1000 },
          { x: at, y: input.minimumMm },
        ];
  return (
    <div className="flex flex-col gap-2">
      <h2 className="text-18">
        {remainingKm === null || at === null
          ? 'It does not wear'
          : remainingKm < 0
            ? 'It is under its minimum now'
            : `${formatDistance(remainingKm, reader)} left, to ${formatDistance(at, reader)}`}
      </h2>
      <LinePlot
        label="Thickness, mm, over distance"
        line={line}
        dots={input.readings.map((r) => ({ x: r.distanceKm, y: r.thicknessMm }))}
        levels={[{ y: input.minimumMm, words: 'minimum', grave: true }]}
        formatX={(x) => formatDistance(x, reader)}
        formatY={(y) => y.toFixed(1)}
      />
    </div>
  );
}

interface TrendInput {
  points: { x: number; y: number }[];
  limit: number;
}

export function TrendView({
  input,
  result,
}: ViewProps<TrendInput, { slope: number; intercept: number; crossesAt: number | null }>) {
  const xs = input.points.map((p) => p.x);
  const ends = [Math.min(...xs), Math.max(...xs, result.crossesAt ?? -Infinity)];
  return (
    <div className="flex flex-col gap-2">
      <h2 className="text-18">
        {result.crossesAt === null
          ? 'It does not rise to the limit'
          : `It meets the limit at ${Number(result.crossesAt.toPrecision(5))}`}
      </h2>
      <LinePlot
        label="Readings and their line"
        line={ends.map((x) => ({ x, y: result.intercept + result.slope * x }))}
        dots={input.points}
        levels={[{ y: input.limit, words: 'limit', grave: true }]}
        formatX={(x) => String(Number(x.toPrecision(4)))}
        formatY={(y) => String(Number(y.toPrecision(3)))}
      />
    </div>
  );
}

interface Chart {
  centre: number;
  lower: number;
  upper: number;
  signals: number[];
}

export function ControlChartView({ input, result }: ViewProps<{ values: number[] }, Chart>) {
  const line = input.values.map((y, i) => ({ x: i + 1, y }));
  return (
    <div className="flex flex-col gap-2">
      <h2 className="text-18">
        {result.signals.length === 0
          ? 'All within their usual spread'
          : `Outside: ${result.signals.map((i) => i + 1).join(', ')}`}
      </h2>
      <LinePlot
        label="Values in order, with their limits"
        line={line}
        dots={line.map((p, i) => ({ ...p, signal: result.signals.includes(i) }))}
        levels={[
          { y: result.upper, words: 'upper', grave: true },
          { y: result.centre, words: 'centre' },
          { y: result.lower, words: 'lower', grave: true },
        ]}
        formatX={String}
        formatY={(y) => String(Number(y.toPrecision(4)))}
      />
    </div>
  );
}

interface Study {
  repeatability: number;
  reproducibility: number;
  interaction: number;
  part: number;
  percentOfTotal: number;
  distinctCategories: number | null;
}

export function GaugeStudyView({ result }: ViewProps<unknown, Study>) {
  const words = (v: number) => String(Number(v.toPrecision(4)));
  const verdict =
    result.percentOfTotal <= 10
      ? 'The gauge tells parts apart well'
      : result.percentOfTotal <= 30
        ? 'The gauge will do for some work'
        : 'The gauge hides the parts';
  return (
    <div className="flex flex-col gap-3">
      <h2 className="text-18">
        {verdict}: {result.percentOfTotal.toFixed(1)} % of the spread
        {result.distinctCategories === null ? '' : `, ${result.distinctCategories} classes told apart`}
      </h2>
      <ShareBars
        label="Spread by its cause"
        bars={[
          {
            label: 'Gauge, repeatability',
            value: result.repeatability,
            words: words(result.repeatability),
            grave: true,
          },
          {
            label: 'People, reproducibility',
            value: result.reproducibility,
            words: words(result.reproducibility),
            grave: true,
          },
          {
            label: 'Both together',
            value: result.interaction,
            words: words(result.interaction),
            grave: true,
          },
          { label: 'Parts', value: result.part, words: words(result.part) },
        ]}
      />
    </div>
  );
}

interface Replacement {
  age: number | null;
  costRate: number;
  runToFailureRate: number;
  worthwhile: boolean;
}

interface LifeAndCosts {
  shape: number;
  scale: number;
  plannedCost: number;
  failureCost: number;
}

/** Cost rate from an early age, where planned replacements eat everything, to twice the scale or the best age. */
function costCurve(input: LifeAndCosts, best: number | null) {
  const oldest = 1.6 * Math.max(input.scale, best ?? 0);
  const youngest = 0.15 * (best ?? input.scale);
  return Array.from({ length: 80 }, (_, i) => {
    const x = youngest + ((oldest - youngest) * i) / 79;
    return { x, y: costRateAt(x, input) };
  }).filter((p) => Number.isFinite(p.y));
}

export function ReplacementView({ input, result }: ViewProps<LifeAndCosts, Replacement>) {
  const rate = (v: number) => v.toPrecision(4);
  return (
    <div className="flex flex-col gap-3">
      <h2 className="text-18">
        {result.age === null || !result.worthwhile
          ? 'Run it to failure: age tells nothing'
          : `Replace at ${Number(result.age.toPrecision(4)).toLocaleString('en-GB')}`}
      </h2>
      <LinePlot
        label="Cost per unit of time, over the age at which it is replaced"
        line={costCurve(input, result.age)}
        levels={[{ y: result.runToFailureRate, words: 'run to failure', grave: true }]}
        mark={result.age ?? undefined}
        formatX={(x) => Number(x.toPrecision(2)).toLocaleString('en-GB')}
        formatY={(y) => String(Number(y.toPrecision(2)))}
      />
      <ShareBars
        label="Cost per unit of time"
        bars={[
          { label: 'Replaced at that age', value: result.costRate, words: rate(result.costRate) },
          {
            label: 'Run to failure',
            value: result.runToFailureRate,
            words: rate(result.runToFailureRate),
            grave: true,
          },
        ]}
      />
    </div>
  );
}

interface Due {
  state: string;
  dueDate: string | null;
  dueBy: string | null;
  criteria: { by: string; dueDate: string | null; remaining: number | null }[];
}

export function DueView({ result }: ViewProps<unknown, Due>) {
  const words = {
    overdue: 'Overdue',
    soon: 'Due soon',
    later: 'Not due yet',
    unknown: 'No date can be given',
  }[result.state];
  return (
    <div className="flex flex-col gap-2">
      <h2 className={`text-18 ${result.state === 'overdue' ? 'text-rust' : ''}`}>
        {words}
        {result.dueDate && `, ${formatDate(result.dueDate)}`}
      </h2>
      <ul>
        {result.criteria.map((c) => (
          <li
            key={c.by}
            className={`flex justify-between gap-4 border-b border-rule px-2 py-2 text-14 ${c.by === result.dueBy ? 'bg-lamp' : ''}`}
          >
            <span>by {c.by}</span>
            <span className="figure">{c.dueDate ? formatDate(c.dueDate) : 'no date'}</span>
            <span className="figure text-muted">
              {c.remaining === null
                ? ''
                : `${Math.round(c.remaining)} ${c.by === 'months' ? 'days' : c.by === 'hours' ? 'h' : 'km'} left`}
            </span>
          </li>
        ))}
      </ul>
    </div>
  );
}
