interface Props {
  journal: { startMm: number; endMm: number };
  groove: { startMm: number; endMm: number } | null;
  lips: readonly { offsetMm: number }[];
  ranges: readonly { fromMm: number; toMm: number }[];
  depthMm: number | null;
  depth: { minMm: number; maxMm: number };
  say: (mm: number) => string;
}

const LEFT = 50;
const WIDTH = 520;

/** Section through hub, journal, groove and lips; the allowed depths stand over the seal's face. */
export function SealSection({ journal, groove, lips, ranges, depthMm, depth, say }: Props) {
  const at = depthMm ?? depth.minMm;
  const places = [
    0,
    journal.startMm,
    journal.endMm,
    groove?.endMm ?? 0,
    ...lips.map((l) => depth.maxMm + l.offsetMm),
    at,
  ];
  const low = Math.min(...places);
  const high = Math.max(...places);
  const x = (mm: number) => LEFT + ((mm - low) / Math.max(1e-6, high - low)) * (WIDTH - 2 * LEFT);
  const sound = (mm: number) =>
    mm >= journal.startMm && mm <= journal.endMm && !(groove && mm > groove.startMm && mm < groove.endMm);
  return (
    <svg
      viewBox={`0 0 ${WIDTH} 300`}
      className="w-full max-w-[640px]"
      role="img"
      aria-label={depthMm === null ? 'No depth is clear' : `Set the seal ${say(depthMm)} deep`}
    >
      <rect
        x={x(depth.minMm)}
        y={22}
        width={x(depth.maxMm) - x(depth.minMm)}
        height={8}
        className="fill-rust-wash"
      />
      {ranges.map((r) => (
        <rect
          key={r.fromMm}
          x={x(r.fromMm)}
          y={20}
          width={Math.max(2, x(r.toMm) - x(r.fromMm))}
          height={12}
          className="fill-pine"
        />
      ))}
      <text x={x(depth.minMm)} y={14} className="fill-muted text-12">
        depths, clear ones in pine
      </text>
      <rect
        x={x(0)}
        y={50}
        width={WIDTH - 10 - x(0)}
        height={46}
        className="fill-metal stroke-ink"
        strokeWidth={2}
      />
      <text x={x(0) + 8} y={70} className="fill-muted text-12">
        hub, its face on the left
      </text>
      <path d={`M${x(at)} 36v64`} className="stroke-lamp-edge" strokeWidth={3} strokeDasharray="4 3" />
      <path
        d={`M${x(at)} 98v40H${x(Math.max(...lips.map((l) => at + l.offsetMm)))}`}
        className="fill-none stroke-ink"
        strokeWidth={8}
      />
      {lips.map(({ offsetMm }, i) => {
        const lip = at + offsetMm;
        const good = sound(lip);
        return (
          <g key={i}>
            <path d={`M${x(lip) - 16} 138L${x(lip)} 208L${x(lip) + 8} 138z`} className="fill-ink" />
            <path
              d={`M${x(lip)} 212v46`}
              className={good ? 'stroke-pine' : 'stroke-rust'}
              strokeWidth={2}
              strokeDasharray="4 3"
            />
            <text
              x={x(lip)}
              y={274 + (i % 2) * 16}
              textAnchor="middle"
              className={`figure text-12 ${good ? 'fill-pine' : 'fill-rust'}`}
            >
              lip {i + 1}, {say(lip)}
            </text>
          </g>
        );
      })}
      <rect
        x={x(low)}
        y={216}
        width={x(high) - x(low)}
        height={36}
        className="fill-metal stroke-ink"
        strokeWidth={2}
      />
      <path d={`M${x(journal.startMm)} 214H${x(journal.endMm)}`} className="stroke-pine" strokeWidth={5} />
      {groove && (
        <rect
          x={x(groove.startMm)}
          y={212}
          width={Math.max(2, x(groove.endMm) - x(groove.startMm))}
          height={9}
          className="fill-paper stroke-rust"
          strokeWidth={2}
        />
      )}
      <text x={x(low) + 6} y={243} className="fill-muted text-12">
        spindle
      </text>
    </svg>
  );
}
