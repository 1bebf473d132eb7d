interface Props {
  /** What is allowed, in the unit of the values; an open side is left out. */
  good: { from?: number; to?: number };
  values: readonly { at: number; bad: boolean }[];
  /** A figure with its unit. */
  say: (value: number) => string;
  /** What is said of the scale to whoever cannot see it. */
  label: string;
}

const WIDTH = 560;
const EDGE = 40;
const TOP = 38;
const HEIGHT = 20;
/** Room that a figure takes along the scale. */
const LABEL = 90;

/** Values on a scale whose allowed part is washed: a stroke to its limit, a thickness to its discard figure. */
export function LimitScale({ good, values, say, label }: Props) {
  const named = [good.from, good.to].filter((v) => v !== undefined);
  const all = [...named, ...values.map((v) => v.at)];
  const [least, most] = [Math.min(...all), Math.max(...all)];
  const margin = (most - least || Math.abs(most) || 1) * 0.3;
  const [start, end] = [least - margin, most + margin];
  const x = (v: number) => EDGE + ((v - start) / (end - start)) * (WIDTH - 2 * EDGE);
  // The figure of every value would run into the next: the two outermost say what matters.
  const [lowest, highest] = [Math.min(...values.map((v) => v.at)), Math.max(...values.map((v) => v.at))];
  const apart = x(highest) - x(lowest) > LABEL;
  const isWorst = (at: number) =>
    at === (good.to === undefined ? lowest : highest) || (apart && at === lowest);
  const [left, right] = [x(good.from ?? start), x(good.to ?? end)];
  return (
    <svg
      viewBox={`0 0 ${WIDTH} ${TOP + HEIGHT + 24}`}
      className="w-full max-w-[560px]"
      role="img"
      aria-label={label}
    >
      <rect x={EDGE} y={TOP} width={WIDTH - 2 * EDGE} height={HEIGHT} className="fill-rust-wash" />
      <rect x={left} y={TOP} width={Math.max(1.5, right - left)} height={HEIGHT} className="fill-pine-wash" />
      {named.map((v) => (
        <g key={v}>
          <path d={`M${x(v)} ${TOP - 5}v${HEIGHT + 10}`} className="stroke-ink" strokeWidth={1.6} />
          <text x={x(v)} y={TOP + HEIGHT + 20} textAnchor="middle" className="figure fill-muted text-12">
            {say(v)}
          </text>
        </g>
      ))}
      {values.map(({ at, bad }, i) =>
        isWorst(at) ? (
          <text
            key={`figure ${i}`}
            x={x(at)}
            y={TOP - 18}
            textAnchor="middle"
            className={`figure text-14 font-semibold ${bad ? 'fill-rust' : 'fill-pine'}`}
          >
            {say(at)}
          </text>
        ) : null,
      )}
      {values.map(({ at, bad }, i) => (
        <path
          key={i}
          d={`M${x(at)} ${TOP - 2}l-6 -11h12zM${x(at)} ${TOP - 4}v${HEIGHT + 4}`}
          className={bad ? 'fill-rust stroke-rust' : 'fill-pine stroke-pine'}
          strokeWidth={1.6}
        />
      ))}
    </svg>
  );
}
