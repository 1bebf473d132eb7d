import { useMemo, useState } from 'react';
import type { EndPlayResult } from '@lanternwright/core/end-play';
import { adviseSetting, formatTurn, type Advice, type NutState, type Remedy } from '@lanternwright/core/nut';
import { bandInMm, type Sheet } from '@lanternwright/core/procedure';
import type { WheelEnd } from '@lanternwright/core/traveller';
import { playDigits, formatPlay } from '../shell/words.ts';
import { Button } from '../ui/button.tsx';
import { NutView } from '../ui/nut-view.tsx';
import { Note } from '../ui/problem-note.tsx';
import { StateMark, type MarkState } from '../ui/state-mark.tsx';
import type { OpenJob } from './use-job.ts';
import { useReader } from '../shell/use-reader.ts';

/** Advice on a settled reading, or null where there is none to give: none on less than the gauge can show. */
export function useAdvice(sheet: Sheet, result: EndPlayResult | null, resolutionMm: number): Advice | null {
  return useMemo(() => {
    if (!result || result.verdict === 'repeat' || !sheet.band || !sheet.thread || !sheet.lock) return null;
    if (result.byMm < resolutionMm) return null;
    return adviseSetting(result.endPlayMm, bandInMm(sheet.band), sheet.thread, sheet.lock);
  }, [sheet, result, resolutionMm]);
}

const remedyWords: Record<Remedy, string> = {
  'turn-washer-over': 'Turn the washer over: its half positions bring one in.',
  'change-washer': 'Change the washer for one with other holes.',
  'second-hole': 'Use the second hole of the spindle, if it has one: that brings a slot into the band.',
  'change-nut': 'Change the nut: its slots may stand differently to the thread.',
  'find-what-binds':
    'Back off. If it stays tight, something binds: a cup not home, the seal, the brake, a washer the wrong way round.',
  inspect: 'If tightening does not bring it in, the bearings are worn: stop and inspect.',
};

const optionMark: Record<NutState, MarkState> = {
  'in-band': 'in-band',
  tight: 'tight',
  loose: 'loose',
  preload: 'tight',
};
const optionWord: Record<NutState, string> = {
  'in-band': 'in band',
  tight: 'tight',
  loose: 'loose',
  preload: 'preload, never',
};

/** How many points or slots of the nut a turn is, where that says more than the fraction. */
function describePlaces(turns: number, sheet: Sheet): string {
  const { lock } = sheet;
  if (!lock || lock.kind === 'stepless') return '';
  const places = Math.abs(turns) * (lock.kind === 'castellated' ? lock.slots : lock.positionsPerTurn);
  const what = lock.kind === 'castellated' ? 'slot' : 'place';
  if (Math.abs(places - 0.5) < 1e-6) return `, half a ${what}`;
  if (Math.abs(places - Math.round(places)) > 1e-6) return '';
  return `, ${Math.round(places)} ${what}${Math.round(places) === 1 ? '' : 's'}`;
}

/** The positions worth reading: from one before the nut's place to one past the one to go to, or the first preload. */
function nearby({ setting, go }: Advice) {
  const here = setting.options.findIndex((o) => o.turns === 0);
  const there = go ? setting.options.indexOf(go) : here;
  return setting.options.slice(Math.max(0, Math.min(here, there) - 1), Math.max(here, there) + 3);
}

interface Props {
  open: OpenJob;
  wheelEnd: WheelEnd;
  round: number;
  advice: Advice | null;
  again: () => void;
  /** Graduation of the gauge, mm; 0 where it is not on the shop's list. */
  resolutionMm: number;
}

/** Out of band: which way and how far, every lock position with what it gives, or what else to do. */
export function SettingAdvice({ open, wheelEnd, round, advice, again, resolutionMm }: Props) {
  const unit = useReader().length;
  const [refused, setRefused] = useState<string | null>(null);
  const { position, sheet } = wheelEnd;
  const go = advice?.go ?? null;
  const canAdjust = sheet.thread !== null && sheet.lock !== null;
  const reopen = (from: 'start' | 'setting') => {
    const plan = from === 'setting' && go ? { turns: go.turns, predictedMm: go.predictedMm } : {};
    setRefused(open.send({ kind: 'adjust-reopened', position, round, from, ...plan }));
  };
  const way = go
    ? `${go.turns < 0 ? 'Back off' : 'Tighten'} by ${formatTurn(go.turns)}${describePlaces(go.turns, sheet)}`
    : 'No lock position is in band';
  return (
    <>
      {advice && (
        <div className="flex flex-wrap items-start gap-5 rounded-lg border border-edge bg-panel p-4">
          <NutView lock={sheet.lock!} turns={go?.turns ?? 0} size={118} label={way} />
          <div className="min-w-0 flex-1">
            <h3 className="text-18">{way}</h3>
            {go ? (
              <p className="text-14 text-muted">
                Predicted end play{' '}
                <span className="figure font-semibold text-pine">{formatPlay(go.predictedMm, unit)}</span>.
                Measure again after it is locked.
              </p>
            ) : (
              <ul className="list-disc pl-5 text-14">
                {advice.remedies.map((r) => (
                  <li key={r}>{remedyWords[r]}</li>
                ))}
              </ul>
            )}
            <table className="mt-3 text-13">
              <caption className="caption text-left">Lock positions and what each gives</caption>
              <tbody>
                {nearby(advice).map((o) => (
                  <tr key={o.turns} className={o === go ? 'bg-lamp' : ''}>
                    <td className="py-0.5 pr-4">
                      {o.turns === 0
                        ? 'as it stands'
                        : `${o.turns < 0 ? 'back off' : 'tighten'} ${formatTurn(o.turns)}`}
                    </td>
                    <td className="figure pr-4 text-right">{playDigits(o.predictedMm, unit)}</td>
                    <td>
                      <span className="flex items-center gap-1.5">
                        <StateMark state={optionMark[o.state]} size={14} /> {optionWord[o.state]}
                      </span>
                    </td>
                  </tr>
                ))}
              </tbody>
            </table>
          </div>
        </div>
      )}
      {!advice && canAdjust && (
        <Note tone="trouble">
          Out by less than one graduation of this gauge, {formatPlay(resolutionMm, unit)}: measure again
          before the nut is turned for it.
        </Note>
      )}
      {!advice && !canAdjust && (
        <Note tone="trouble">
          This construction cannot be adjusted. Out of its limit, the cartridge is replaced or the spacer is
          wrong: stop and inspect.
        </Note>
      )}
      {refused && <Note tone="trouble">{refused}</Note>}
      <div className="flex flex-wrap gap-3">
        {go && (
          <Button weight="main" onClick={() => reopen('setting')}>
            Go back to Adjust, {go.turns < 0 ? 'back off' : 'tighten'} {formatTurn(go.turns)}
          </Button>
        )}
        <Button weight={go ? 'plain' : 'main'} onClick={() => reopen('start')}>
          Adjust from the start
        </Button>
        <Button onClick={again}>Measure again</Button>
      </div>
    </>
  );
}
