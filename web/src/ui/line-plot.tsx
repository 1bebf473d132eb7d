import {
  CartesianGrid,
  ComposedChart,
  Line,
  ReferenceArea,
  ReferenceLine,
  ResponsiveContainer,
  Scatter,
  XAxis,
  YAxis,
} from 'recharts';

interface XY {
  x: number;
  y: number;
}

interface Props {
  line: readonly XY[];
  dots?: readonly (XY & { signal?: boolean })[];
  /** Horizontal lines with their words. */
  levels?: readonly { y: number; words: string; grave?: boolean }[];
  /** Band shaded from one x to another. */
  shade?: { from: number; to: number };
  mark?: number;
  label: string;
  formatX: (x: number) => string;
  formatY: (y: number) => string;
}

const tick = { fill: 'var(--color-muted)', fontSize: 12, fontFamily: 'var(--font-mono)' };

/** A curve with the readings it comes from, its limits and its band. */
export function LinePlot({ line, dots = [], levels = [], shade, mark, label, formatX, formatY }: Props) {
  return (
    <figure>
      <figcaption className="caption">{label}</figcaption>
      <ResponsiveContainer width="100%" height={260}>
        <ComposedChart margin={{ top: 14, right: 40, bottom: 4, left: 8 }}>
          <CartesianGrid vertical={false} stroke="var(--color-rule)" />
          {shade && (
            <ReferenceArea x1={shade.from} x2={shade.to} fill="var(--color-pine-wash)" fillOpacity={1} />
          )}
          <XAxis
            dataKey="x"
            type="number"
            domain={['dataMin', 'dataMax']}
            tick={tick}
            tickFormatter={formatX}
            stroke="var(--color-edge)"
            minTickGap={40}
            allowDuplicatedCategory={false}
          />
          <YAxis
            dataKey="y"
            type="number"
            domain={['auto', 'auto']}
            tick={tick}
            tickFormatter={formatY}
            stroke="var(--color-edge)"
            width={64}
          />
          {levels.map((l) => (
            <ReferenceLine
              key={l.words}
              y={l.y}
              stroke={l.grave ? 'var(--color-rust)' : 'var(--color-pine)'}
              strokeDasharray="5 4"
              label={{
                value: l.words,
                position: 'insideTopLeft',
                fontSize: 12,
                fill: l.grave ? 'var(--color-rust)' : 'var(--color-pine)',
              }}
            />
          ))}
          {mark !== undefined && <ReferenceLine x={mark} stroke="var(--color-lamp-edge)" strokeWidth={3} />}
          <Line
            data={[...line]}
            dataKey="y"
            stroke="var(--color-ink)"
            strokeWidth={1.8}
            dot={false}
            isAnimationActive={false}
          />
          {dots.length > 0 && (
            <Scatter
              data={dots.filter((d) => !d.signal)}
              dataKey="y"
              fill="var(--color-pine)"
              isAnimationActive={false}
            />
          )}
          {dots.some((d) => d.signal) && (
            <Scatter
              data={dots.filter((d) => d.signal)}
              dataKey="y"
              fill="var(--color-rust)"
              isAnimationActive={false}
            />
          )}
        </ComposedChart>
      </ResponsiveContainer>
    </figure>
  );
}
