import { useReader } from '../../shell/use-reader.ts';
import { LimitScale } from '../../ui/limit-scale.tsx';
import { StateMark } from '../../ui/state-mark.tsx';
import { formatLength, formatTorqueNm, type Band, type ViewProps } from './types.ts';

const lengths = (unit: 'in' | 'mm') => (mm: number) => formatLength(mm, unit, unit === 'in' ? 4 : 3);

/** The stroke against the limit of its chamber. */
export function PushrodView({
  input,
  result,
  unit,
}: ViewProps<{ measuredMm: number }, { limitMm: number; state: 'good' | 'at-limit' | 'out' }>) {
  const say = (mm: number) => formatLength(mm, unit, unit === 'in' ? 3 : 1);
  const words = {
    good: 'Within its stroke',
    'at-limit': 'At its limit: find out why before it is out',
    out: 'Out of stroke. An automatic adjuster that is out has a cause: turning it answers nothing',
  }[result.state];
  return (
    <div className="flex flex-col gap-3">
      <h2 className="text-18">{words}</h2>
      <LimitScale
        good={{ to: result.limitMm }}
        values={[{ at: input.measuredMm, bad: result.state === 'out' }]}
        say={say}
        label={`Stroke ${say(input.measuredMm)}, limit ${say(result.limitMm)}`}
      />
    </div>
  );
}

interface Wear {
  part: 'drum' | 'rotor';
  measuredMm: number[];
  discardMm: number;
}

/** Every measurement of a drum or rotor against the figure cast into it. */
export function WearLimitView({
  input,
  result,
  unit,
}: ViewProps<Wear, { worstMm: number; leftMm: number; state: 'good' | 'at-limit' | 'runout' | 'discard' }>) {
  const say = lengths(unit);
  const words = {
    good: `${say(result.leftMm)} left`,
    'at-limit': `At its limit: ${say(result.leftMm)} left`,
    runout: 'Runs out: look at the bearings’ play and at the faces first',
    discard: `Past its discard figure by ${say(-result.leftMm)}: replace it`,
  }[result.state];
  const isPast = (mm: number) => (input.part === 'drum' ? mm > input.discardMm : mm < input.discardMm);
  return (
    <div className="flex flex-col gap-3">
      <h2 className="text-18">{words}</h2>
      <LimitScale
        good={input.part === 'drum' ? { to: input.discardMm } : { from: input.discardMm }}
        values={input.measuredMm.map((at) => ({ at, bad: isPast(at) }))}
        say={say}
        label={`Worst ${say(result.worstMm)}, discard figure ${say(input.discardMm)}`}
      />
    </div>
  );
}

/** The torque against its band. */
export function RollingTorqueView({
  input,
  result,
}: ViewProps<
  { band?: { minNm: number; maxNm: number } },
  { torqueNm: number; verdict?: 'loose' | 'in-band' | 'tight' }
>) {
  const reader = useReader();
  const say = (nm: number) => formatTorqueNm(nm, reader);
  const words = {
    loose: 'Too little preload',
    'in-band': 'In band',
    tight: 'Too much preload',
  };
  return (
    <div className="flex flex-col gap-3">
      <h2 className="text-18">
        {say(result.torqueNm)}
        {result.verdict && `. ${words[result.verdict]}`}
      </h2>
      {input.band && (
        <LimitScale
          good={{ from: input.band.minNm, to: input.band.maxNm }}
          values={[{ at: result.torqueNm, bad: result.verdict !== 'in-band' }]}
          say={say}
          label={`Rolling torque ${say(result.torqueNm)}, band ${say(input.band.minNm)} to ${say(input.band.maxNm)}`}
        />
      )}
    </div>
  );
}

/** Every diameter of the journal against its limits. */
export function SpindleFitView({
  input,
  result,
  unit,
}: ViewProps<
  { places: { diametersMm: number[] }[]; fit: Band },
  { taperMm: number; outOfRoundMm: number; state: 'in-fit' | 'worn' | 'oversize' }
>) {
  const say = lengths(unit);
  const words = { 'in-fit': 'In fit', worn: 'Worn under its fit', oversize: 'Over its fit' }[result.state];
  const { minMm, maxMm } = input.fit;
  return (
    <div className="flex flex-col gap-3">
      <h2 className="text-18">{words}</h2>
      <LimitScale
        good={{ from: minMm, to: maxMm }}
        values={input.places.flatMap((p) =>
          p.diametersMm.map((at) => ({ at, bad: at < minMm - 1e-9 || at > maxMm + 1e-9 })),
        )}
        say={say}
        label={`Diameters of the journal, fit ${say(minMm)} to ${say(maxMm)}`}
      />
      <p className="text-14">
        Taper {say(result.taperMm)}, out of round {say(result.outOfRoundMm)}. Look for a step, galling and
        colour as well.
      </p>
    </div>
  );
}

/** Both bushes against the clearance asked for, and what they let the wheel move. */
export function KingpinFitView({
  input,
  result,
  unit,
}: ViewProps<
  { clearance: Band; verticalMm?: number },
  {
    upperMm: number;
    lowerMm: number;
    state: 'tight' | 'in-fit' | 'loose';
    rockMm: number | null;
    verticalState: 'tight' | 'in-fit' | 'loose' | null;
  }
>) {
  const say = lengths(unit);
  const { minMm, maxMm } = input.clearance;
  const words = {
    tight: 'Tight: ream it, or look at the pin',
    'in-fit': 'In fit',
    loose: 'Loose in its bushes',
  };
  const vertical = { tight: 'too little: shims out', 'in-fit': 'in its figure', loose: 'too much: shims in' };
  return (
    <div className="flex flex-col gap-3">
      <h2 className="text-18">{words[result.state]}</h2>
      <LimitScale
        good={{ from: minMm, to: maxMm }}
        values={[result.upperMm, result.lowerMm].map((at) => ({
          at,
          bad: at < minMm - 1e-9 || at > maxMm + 1e-9,
        }))}
        say={say}
        label={`Clearance above ${say(result.upperMm)}, below ${say(result.lowerMm)}, asked for ${say(minMm)} to ${say(maxMm)}`}
      />
      {result.rockMm !== null && (
        <p className="text-14">
          Rocked, the indicator shows {say(result.rockMm)} through the bushes alone. What moves more, moves
          somewhere else as well.
        </p>
      )}
      {result.verticalState && <p className="text-14">Vertical play {vertical[result.verticalState]}.</p>}
    </div>
  );
}

interface ShimOption {
  shims: number[];
  stackMm: number;
  predictedMm: number;
  state: 'tight' | 'in-band' | 'loose';
}

/** What is put in, and the stacks that would do it. */
export function ShimView({
  result,
  unit,
}: ViewProps<unknown, { wantedMm: number; options: ShimOption[]; best: number | null }>) {
  const say = lengths(unit);
  const best = result.best === null ? undefined : result.options[result.best];
  const play = (mm: number) => (mm < 0 ? `${say(-mm)} preload` : `${say(mm)} end play`);
  const thickest = Math.max(...result.options.map((o) => o.stackMm), 1e-9);
  return (
    <div className="flex flex-col gap-3">
      <h2 className="text-18">
        {best
          ? `Put in ${best.shims.map(say).join(' + ')}: a stack of ${say(best.stackMm)}`
          : 'No stack of these shims meets the target'}
      </h2>
      <p className="text-14 text-muted">
        A stack of {say(result.wantedMm)} would meet its middle. Turn the bearings home, then prove a preload
        by its rolling torque.
      </p>
      <ul className="flex flex-col gap-2">
        {result.options.map((o) => (
          <li
            key={o.stackMm}
            className={`rounded-md border p-2 ${o === best ? 'border-lamp-edge bg-lamp' : 'border-rule'}`}
          >
            <span className="flex flex-wrap items-center gap-2 text-14">
              <StateMark state={o.state} size={16} />
              <span className="figure">{o.shims.map(say).join(' + ')}</span>
              <span className="text-muted">gives {play(o.predictedMm)}</span>
            </span>
            <span className="mt-1.5 flex h-4 gap-px" aria-hidden>
              {o.shims.map((mm, i) => (
                <span
                  key={i}
                  className="bg-edge"
                  style={{ width: `${(mm / thickest) * 90}%`, minWidth: 2 }}
                />
              ))}
            </span>
          </li>
        ))}
      </ul>
    </div>
  );
}
