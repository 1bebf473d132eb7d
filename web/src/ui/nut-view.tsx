/** How the nut locks, as the drawing needs it. */
type DrawnLock =
  | { kind: 'castellated'; slots: number; holeAxesDeg: readonly number[] }
  | { kind: 'indexed'; positionsPerTurn: number }
  | { kind: 'stepless' };

interface Props {
  lock: DrawnLock;
  /** Turn to make; positive tightens, which is clockwise seen from the nut's end. */
  turns: number;
  size?: number;
  label: string;
}

const C = 80;
const OUTER = 52;
const BORE = 27;

const at = (deg: number, r: number): [number, number] => {
  const rad = ((deg - 90) * Math.PI) / 180;
  return [C + r * Math.cos(rad), C + r * Math.sin(rad)];
};
const point = (deg: number, r: number) =>
  at(deg, r)
    .map((v) => v.toFixed(2))
    .join(' ');

function polygon(corners: number): string {
  return Array.from({ length: corners }, (_, i) => point((i * 360) / corners + 180 / corners, OUTER)).join(
    'L',
  );
}

/** An arc of the turn with its arrow, outside the nut; whole turns are drawn once round. */
function TurnArc({ turns }: { turns: number }) {
  if (Math.abs(turns) < 1e-4) return null;
  const sweep = Math.max(-330, Math.min(330, turns * 360));
  const r = OUTER + 13;
  const large = Math.abs(sweep) > 180 ? 1 : 0;
  const clockwise = sweep > 0 ? 1 : 0;
  const tipDeg = sweep + (sweep > 0 ? 9 : -9);
  return (
    <g>
      <path
        d={`M${point(0, r)}A${r} ${r} 0 ${large} ${clockwise} ${point(sweep, r)}`}
        className="fill-none stroke-lamp-edge"
        strokeWidth={5}
      />
      <path
        d={`M${point(sweep, r - 8)}L${point(sweep, r + 8)}L${point(tipDeg, r)}z`}
        className="fill-lamp-edge"
      />
    </g>
  );
}

/** The nut seen from its end: slots or points, the spindle with its holes, and the angle to turn. */
export function NutView({ lock, turns, size = 120, label }: Props) {
  const corners = lock.kind === 'castellated' ? 6 : 8;
  return (
    <svg width={size} height={size} viewBox="0 0 160 160" role="img" aria-label={label} className="shrink-0">
      <path
        d={`M${polygon(corners)}z`}
        className="fill-metal stroke-ink"
        strokeWidth={2.4}
        strokeLinejoin="round"
      />
      {lock.kind === 'castellated' &&
        Array.from({ length: lock.slots }, (_, i) => {
          const deg = (i * 360) / lock.slots;
          return (
            <rect
              key={i}
              x={C - 4.5}
              y={C - OUTER + 1}
              width={9}
              height={17}
              rx={1.5}
              transform={`rotate(${deg} ${C} ${C})`}
              className="fill-panel stroke-ink"
              strokeWidth={1.6}
            />
          );
        })}
      {lock.kind === 'indexed' &&
        Array.from({ length: lock.positionsPerTurn }, (_, i) => {
          const [x, y] = at((i * 360) / lock.positionsPerTurn, OUTER - 13);
          return <circle key={i} cx={x} cy={y} r={2.6} className="fill-panel stroke-ink" strokeWidth={1.2} />;
        })}
      <circle cx={C} cy={C} r={BORE} className="fill-edge stroke-ink" strokeWidth={2} />
      {lock.kind === 'castellated' &&
        lock.holeAxesDeg.map((axis, i) => (
          <path
            key={axis}
            d={`M${point(axis, BORE)}L${point(axis + 180, BORE)}`}
            className={i === 0 ? 'stroke-panel' : 'stroke-metal'}
            strokeWidth={i === 0 ? 6 : 5}
            strokeDasharray={i === 0 ? undefined : '5 4'}
          />
        ))}
      <path d={`M${C} ${C - OUTER - 4}v-13`} className="stroke-ink" strokeWidth={2.4} />
      <TurnArc turns={turns} />
    </svg>
  );
}
