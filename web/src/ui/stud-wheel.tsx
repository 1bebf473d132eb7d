interface Props {
  studs: number;
  /** Studs in the order in which they are tightened, numbered from 1 round the wheel. */
  order: readonly number[];
  /** How many of them are done; the next one is lit. */
  done: number;
  size?: number;
}

const C = 150;

/** The wheel from outside, its studs lit in order, a dashed line from the last one to the next. */
export function StudWheel({ studs, order, done, size = 300 }: Props) {
  const at = (stud: number): [number, number] => {
    const angle = ((stud - 1) / studs) * 2 * Math.PI - Math.PI / 2;
    return [C + 74 * Math.cos(angle), C + 74 * Math.sin(angle)];
  };
  const next = order[done];
  const last = order[done - 1];
  const hexagon = (x: number, y: number) =>
    Array.from({ length: 6 }, (_, i) => {
      const a = (i * Math.PI) / 3;
      return `${(x + 14 * Math.cos(a)).toFixed(1)},${(y + 14 * Math.sin(a)).toFixed(1)}`;
    }).join(' ');
  return (
    <svg
      width={size}
      height={size}
      viewBox="0 0 300 300"
      role="img"
      aria-label={next ? `Next is stud ${next}` : 'Every stud is done'}
      className="max-w-full"
    >
      <circle cx={C} cy={C} r={138} className="fill-ink" />
      <circle cx={C} cy={C} r={108} className="fill-metal stroke-ink" strokeWidth={2} />
      <circle cx={C} cy={C} r={40} className="fill-edge stroke-ink" strokeWidth={2} />
      {last !== undefined && next !== undefined && (
        <path
          d={`M${at(last).join(' ')}L${at(next).join(' ')}`}
          className="stroke-lamp-edge"
          strokeWidth={3}
          strokeDasharray="5 4"
        />
      )}
      {Array.from({ length: studs }, (_, i) => i + 1).map((stud) => {
        const [x, y] = at(stud);
        const state =
          stud === next
            ? 'fill-lamp stroke-lamp-edge'
            : order.indexOf(stud) < done
              ? 'fill-pine-wash stroke-pine'
              : 'fill-panel stroke-edge';
        return (
          <g key={stud}>
            <polygon points={hexagon(x, y)} className={state} strokeWidth={2.4} />
            <text x={x} y={y + 4} textAnchor="middle" className="fill-ink text-12 font-semibold">
              {stud}
            </text>
          </g>
        );
      })}
    </svg>
  );
}
