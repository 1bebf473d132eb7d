interface Props {
  /** Load of every roller from the loaded side on, N. */
  rollersN: readonly number[];
  label: string;
  words: string;
  size?: number;
}

const C = 120;

/** Load zone round the race: each roller at its place, its load as a bar outside. The load points down. */
export function LoadRing({ rollersN, label, words, size = 240 }: Props) {
  const heaviest = Math.max(...rollersN, 1e-9);
  const roller = Math.min(11, (Math.PI * 62) / rollersN.length - 1.5);
  return (
    <figure className="flex flex-col items-center">
      <svg
        width={size}
        height={size}
        viewBox="0 0 240 240"
        role="img"
        aria-label={`${label}: ${words}`}
        className="max-w-full"
      >
        <circle cx={C} cy={C} r={78} className="fill-none stroke-ink" strokeWidth={7} />
        <circle cx={C} cy={C} r={48} className="fill-metal stroke-ink" strokeWidth={2} />
        {rollersN.map((load, j) => {
          const angle = Math.PI / 2 + (2 * Math.PI * j) / rollersN.length;
          const [cos, sin] = [Math.cos(angle), Math.sin(angle)];
          const reach = 84 + (load / heaviest) * 30;
          return (
            <g key={j}>
              {load > 0 && (
                <path
                  d={`M${C + 84 * cos} ${C + 84 * sin}L${C + reach * cos} ${C + reach * sin}`}
                  className="stroke-rust"
                  strokeWidth={6}
                  opacity={0.35 + (0.65 * load) / heaviest}
                />
              )}
              <circle
                cx={C + 61.5 * cos}
                cy={C + 61.5 * sin}
                r={roller}
                className={load > 0 ? 'fill-edge stroke-ink' : 'fill-panel stroke-ink'}
                strokeWidth={1.4}
              />
            </g>
          );
        })}
      </svg>
      <figcaption className="text-center text-13">
        <span className="font-semibold">{label}</span> {words}
      </figcaption>
    </figure>
  );
}
