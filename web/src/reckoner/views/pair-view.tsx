import { PairSection } from '../../ui/pair-section.tsx';
import { ShareBars } from '../../ui/share-bars.tsx';
import { formatDistance } from '../../shell/words.ts';
import type { ViewProps } from './types.ts';
import { useReader } from '../../shell/use-reader.ts';

interface Row {
  radialN: number;
}
interface RowLife {
  axialN: number;
  equivalentN: number;
  l10Mrev: number;
}

const kn = (n: number) => `${(n / 1000).toFixed(1)} kN`;
const turns = (mrev: number) => `${Number(mrev.toPrecision(3)).toLocaleString('en-GB')} million turns`;

/** Both rows on the spindle with what each carries, and the life of each and of the pair. */
export function BearingPairView({
  input,
  result,
}: ViewProps<
  { a: Row; b: Row; axialN: number },
  { a: RowLife; b: RowLife; pairL10Mrev: number; distanceKm?: number }
>) {
  const reader = useReader();
  const { a, b, pairL10Mrev, distanceKm } = result;
  const weaker = a.l10Mrev <= b.l10Mrev ? 'a' : 'b';
  return (
    <div className="flex flex-col gap-4">
      <h2 className="text-18">
        {distanceKm === undefined ? turns(pairL10Mrev) : formatDistance(distanceKm, reader)}
        <span className="text-14 font-normal text-muted">
          {' '}
          that 9 pairs of 10 reach; row {weaker} gives out first
        </span>
      </h2>
      <PairSection
        a={{ radial: kn(input.a.radialN), axial: kn(a.axialN) }}
        b={{ radial: kn(input.b.radialN), axial: kn(b.axialN) }}
        external={
          input.axialN === 0
            ? null
            : { words: kn(Math.abs(input.axialN)), towards: input.axialN > 0 ? 'a' : 'b' }
        }
        label={`Row a carries ${kn(input.a.radialN)} radial and ${kn(a.axialN)} axial, row b ${kn(input.b.radialN)} and ${kn(b.axialN)}`}
      />
      <ShareBars
        label="Life that 9 of 10 reach"
        bars={[
          { label: 'Row a', value: a.l10Mrev, words: turns(a.l10Mrev) },
          { label: 'Row b', value: b.l10Mrev, words: turns(b.l10Mrev) },
          { label: 'The pair', value: pairL10Mrev, words: turns(pairL10Mrev), grave: true },
        ]}
      />
    </div>
  );
}
