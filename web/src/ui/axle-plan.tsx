import { stateFill, stateStroke, stateWords, type MarkState } from './state-mark.tsx';

interface PlanAxle {
  number: number;
  wheels: 'single' | 'dual';
  role: string;
}

interface PlanWheelEnd {
  position: string;
  state: MarkState;
  /** A figure written under the position, on the large plan. */
  note?: string;
}

interface Props {
  axles: readonly PlanAxle[];
  wheelEnds: readonly PlanWheelEnd[];
  size?: 'small' | 'large';
  selected?: string;
  onSelect?: (position: string) => void;
  label: string;
}

const layout = {
  small: { pitch: 38, wheelW: 18, wheelH: 8, track: 24, frame: 4, margin: 20, gap: 2 },
  large: { pitch: 118, wheelW: 62, wheelH: 22, track: 84, frame: 10, margin: 58, gap: 4 },
};

/** Where each axle stands along the frame: steer axles apart from the ones behind, those close together. */
function axlePlaces(axles: readonly PlanAxle[], pitch: number): number[] {
  let x = 0;
  return axles.map((axle, i) => {
    const before = axles[i - 1];
    if (before) x += before.role === axle.role ? pitch : pitch * 1.7;
    return x;
  });
}

/**
 * A unit seen from above, front to the left: so its left side lies below, its right side above. Each
 * wheel end shows its state by colour and dash; with `onSelect` each is a button.
 */
export function AxlePlan({ axles, wheelEnds, size = 'small', selected, onSelect, label }: Props) {
  const d = layout[size];
  const places = axlePlaces(axles, d.pitch);
  const width = (places.at(-1) ?? 0) + 2 * d.margin;
  const rows = 2 * d.wheelH + d.gap;
  const height = d.track + 2 * rows + (size === 'large' ? 84 : 2);
  const middle = height / 2;
  const ends = new Map(wheelEnds.map((w) => [w.position, w]));
  const words = wheelEnds.map((w) => `${w.position} ${stateWords[w.state]}`).join(', ');
  return (
    <svg
      width={width}
      height={height}
      viewBox={`0 0 ${width} ${height}`}
      role={onSelect ? 'group' : 'img'}
      aria-label={onSelect ? label : `${label}: ${words}`}
      className="max-w-full shrink-0 overflow-visible"
    >
      <rect
        x={2}
        y={middle - d.frame / 2}
        width={width - 4}
        height={d.frame}
        rx={d.frame / 2}
        className="fill-edge"
      />
      <path
        d={`M${2} ${middle - d.frame} l${-d.frame * 0.9} ${d.frame} l${d.frame * 0.9} ${d.frame}`}
        transform={`translate(${d.frame} 0)`}
        className="fill-edge"
      />
      {axles.map((axle, i) => {
        const x = d.margin + places[i]!;
        return (
          <g key={axle.number}>
            <rect
              x={x - d.frame / 3}
              y={middle - d.track / 2}
              width={(d.frame / 3) * 2}
              height={d.track}
              className="fill-edge"
            />
            {(['R', 'L'] as const).map((side) => {
              const position = `${axle.number}${side}`;
              const { state = 'not-measured', note } = ends.get(position) ?? {};
              return (
                <WheelEnd
                  key={side}
                  {...{ d, x, side, state, note, position, size }}
                  dual={axle.wheels === 'dual'}
                  middle={middle}
                  selected={selected === position}
                  onSelect={onSelect}
                />
              );
            })}
          </g>
        );
      })}
    </svg>
  );
}

interface WheelProps {
  d: (typeof layout)['small'];
  x: number;
  side: 'L' | 'R';
  middle: number;
  dual: boolean;
  state: MarkState;
  note?: string;
  position: string;
  size: 'small' | 'large';
  selected: boolean;
  onSelect?: (position: string) => void;
}

function WheelEnd({ d, x, side, middle, dual, state, note, position, size, selected, onSelect }: WheelProps) {
  const away = side === 'R' ? -1 : 1;
  const inner = middle + (away * d.track) / 2;
  const top = (row: number) =>
    away < 0 ? inner - (row + 1) * d.wheelH - row * d.gap : inner + row * (d.wheelH + d.gap);
  const dash = state === 'not-measured' ? '3 2.5' : undefined;
  const radius = size === 'large' ? 6 : 3;
  const outer = inner + away * (dual ? 2 * d.wheelH + d.gap : d.wheelH);
  const wheels = (dual ? [0, 1] : [0]).map((row) => (
    <rect
      key={row}
      x={x - d.wheelW / 2}
      y={top(row)}
      width={d.wheelW}
      height={d.wheelH}
      rx={radius}
      strokeDasharray={dash}
      strokeWidth={size === 'large' ? 2.4 : 2}
      className={`${stateFill[state]} ${stateStroke[state]}`}
    />
  ));
  if (size === 'small' && !onSelect) return <g>{wheels}</g>;
  const labelY = outer + away * 15 + (away < 0 ? 3 : 5);
  const reach = note ? 40 : 24;
  const box = {
    x: x - d.wheelW / 2 - 8,
    width: d.wheelW + 16,
    y: Math.min(inner, outer + away * reach),
    height: Math.abs(outer + away * reach - inner),
  };
  const choose = () => onSelect?.(position);
  return (
    <g
      role={onSelect ? 'button' : undefined}
      tabIndex={onSelect ? 0 : undefined}
      aria-pressed={onSelect ? selected : undefined}
      aria-label={`${position}, ${stateWords[state]}`}
      onClick={choose}
      onKeyDown={(e) => {
        if (e.key === 'Enter' || e.key === ' ') {
          e.preventDefault();
          choose();
        }
      }}
      className={onSelect ? 'cursor-pointer' : undefined}
    >
      <rect
        {...box}
        rx={8}
        className={selected ? 'fill-lamp stroke-lamp-edge' : 'fill-transparent hover:fill-side'}
      />
      {wheels}
      <text x={x} y={labelY} textAnchor="middle" className="fill-ink text-14 font-semibold">
        {position}
      </text>
      {note && (
        <text x={x} y={labelY + away * 16} textAnchor="middle" className="figure fill-ink text-13">
          {note}
        </text>
      )}
    </g>
  );
}
