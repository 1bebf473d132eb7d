interface Loads {
  radial: string;
  axial: string;
}

interface Props {
  a: Loads;
  b: Loads;
  /** Axial load from outside, and the row it pushes on. */
  external: { words: string; towards: 'a' | 'b' } | null;
  label: string;
}

const MIDDLE = 130;

/** Half a section of one tapered row above the spindle: cone, roller, cup. `facing` 1 opens to the right. */
function Row({ x, facing }: { x: number; facing: 1 | -1 }) {
  const place = (dx: number, y: number) => `${x + facing * dx} ${y}`;
  const shape = (points: [number, number][]) => `M${points.map(([dx, y]) => place(dx, y)).join('L')}Z`;
  const up = MIDDLE - 34;
  const half = (
    <>
      <path
        d={shape([
          [-30, up],
          [30, up],
          [30, up - 6],
          [-30, up - 24],
        ])}
        className="fill-metal stroke-ink"
        strokeWidth={2}
      />
      <path
        d={shape([
          [-25, up - 24],
          [23, up - 10],
          [20, up - 32],
          [-27, up - 50],
        ])}
        className="fill-edge stroke-ink"
        strokeWidth={2}
      />
      <path
        d={shape([
          [-30, up - 53],
          [26, up - 32],
          [26, up - 66],
          [-30, up - 66],
        ])}
        className="fill-metal stroke-ink"
        strokeWidth={2}
      />
    </>
  );
  return (
    <g>
      {half}
      <g transform={`matrix(1 0 0 -1 0 ${2 * MIDDLE})`}>{half}</g>
    </g>
  );
}

function Arrow({ from, to, tone }: { from: [number, number]; to: [number, number]; tone: string }) {
  const angle = Math.atan2(to[1] - from[1], to[0] - from[0]);
  const wing = (turn: number) =>
    `${to[0] - 11 * Math.cos(angle + turn)} ${to[1] - 11 * Math.sin(angle + turn)}`;
  return (
    <path
      d={`M${from.join(' ')}L${to.join(' ')}M${wing(0.5)}L${to.join(' ')}L${wing(-0.5)}`}
      className={`fill-none ${tone}`}
      strokeWidth={3.5}
      strokeLinecap="round"
      strokeLinejoin="round"
    />
  );
}

/** Two opposed tapered rows on the spindle with the loads on each. Row a is the inner one, on the left. */
export function PairSection({ a, b, external, label }: Props) {
  const rows = [
    { name: 'Row a', x: 160, facing: 1 as const, loads: a },
    { name: 'Row b', x: 380, facing: -1 as const, loads: b },
  ];
  return (
    <svg viewBox="0 0 560 290" className="w-full max-w-[640px]" role="img" aria-label={label}>
      <path
        d={`M40 ${MIDDLE - 34}H440V${MIDDLE - 24}H490V${MIDDLE + 24}H440V${MIDDLE + 34}H40Z`}
        className="fill-panel stroke-ink"
        strokeWidth={2}
      />
      <path d={`M20 ${MIDDLE}H510`} className="stroke-muted" strokeWidth={1.2} strokeDasharray="14 4 3 4" />
      {rows.map(({ name, x, facing, loads }) => (
        <g key={name}>
          <Row x={x} facing={facing} />
          <Arrow from={[x, 278]} to={[x, 238]} tone="stroke-rust" />
          <text x={x + 10} y={272} className="figure fill-rust text-13">
            {loads.radial}
          </text>
          <Arrow from={[x + facing * 96, 62]} to={[x + facing * 44, 62]} tone="stroke-blue" />
          <text x={x + facing * 66} y={48} textAnchor="middle" className="figure fill-blue text-13">
            {loads.axial}
          </text>
          <text x={x} y={18} textAnchor="middle" className="fill-ink text-14 font-semibold">
            {name}
          </text>
        </g>
      ))}
      {external && (
        <g>
          <Arrow
            from={external.towards === 'a' ? [552, MIDDLE] : [500, MIDDLE]}
            to={external.towards === 'a' ? [500, MIDDLE] : [552, MIDDLE]}
            tone="stroke-ink"
          />
          <text x={526} y={MIDDLE - 12} textAnchor="middle" className="figure fill-ink text-13">
            {external.words}
          </text>
        </g>
      )}
    </svg>
  );
}
