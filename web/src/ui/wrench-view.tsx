interface Props {
  wrenchMm: number;
  adapterMm: number;
  angleDeg: number;
  targetNm: number;
  settingNm: number;
  tool: { minNm: number; maxNm: number } | null;
  /** Words for a torque in the unit of the device. */
  say: (nm: number) => string;
  /** Words for a length, mm, in the unit of the device. */
  formatLength: (mm: number) => string;
}

/** Wrench and adapter to scale, and where the setting lies in the tool's range. */
export function WrenchView({
  wrenchMm,
  adapterMm,
  angleDeg,
  targetNm,
  settingNm,
  tool,
  say,
  formatLength,
}: Props) {
  const scale = 380 / (wrenchMm + Math.abs(adapterMm));
  const head = 60 + adapterMm * scale;
  const angle = (-angleDeg * Math.PI) / 180;
  const nut: [number, number] = [
    head - adapterMm * scale * Math.cos(angle),
    90 + adapterMm * scale * Math.sin(angle),
  ];
  const end = head + wrenchMm * scale;
  const bar = (nm: number, max: number) => 40 + Math.min(1, Math.max(0, nm / max)) * 420;
  return (
    <svg
      viewBox={`0 0 500 ${tool ? 260 : 165}`}
      className="w-full max-w-[620px]"
      role="img"
      aria-label={`Set ${say(settingNm)} for ${say(targetNm)} at the nut`}
    >
      <path
        d={`M${nut.join(' ')}L${head} 90`}
        className="stroke-edge"
        strokeWidth={14}
        strokeLinecap="round"
      />
      <circle cx={nut[0]} cy={nut[1]} r={17} className="fill-lamp stroke-lamp-edge" strokeWidth={3} />
      <path d={`M${head} 90H${end}`} className="stroke-ink" strokeWidth={10} />
      <path d={`M${end - 70} 90H${end}`} className="stroke-muted" strokeWidth={18} strokeLinecap="round" />
      <circle cx={head} cy={90} r={15} className="fill-metal stroke-ink" strokeWidth={2.4} />
      <path d={`M${end - 35} 26v40m0 0l-8 -12m8 12l8 -12`} className="fill-none stroke-ink" strokeWidth={3} />
      <path
        d={`M${head} 132H${end}M${head} 126v12M${end} 126v12`}
        className="stroke-muted"
        strokeWidth={1.6}
      />
      <text x={(head + end) / 2} y={150} textAnchor="middle" className="figure fill-muted text-12">
        {formatLength(wrenchMm)}
      </text>
      {adapterMm > 0 && (
        <text x={(nut[0] + head) / 2} y={150} textAnchor="middle" className="figure fill-muted text-12">
          {formatLength(adapterMm)}
        </text>
      )}
      {tool && (
        <g>
          <rect x={40} y={196} width={420} height={16} rx={4} className="fill-rule" />
          <rect
            x={bar(Math.max(tool.minNm, 0.2 * tool.maxNm), tool.maxNm)}
            y={196}
            width={460 - bar(Math.max(tool.minNm, 0.2 * tool.maxNm), tool.maxNm)}
            height={16}
            rx={4}
            className="fill-pine-wash"
          />
          <path d={`M${bar(settingNm, tool.maxNm)} 188v32`} className="stroke-pine" strokeWidth={4} />
          <text
            x={bar(settingNm, tool.maxNm)}
            y={182}
            textAnchor="middle"
            className="figure fill-pine text-14 font-semibold"
          >
            {say(settingNm)}
          </text>
          <text x={40} y={236} className="figure fill-muted text-12">
            {say(tool.minNm)}
          </text>
          <text x={460} y={236} textAnchor="end" className="figure fill-muted text-12">
            {say(tool.maxNm)}
          </text>
        </g>
      )}
    </svg>
  );
}
