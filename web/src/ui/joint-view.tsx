interface Props {
  /** Which pair of parts the indicator stands between; `same` is the placement that shows nothing. */
  placement: 'axle-knuckle' | 'knuckle-hub' | 'same';
  title: string;
  words: string;
  tone: 'good' | 'grave' | 'plain';
}

const toneText = { good: 'text-pine', grave: 'text-rust', plain: 'text-muted' } as const;

/** Axle, knuckle and hub with the indicator where its base and tip sit. */
export function JointView({ placement, title, words, tone }: Props) {
  const base = { 'axle-knuckle': [52, 96], 'knuckle-hub': [112, 152], same: [92, 178] }[placement] as [
    number,
    number,
  ];
  const tip = { 'axle-knuckle': [92, 96], 'knuckle-hub': [150, 152], same: [120, 178] }[placement] as [
    number,
    number,
  ];
  return (
    <figure className="flex flex-col items-center gap-1">
      <svg
        viewBox="0 0 220 220"
        className="w-full max-w-[220px]"
        role="img"
        aria-label={`${title}: ${words}`}
      >
        <rect x={4} y={104} width={92} height={30} className="fill-edge" />
        <rect
          x={92}
          y={52}
          width={30}
          height={134}
          rx={3}
          className="fill-metal stroke-ink"
          strokeWidth={2.4}
        />
        <rect x={103} y={36} width={8} height={166} className="fill-ink" />
        <rect x={122} y={106} width={20} height={26} className="fill-edge stroke-ink" strokeWidth={1.6} />
        <rect
          x={142}
          y={78}
          width={24}
          height={82}
          rx={4}
          className="fill-metal stroke-ink"
          strokeWidth={2.4}
        />
        <rect
          x={166}
          y={24}
          width={34}
          height={190}
          rx={8}
          className="fill-panel stroke-ink"
          strokeWidth={2.4}
        />
        <path d={`M${base.join(' ')}L${tip.join(' ')}`} className="stroke-ink" strokeWidth={4} />
        <rect x={base[0] - 12} y={base[1] - 2} width={24} height={12} className="fill-ink" />
        <circle
          cx={(base[0] + tip[0]) / 2}
          cy={base[1] - 18}
          r={14}
          className="fill-lamp stroke-lamp-edge"
          strokeWidth={3}
        />
        <path d={`M${(base[0] + tip[0]) / 2} ${base[1] - 18}v-9`} className="stroke-ink" strokeWidth={2} />
        <text x={6} y={150} className="fill-muted text-12">
          axle
        </text>
        <text x={84} y={30} className="fill-muted text-12">
          kingpin
        </text>
      </svg>
      <figcaption className="text-center">
        <span className="block text-14 font-semibold">{title}</span>
        <span className={`text-13 ${toneText[tone]}`}>{words}</span>
      </figcaption>
    </figure>
  );
}
