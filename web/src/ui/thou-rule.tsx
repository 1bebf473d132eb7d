import type { LengthUnit } from '@lanternwright/core/end-play';

export type RuleUnit = LengthUnit;
export type Side = 'tight' | 'in-band' | 'loose' | 'repeat' | 'unsure';

interface Props {
  bandMm: { minMm: number; maxMm: number };
  unit: RuleUnit;
  /** The mean, drawn as the needle; null before the first cycle. */
  meanMm: number | null;
  side: Side | null;
  /** Every cycle, a hairline each. */
  cyclesMm: readonly number[];
  /** Where the planned turn would bring it, dashed. */
  predictedMm?: number | null;
}

const WIDTH = 620;
const LEFT = 14;
const RIGHT = 14;
const TOP = 40;
const HEIGHT = 24;

const needle: Record<Side, string> = {
  tight: 'fill-blue',
  'in-band': 'fill-pine',
  loose: 'fill-rust',
  repeat: 'fill-ink',
  unsure: 'fill-ink',
};

/** Ticks of the rule: whole thousandths, or hundredths of a millimetre. */
function scaleOf(unit: RuleUnit, furthestMm: number) {
  const stepMm = unit === 'in' ? 0.0254 : 0.02;
  const least = unit === 'in' ? 12 : 16;
  const count = Math.max(least, Math.ceil(furthestMm / stepMm + 0.5));
  const every = Math.max(1, Math.ceil(count / 16));
  const name = (i: number) => (unit === 'in' ? String(i) : (i * 0.02).toFixed(2));
  return { stepMm, count, every, name };
}

/** The thousandths rule: band, every cycle, the mean's needle and the prediction. */
export function ThouRule({ bandMm, unit, meanMm, side, cyclesMm, predictedMm }: Props) {
  const furthest = Math.max(bandMm.maxMm * 1.2, meanMm ?? 0, ...cyclesMm);
  const { stepMm, count, every, name } = scaleOf(unit, furthest);
  const endMm = count * stepMm;
  const x = (mm: number) => LEFT + (Math.min(Math.max(mm, 0), endMm) / endMm) * (WIDTH - LEFT - RIGHT);
  const area = (from: number, to: number, fill: string) => (
    <rect x={x(from)} y={TOP} width={Math.max(0, x(to) - x(from))} height={HEIGHT} className={fill} />
  );
  return (
    <svg viewBox={`0 0 ${WIDTH} 94`} className="w-full" role="img" aria-label={ruleWords(meanMm, unit, side)}>
      {area(0, bandMm.minMm, 'fill-blue-wash')}
      {area(bandMm.minMm, bandMm.maxMm, 'fill-pine-wash')}
      {area(bandMm.maxMm, endMm, 'fill-rust-wash')}
      <text x={LEFT} y={TOP - 22} className="fill-blue text-12">
        tight
      </text>
      <text
        x={(x(bandMm.minMm) + x(bandMm.maxMm)) / 2}
        y={TOP - 22}
        textAnchor="middle"
        className="fill-pine text-12 font-semibold"
      >
        in band
      </text>
      <text x={x(bandMm.maxMm) + 8} y={TOP - 22} className="fill-rust text-12">
        loose
      </text>
      {Array.from({ length: count + 1 }, (_, i) => (
        <g key={i}>
          <path d={`M${x(i * stepMm)} ${TOP + HEIGHT}v10`} className="stroke-muted" strokeWidth={1.6} />
          {i < count && (
            <path d={`M${x((i + 0.5) * stepMm)} ${TOP + HEIGHT}v6`} className="stroke-edge" strokeWidth={1} />
          )}
          {i % every === 0 && (
            <text
              x={x(i * stepMm)}
              y={TOP + HEIGHT + 24}
              textAnchor="middle"
              className="figure fill-muted text-12"
            >
              {name(i)}
            </text>
          )}
        </g>
      ))}
      {cyclesMm.map((c, i) => (
        <path
          key={i}
          d={`M${x(c)} ${TOP + 3}v${HEIGHT - 6}`}
          className="stroke-ink"
          strokeWidth={1}
          opacity={0.65}
        />
      ))}
      {predictedMm !== null && predictedMm !== undefined && predictedMm >= 0 && (
        <path
          d={`M${x(predictedMm)} ${TOP - 4}v${HEIGHT + 8}`}
          className="stroke-pine"
          strokeWidth={3}
          strokeDasharray="4 3"
        />
      )}
      {meanMm !== null && side && (
        <g className={`settle ${needle[side]}`} style={{ transform: `translateX(${x(meanMm)}px)` }}>
          <path d={`M0 ${TOP - 3}l-7 -11h14z`} />
          <rect x={-1.8} y={TOP - 4} width={3.6} height={HEIGHT + 6} />
        </g>
      )}
    </svg>
  );
}

function ruleWords(meanMm: number | null, unit: RuleUnit, side: Side | null): string {
  if (meanMm === null || !side) return 'Rule of end play, nothing measured';
  const value = unit === 'in' ? `${(meanMm / 25.4).toFixed(4)} in` : `${meanMm.toFixed(3)} mm`;
  return `Rule of end play: ${value}, ${side}`;
}
