import { Button } from '../../ui/button.tsx';
import { JointView } from '../../ui/joint-view.tsx';
import { SealSection } from '../../ui/seal-section.tsx';
import { ShareBars } from '../../ui/share-bars.tsx';
import { StudWalk } from '../../ui/stud-walk.tsx';
import { WrenchView } from '../../ui/wrench-view.tsx';
import { playDigits } from '../../shell/words.ts';
import { formatLength, formatTorqueNm, type ViewProps } from './types.ts';
import { useReader } from '../../shell/use-reader.ts';

interface Pass {
  torqueNm: number;
  order: number[];
}

/** The wheel, its studs lit one after another, stage by stage; prints as a sheet. */
export function SequenceView({ input, result }: ViewProps<{ studs: number }, { passes: Pass[] }>) {
  const reader = useReader();
  return (
    <div className="flex flex-col gap-3">
      <StudWalk studs={input.studs} passes={result.passes} say={(nm) => formatTorqueNm(nm, reader)} />
      <div className="print:hidden">
        <Button onClick={() => window.print()}>Print</Button>
      </div>
    </div>
  );
}

interface TorqueInput {
  targetNm: number;
  wrenchLengthMm?: number;
  adapter?: { lengthMm: number; angleDeg: number };
  tool?: { minNm: number; maxNm: number };
}

/** Wrench and adapter to scale, and the setting in the tool's range. */
export function TorqueView({
  input,
  result,
  unit,
}: ViewProps<
  TorqueInput,
  { settingNm: number; tool?: { withinRange: boolean; withinRecommended: boolean } }
>) {
  const reader = useReader();
  const fits = result.tool;
  return (
    <div className="flex flex-col gap-3">
      <h2 className="text-18">Set {formatTorqueNm(result.settingNm, reader)}</h2>
      {fits && (
        <p className={`text-14 ${fits.withinRecommended ? 'text-pine' : 'text-rust'}`}>
          {fits.withinRecommended
            ? 'Within the part of the range to use.'
            : fits.withinRange
              ? 'In range, but under a fifth of it: take a smaller wrench.'
              : 'Out of this wrench’s range: take another.'}
        </p>
      )}
      <WrenchView
        wrenchMm={input.wrenchLengthMm ?? 500}
        adapterMm={input.adapter?.lengthMm ?? 0}
        angleDeg={input.adapter?.angleDeg ?? 0}
        targetNm={input.targetNm}
        settingNm={result.settingNm}
        tool={input.tool ?? null}
        say={(nm) => formatTorqueNm(nm, reader)}
        formatLength={(mm) => formatLength(mm, unit, unit === 'in' ? 1 : 0)}
      />
    </div>
  );
}

interface JointInput {
  axleToKnuckleMm: number;
  knuckleToHubMm: number;
  kingpinLimitMm: number;
  bearingLimitMm: number;
}

/** The two placements of the indicator with their readings, and the one that shows nothing. */
export function WhichJointView({
  input,
  result,
  unit,
}: ViewProps<JointInput, { suspect: string; bearingShare: number | null }>) {
  const kingpin = result.suspect === 'kingpin' || result.suspect === 'both';
  const bearing = result.suspect === 'bearing' || result.suspect === 'both';
  const words = {
    kingpin: 'The kingpin moves',
    bearing: 'The bearing is loose',
    both: 'Both move',
    neither: 'Both are sound',
  }[result.suspect];
  return (
    <div className="flex flex-col gap-3">
      <h2 className="text-18">
        {words}
        {result.bearingShare !== null && (
          <span className="text-14 font-normal text-muted">
            , {(result.bearingShare * 100).toFixed(0)} % of the movement is the bearing’s
          </span>
        )}
      </h2>
      <div className="grid grid-cols-2 gap-4 lg:grid-cols-3">
        <JointView
          placement="axle-knuckle"
          title="Axle to knuckle"
          words={`${playDigits(input.axleToKnuckleMm, unit)} ${unit}, kingpin ${kingpin ? 'worn' : 'sound'}`}
          tone={kingpin ? 'grave' : 'good'}
        />
        <JointView
          placement="knuckle-hub"
          title="Knuckle to hub"
          words={`${playDigits(input.knuckleToHubMm, unit)} ${unit}, bearing ${bearing ? 'loose' : 'sound'}`}
          tone={bearing ? 'grave' : 'good'}
        />
        <JointView
          placement="same"
          title="Wrong: one solid part"
          words="Base and tip move together: it shows nothing"
          tone="plain"
        />
      </div>
    </div>
  );
}

interface SealInput {
  journal: { startMm: number; endMm: number };
  groove?: { startMm: number; endMm: number };
  lips: { offsetMm: number }[];
  depth: { minMm: number; maxMm: number };
}

/** Section through the seal at the recommended depth. */
export function SealView({
  input,
  result,
  unit,
}: ViewProps<SealInput, { ranges: { fromMm: number; toMm: number }[]; recommendedMm: number | null }>) {
  const say = (mm: number) => formatLength(mm, unit);
  return (
    <div className="flex flex-col gap-2">
      <h2 className="text-18">
        {result.recommendedMm === null
          ? 'No depth keeps every lip on sound journal: sleeve it'
          : `Set it ${say(result.recommendedMm)} below the hub face`}
      </h2>
      {result.ranges.length > 0 && (
        <p className="text-14 text-muted">
          Clear: {result.ranges.map((r) => `${say(r.fromMm)} to ${say(r.toMm)}`).join(', ')}
        </p>
      )}
      <SealSection
        journal={input.journal}
        groove={input.groove ?? null}
        lips={input.lips}
        ranges={result.ranges}
        depthMm={result.recommendedMm}
        depth={input.depth}
        say={say}
      />
    </div>
  );
}

/** What goes into each bearing and the cavity. */
export function GreaseView({
  result,
}: ViewProps<unknown, { bearingsMl: number[]; cavityMl: number; totalMl: number; massG: number }>) {
  const ml = (v: number) => `${v.toFixed(0)} mL`;
  return (
    <div className="flex flex-col gap-3">
      <h2 className="text-18">
        {ml(result.totalMl)}, {result.massG.toFixed(0)} g
      </h2>
      <ShareBars
        label="Grease by place"
        bars={[
          ...result.bearingsMl.map((v, i) => ({ label: `Bearing ${i + 1}`, value: v, words: ml(v) })),
          { label: 'Cavity, coated', value: result.cavityMl, words: ml(result.cavityMl) },
        ]}
      />
    </div>
  );
}
