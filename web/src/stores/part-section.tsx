import type { LipFacing, Measured } from '@lanternwright/core/part';

/** What is drawn of a round part, mm. */
export interface Drawn {
  dims: Partial<Record<Measured, number>>;
  lips?: { count: number; facing: LipFacing } | null | undefined;
}

/** Room round the drawing, mm. */
const ROOM = 6;

const radius = (across: number | undefined) => (across === undefined ? undefined : across / 2);

/** Radii and width of a part, what is not known taken from the other one. */
function ring({ dims }: Drawn, other?: Drawn) {
  const of = (what: Measured, usual: number) => dims[what] ?? other?.dims[what] ?? usual;
  const outside = radius(of('outside', of('bore', 80) + 40))!;
  const bore = radius(of('bore', 2 * outside - 40))!;
  return { bore, outside, width: of('width', 15) };
}

function Lips({
  x,
  y,
  width,
  lips,
}: {
  x: number;
  y: number;
  width: number;
  lips: NonNullable<Drawn['lips']>;
}) {
  const step = width / (lips.count + 1);
  return Array.from({ length: lips.count }, (_, i) => {
    const at = x + step * (i + 1);
    const lean = lips.facing === 'outward' || (lips.facing === 'both' && i > 0) ? -1 : 1;
    return (
      <path
        key={i}
        d={`M${at} ${y - 5}l${lean * 2.4} 5.8l${lean * -4} -4.6z`}
        className="fill-ink stroke-ink"
        strokeWidth={0.6}
      />
    );
  });
}

/**
 * Half a section through a part, to scale: the journal below, the hub above. The old one, where there is one, stands in
 * dashed lines over it with the same face and axis.
 */
export function PartSection({ part, old, label }: { part: Drawn; old?: Drawn | undefined; label: string }) {
  const own = ring(part, old);
  const was = old && ring(old, part);
  const low = Math.min(own.bore, was?.bore ?? own.bore) - ROOM;
  const high = Math.max(own.outside, was?.outside ?? own.outside) + ROOM;
  const wide = Math.max(own.width, was?.width ?? own.width);
  const y = (r: number) => high - r;
  return (
    <svg
      viewBox={`0 0 ${wide + 2 * ROOM} ${high - low}`}
      className="h-28 w-full max-w-40"
      role="img"
      aria-label={label}
      preserveAspectRatio="xMidYMid meet"
    >
      <rect
        {...{ x: 0, y: 0, width: wide + 2 * ROOM, height: Math.max(0, y(was?.outside ?? own.outside)) }}
        className="fill-rule"
      />
      <rect
        {...{ x: 0, y: y(was?.bore ?? own.bore), width: wide + 2 * ROOM, height: high - low }}
        className="fill-metal"
      />
      <rect
        {...{ x: ROOM, y: y(own.outside), width: own.width, height: own.outside - own.bore }}
        className="fill-panel stroke-ink"
        strokeWidth={0.9}
      />
      {[
        ['hub', ROOM - 1.5],
        ['journal', high - low - 1.5],
      ].map(([name, at]) => (
        <text key={name} x={1.5} y={at} className="fill-muted" fontSize={4.2}>
          {name}
        </text>
      ))}
      {part.lips && <Lips x={ROOM} y={y(own.bore)} width={own.width} lips={part.lips} />}
      {was && (
        <rect
          {...{ x: ROOM, y: y(was.outside), width: was.width, height: was.outside - was.bore }}
          className="fill-none stroke-rust"
          strokeWidth={0.9}
          strokeDasharray="3 2"
        />
      )}
    </svg>
  );
}
