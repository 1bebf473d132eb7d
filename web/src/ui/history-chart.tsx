import {
  CartesianGrid,
  Line,
  LineChart,
  ReferenceArea,
  ResponsiveContainer,
  Tooltip,
  XAxis,
  YAxis,
} from 'recharts';

export interface HistoryPoint {
  /** Place on the horizontal axis: km or epoch ms. */
  x: number;
  value: number;
  label: string;
  state: 'in-band' | 'tight' | 'loose' | 'repeat' | 'unsure';
  asFound: boolean;
}

interface Props {
  points: readonly HistoryPoint[];
  band: { min: number; max: number } | null;
  digits: number;
  unit: string;
  formatX: (x: number) => string;
  height?: number;
}

const dotFill: Record<HistoryPoint['state'], string> = {
  'in-band': 'var(--color-pine)',
  tight: 'var(--color-blue)',
  loose: 'var(--color-rust)',
  repeat: 'var(--color-ink)',
  unsure: 'var(--color-ink)',
};

/** Half a ring for a reading as found, a disc for one as left; each in its side's colour. */
function Dot({ cx = 0, cy = 0, payload }: { cx?: number; cy?: number; payload?: HistoryPoint }) {
  if (!payload) return null;
  const colour = dotFill[payload.state];
  return (
    <circle
      cx={cx}
      cy={cy}
      r={4.5}
      fill={payload.asFound ? 'var(--color-panel)' : colour}
      stroke={colour}
      strokeWidth={2}
    />
  );
}

function Hint({
  active,
  payload,
  unit,
  digits,
}: {
  active?: boolean;
  payload?: readonly { payload: HistoryPoint }[];
  unit: string;
  digits: number;
}) {
  const point = payload?.[0]?.payload;
  if (!active || !point) return null;
  return (
    <div className="rounded-md border border-edge bg-panel px-3 py-2 text-13">
      <p className="figure font-semibold">
        {point.value.toFixed(digits)} {unit}, {point.state}
      </p>
      <p className="text-muted">{point.label}</p>
    </div>
  );
}

/** End play over distance or date, with the band behind it. */
export function HistoryChart({ points, band, digits, unit, formatX, height = 240 }: Props) {
  const top = Math.max(band?.max ?? 0, ...points.map((p) => p.value)) * 1.25;
  const tick = { fill: 'var(--color-muted)', fontSize: 12, fontFamily: 'var(--font-mono)' };
  return (
    <ResponsiveContainer width="100%" height={height}>
      <LineChart data={[...points]} margin={{ top: 8, right: 44, bottom: 4, left: 4 }} accessibilityLayer>
        <CartesianGrid vertical={false} stroke="var(--color-rule)" />
        {band && <ReferenceArea y1={band.min} y2={band.max} fill="var(--color-pine-wash)" fillOpacity={1} />}
        <XAxis
          dataKey="x"
          type="number"
          domain={['dataMin', 'dataMax']}
          tickFormatter={formatX}
          tick={tick}
          stroke="var(--color-edge)"
          minTickGap={40}
        />
        <YAxis
          domain={[0, top]}
          tickFormatter={(v: number) => v.toFixed(digits - 1)}
          tick={tick}
          stroke="var(--color-edge)"
          width={56}
        />
        <Tooltip content={<Hint unit={unit} digits={digits} />} isAnimationActive={false} />
        <Line
          dataKey="value"
          stroke="var(--color-ink)"
          strokeWidth={1.6}
          dot={<Dot />}
          activeDot={{ r: 6, fill: 'var(--color-lamp-edge)' }}
          isAnimationActive={false}
        />
      </LineChart>
    </ResponsiveContainer>
  );
}
