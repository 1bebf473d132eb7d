import type { EndPlayResult } from '@lanternwright/core/end-play';
import { formatTurn, type Lock, type NutSetting } from '@lanternwright/core/nut';
import { playDigits, formatPlay } from '../../shell/words.ts';
import { NutView } from '../../ui/nut-view.tsx';
import { StateMark } from '../../ui/state-mark.tsx';
import { ThouRule } from '../../ui/thou-rule.tsx';
import type { Band, ViewProps } from './types.ts';

/** The nut from its end, and the end play at each lock position on the thousandths rule. */
export function NutSettingView({
  input,
  result,
  unit,
}: ViewProps<{ lock: Lock; measuredMm: number; band: Band }, NutSetting>) {
  const best = result.best === null ? null : (result.options[result.best] ?? null);
  const here = result.options.find((o) => o.turns === 0);
  const words = !best
    ? 'No lock position is in band'
    : Math.abs(best.turns) < 1e-6
      ? 'In band. Do not adjust.'
      : `${best.turns < 0 ? 'Back off' : 'Tighten'} ${formatTurn(best.turns)}, to ${formatPlay(best.predictedMm, unit)}`;
  return (
    <div className="flex flex-col gap-3">
      <h2 className="text-18">{words}</h2>
      <div className="flex flex-wrap items-center gap-5">
        <NutView lock={input.lock} turns={best?.turns ?? 0} size={170} label={words} />
        <div className="min-w-64 flex-1">
          <ThouRule
            bandMm={input.band}
            unit={unit}
            meanMm={input.measuredMm}
            side={here && here.state !== 'preload' ? here.state : null}
            cyclesMm={result.options
              .map((o) => o.predictedMm)
              .filter((mm) => mm >= 0 && mm < input.band.maxMm * 4)}
            predictedMm={best?.predictedMm}
          />
          <p className="text-12 text-muted">
            Needle: now. Hairlines: lock positions. Dashed: the one to go to.
          </p>
        </div>
      </div>
      <ul className="flex flex-wrap gap-2">
        {result.options.map((o) => (
          <li
            key={o.turns}
            className={`flex items-center gap-1.5 rounded-md border px-2 py-1 text-13 ${o === best ? 'border-lamp-edge bg-lamp' : 'border-rule'}`}
          >
            <StateMark state={o.state === 'preload' ? 'tight' : o.state} size={14} />
            <span>{o.turns === 0 ? 'now' : `${o.turns < 0 ? '−' : '+'}${formatTurn(o.turns)}`}</span>
            <span className="figure">{playDigits(o.predictedMm, unit)}</span>
            {o.state === 'preload' && <span className="text-blue">preload</span>}
          </li>
        ))}
      </ul>
    </div>
  );
}

/** The cycles and their mean on the rule. */
export function EndPlayView({ input, result, unit }: ViewProps<{ band: Band }, EndPlayResult>) {
  const words = {
    tight: 'Tight',
    'in-band': 'In band',
    loose: 'Loose',
    repeat: 'Measure again',
    unsure: 'Too near a limit for this gauge',
  }[result.verdict];
  return (
    <div>
      <p className="figure text-54">
        {playDigits(result.endPlayMm, unit)}
        <span className="pl-3 text-18">{unit}</span>
      </p>
      <h2 className="text-18">
        {words}
        {(result.verdict === 'tight' || result.verdict === 'loose') && ` by ${playDigits(result.byMm, unit)}`}
      </h2>
      <ThouRule
        bandMm={input.band}
        unit={unit}
        meanMm={result.endPlayMm}
        side={result.verdict}
        cyclesMm={result.cyclesMm}
      />
    </div>
  );
}
