import { StepPlot } from '../../ui/step-plot.tsx';
import type { ViewProps } from './types.ts';

const figure = (value: number) => String(Number(value.toPrecision(4)));
const percent = (share: number) => `${(100 * share).toFixed(1)} %`;
const chance = (p: number) => (p < 0.001 ? 'p under 0.001' : `p ${p.toFixed(3)}`);

/** From which chance on a difference is told. @source common practice, no source */
const TELLING = 0.05;

interface Survival {
  steps: { time: number; survival: number; low: number | null; high: number | null }[];
  median: number | null;
}

/** The share that still runs, with its 95 % limits. */
export function SurvivalView({ result }: ViewProps<unknown, Survival>) {
  const { steps, median } = result;
  const limit = (of: 'low' | 'high') =>
    steps.flatMap((s) => (s[of] === null ? [] : [{ x: s.time, y: s[of] }]));
  return (
    <div className="flex flex-col gap-2">
      <h2 className="text-18">
        {median === null ? 'More than half still run at the end' : `Half have failed by ${figure(median)}`}
      </h2>
      <StepPlot
        label="Share that still runs, with 95 % limits"
        formatX={figure}
        series={[
          {
            name: 'Still running',
            steps: [{ x: 0, y: 1 }, ...steps.map((s) => ({ x: s.time, y: s.survival }))],
          },
          { name: 'Lower limit', steps: limit('low'), limit: true },
          { name: 'Upper limit', steps: limit('high'), limit: true },
        ]}
      />
      <table className="text-13">
        <thead>
          <tr>
            {['At', 'Share left', '95 % limits'].map((head) => (
              <th key={head} scope="col" className="caption py-1 pr-4 text-left">
                {head}
              </th>
            ))}
          </tr>
        </thead>
        <tbody className="figure">
          {steps.slice(0, 60).map((s) => (
            <tr key={s.time} className="border-t border-rule">
              <td className="py-1 pr-4">{figure(s.time)}</td>
              <td className="py-1 pr-4">{percent(s.survival)}</td>
              <td className="py-1 pr-4">
                {s.low === null || s.high === null ? 'none' : `${percent(s.low)} to ${percent(s.high)}`}
              </td>
            </tr>
          ))}
        </tbody>
      </table>
    </div>
  );
}

interface LogRank {
  chiSquare: number;
  degreesOfFreedom: number;
  pValue: number;
  groups: { id: string; observed: number; expected: number }[];
}

/** Whether groups live equally long, and which of them fails more than the others would. */
export function LogRankView({ result }: ViewProps<unknown, LogRank>) {
  const { pValue, groups, degreesOfFreedom } = result;
  const verdict =
    degreesOfFreedom === 0
      ? 'Nothing can be compared: no failure happened while units of two groups were running'
      : pValue < TELLING
        ? `The groups do not last equally long, ${chance(pValue)}`
        : `No difference that chance alone would not make, ${chance(pValue)}`;
  return (
    <div className="flex flex-col gap-3">
      <h2 className="text-18">{verdict}</h2>
      <table className="text-14">
        <thead>
          <tr>
            {['Group', 'Failed', 'Expected', 'Failed of expected'].map((head) => (
              <th key={head} scope="col" className="caption py-1 pr-4 text-left">
                {head}
              </th>
            ))}
          </tr>
        </thead>
        <tbody>
          {groups.map((g) => (
            <tr key={g.id} className="border-t border-rule">
              <th scope="row" className="py-2 pr-4 text-left font-normal">
                {g.id}
              </th>
              <td className="figure py-2 pr-4">{g.observed}</td>
              <td className="figure py-2 pr-4">{g.expected.toFixed(1)}</td>
              <td className="figure py-2 pr-4">
                {g.expected === 0 ? 'none' : percent(g.observed / g.expected)}
              </td>
            </tr>
          ))}
        </tbody>
      </table>
      <p className="figure text-13 text-muted">
        χ² {result.chiSquare.toFixed(2)}, {degreesOfFreedom} {degreesOfFreedom === 1 ? 'degree' : 'degrees'}{' '}
        of freedom
      </p>
    </div>
  );
}

interface Competing {
  causes: { cause: string; steps: { time: number; incidence: number }[] }[];
}

/** What share of the parts each cause has ended, over time. */
export function CompetingRisksView({ result }: ViewProps<unknown, Competing>) {
  const { causes } = result;
  const ended = causes.map(({ cause, steps }) => ({ cause, share: steps.at(-1)?.incidence ?? 0 }));
  const most = ended.reduce<(typeof ended)[number] | null>((m, e) => (m && m.share >= e.share ? m : e), null);
  const last = Math.max(0, ...causes.flatMap(({ steps }) => steps.map((s) => s.time)));
  return (
    <div className="flex flex-col gap-2">
      <h2 className="text-18">
        {most
          ? `Most often ended by “${most.cause}”: ${percent(most.share)}`
          : 'Every one of them still runs'}
      </h2>
      <StepPlot
        label="Share that each cause has ended"
        formatX={figure}
        series={causes.map(({ cause, steps }) => ({
          name: `${cause}, ${percent(steps.at(-1)?.incidence ?? 0)} in the end`,
          steps: [
            { x: 0, y: 0 },
            ...steps.map((s) => ({ x: s.time, y: s.incidence })),
            { x: last, y: steps.at(-1)?.incidence ?? 0 },
          ],
        }))}
      />
    </div>
  );
}

interface Slope {
  estimate: number;
  standardError: number;
}
interface Pooled {
  mean: number;
  meanStandardError: number;
  betweenSd: number;
  pooled: Slope[];
}

/** Each slope as it was measured and as it is drawn toward its kind, both with twice their standard error. */
export function PooledSlopesView({ input, result }: ViewProps<{ slopes: Slope[] }, Pooled>) {
  const reach = [...input.slopes, ...result.pooled].flatMap(({ estimate: e, standardError: se }) => [
    e - 2 * se,
    e + 2 * se,
  ]);
  const [low, high] = [Math.min(...reach), Math.max(...reach)];
  const at = (value: number) => (100 * (value - low)) / (high - low || 1);
  const bar = ({ estimate, standardError }: Slope, y: number, pooled: boolean) => (
    <>
      <line
        x1={at(estimate - 2 * standardError)}
        x2={at(estimate + 2 * standardError)}
        y1={y}
        y2={y}
        stroke={pooled ? 'var(--color-ink)' : 'var(--color-edge)'}
        strokeWidth={pooled ? 2.5 : 1.5}
        vectorEffect="non-scaling-stroke"
      />
      <rect x={at(estimate) - 0.5} y={y - 4} width="1" height="8" fill="var(--color-ink)" />
    </>
  );
  return (
    <div className="flex flex-col gap-3">
      <h2 className="text-18">
        The kind: {figure(result.mean)} ± {figure(2 * result.meanStandardError)}
        {result.betweenSd === 0
          ? ', and no more spread than chance'
          : `, spread between them ${figure(result.betweenSd)}`}
      </h2>
      <ol className="flex flex-col">
        {input.slopes.slice(0, 60).map((slope, i) => (
          <li key={i} className="grid grid-cols-[2rem_1fr_9rem] items-center gap-3 border-t border-rule py-1">
            <span className="figure text-13 text-muted">{i + 1}</span>
            <svg
              viewBox="0 0 100 28"
              preserveAspectRatio="none"
              className="h-7 w-full"
              role="img"
              aria-label={`Measured ${figure(slope.estimate)}, pooled ${figure(result.pooled[i]!.estimate)}`}
            >
              <line
                x1={at(result.mean)}
                x2={at(result.mean)}
                y1="0"
                y2="28"
                stroke="var(--color-pine)"
                strokeDasharray="3 3"
                vectorEffect="non-scaling-stroke"
              />
              {bar(slope, 8, false)}
              {bar(result.pooled[i]!, 20, true)}
            </svg>
            <span className="figure text-right text-13">
              {figure(slope.estimate)} → <b>{figure(result.pooled[i]!.estimate)}</b>
            </span>
          </li>
        ))}
      </ol>
      <p className="text-13 text-muted">
        Thin: as measured. Thick: with what its kind tells. Dashed: the mean of the kind. Bars reach twice the
        standard error.
      </p>
    </div>
  );
}
