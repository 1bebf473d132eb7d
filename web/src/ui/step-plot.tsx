import { CartesianGrid, Line, LineChart, ResponsiveContainer, XAxis, YAxis } from 'recharts';

export interface StepSeries {
  name: string;
  /** Rising x; the value holds from each x to the next. */
  steps: readonly { x: number; y: number }[];
  /** A limit of another curve: drawn thin. */
  limit?: boolean;
}

const tick = { fill: 'var(--color-muted)', fontSize: 12, fontFamily: 'var(--font-mono)' };
/** Lines are told apart by their dashes as well as by colour. */
const strokes = [
  { stroke: 'var(--color-ink)' },
  { stroke: 'var(--color-pine)', strokeDasharray: '8 4' },
  { stroke: 'var(--color-rust)', strokeDasharray: '2 3' },
  { stroke: 'var(--color-lamp-edge)', strokeDasharray: '10 3 2 3' },
  { stroke: 'var(--color-muted)', strokeDasharray: '4 4' },
];

/** Shares from 0 to 1 that change in steps: what still runs, or what each cause has ended. */
export function StepPlot({
  series,
  label,
  formatX,
}: {
  series: readonly StepSeries[];
  label: string;
  formatX: (x: number) => string;
}) {
  const curves = series.filter((s) => !s.limit);
  return (
    <figure>
      <figcaption className="caption">{label}</figcaption>
      <ResponsiveContainer width="100%" height={260}>
        <LineChart margin={{ top: 14, right: 24, bottom: 4, left: 8 }}>
          <CartesianGrid vertical={false} stroke="var(--color-rule)" />
          <XAxis
            dataKey="x"
            type="number"
            domain={[0, 'dataMax']}
            tick={tick}
            tickFormatter={formatX}
            stroke="var(--color-edge)"
            minTickGap={40}
            allowDuplicatedCategory={false}
          />
          <YAxis
            type="number"
            domain={[0, 1]}
            ticks={[0, 0.25, 0.5, 0.75, 1]}
            tick={tick}
            tickFormatter={(y: number) => `${Math.round(100 * y)} %`}
            stroke="var(--color-edge)"
            width={64}
          />
          {series.map((s) => (
            <Line
              key={s.name}
              data={[...s.steps]}
              dataKey="y"
              type="stepAfter"
              dot={false}
              isAnimationActive={false}
              {...(s.limit
                ? { stroke: 'var(--color-muted)', strokeWidth: 1, strokeDasharray: '3 3' }
                : { ...strokes[curves.indexOf(s) % strokes.length], strokeWidth: 2 })}
            />
          ))}
        </LineChart>
      </ResponsiveContainer>
      {curves.length > 1 && (
        <ul className="flex flex-wrap gap-x-5 gap-y-1 text-13">
          {curves.map((s, i) => (
            <li key={s.name} className="flex items-center gap-2">
              <svg width="28" height="6" aria-hidden>
                <line x1="0" x2="28" y1="3" y2="3" strokeWidth="2" {...strokes[i % strokes.length]} />
              </svg>
              {s.name}
            </li>
          ))}
        </ul>
      )}
    </figure>
  );
}
