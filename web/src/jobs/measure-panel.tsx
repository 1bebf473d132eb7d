import { useState } from 'react';
import { LEAST_CYCLES, REPEAT_WITHIN_MM } from '@lanternwright/core/end-play';
import {
  bandInMm,
  formatLimits,
  type BandFigure,
  type Step,
  type StepData,
} from '@lanternwright/core/procedure';
import { parseTogether, type Parsed } from '@lanternwright/core/quantity';
import { measureWay, pullOff, type MeasureWay } from '@lanternwright/core/route';
import {
  playMm,
  readingRound,
  readingsOf,
  verdictOf,
  type Reading,
  type WheelEnd,
} from '@lanternwright/core/traveller';
import { playDigits, formatPlay } from '../shell/words.ts';
import { ToolField, useGraduation, useListedTool } from '../tools/tool-field.tsx';
import { Button } from '../ui/button.tsx';
import { Note } from '../ui/problem-note.tsx';
import { FigureField } from '../ui/figure-field.tsx';
import { ThouRule, type RuleUnit, type Side } from '../ui/thou-rule.tsx';
import { useDraft } from './use-draft.ts';
import { CorrectReading } from './correct-reading.tsx';
import { CycleEntry } from './cycle-entry.tsx';
import { SinceSet } from './since-set.tsx';
import { SettingAdvice, useAdvice } from './setting-advice.tsx';
import type { OpenJob } from './use-job.ts';
import { useReader } from '../shell/use-reader.ts';

interface Props {
  open: OpenJob;
  wheelEnd: WheelEnd;
  step: Extract<Step, { kind: 'measure' }>;
  record: (data: StepData) => void;
}

const tone: Record<Side, string> = {
  tight: 'text-blue',
  'in-band': 'text-pine',
  loose: 'text-rust',
  repeat: 'text-ink',
  unsure: 'text-ink',
};

function verdictWords(verdict: Side, byMm: number, cycles: number, unit: RuleUnit): string {
  if (verdict === 'in-band') return 'In band';
  if (verdict === 'repeat')
    return cycles < LEAST_CYCLES
      ? `${LEAST_CYCLES - cycles} more ${LEAST_CYCLES - cycles === 1 ? 'cycle' : 'cycles'}`
      : 'The cycles do not repeat';
  return `${verdict === 'tight' ? 'Tight' : 'Loose'} by ${playDigits(byMm, unit)}`;
}

function CycleCard({
  open,
  reading,
  number,
  unit,
  position,
}: {
  open: OpenJob;
  reading: Reading;
  number: number;
  unit: RuleUnit;
  position: string;
}) {
  const [correcting, setCorrecting] = useState(false);
  return (
    <div className="rounded-lg border border-edge bg-panel p-3">
      <div className="flex items-center justify-between gap-2">
        <p className="caption">
          Cycle {number}
          {reading.gauge && `, ${reading.gauge}`}
          {reading.source === 'pasted' && ', pasted'}
        </p>
        <button
          type="button"
          className="-my-2 min-h-11 px-3 text-12 text-muted underline underline-offset-2"
          onClick={() => setCorrecting(!correcting)}
        >
          Correct
        </button>
      </div>
      <p className="figure text-18">{playDigits(playMm(reading), unit)}</p>
      {correcting && <CorrectReading {...{ open, position, reading }} onDone={() => setCorrecting(false)} />}
    </div>
  );
}

const places = { stud: 'at a wheel stud', 'steering-arm': 'at the steering arm, links off' } as const;

/** Preload by its drag: with a pull scale where a figure is known or asked, else by hand. */
function DragPanel({ way, record }: Pick<Props, 'record'> & { way: MeasureWay }) {
  const reader = useReader();
  const { figure, mustPull, at } = way;
  const [text, setText] = useDraft('text', { pull: '', least: '', most: '' });
  const [tried, setTried] = useState(false);
  const [scale, setScale] = useDraft('scale', '');
  const { listed, unfit } = useListedTool(scale, { kind: 'pull-scale' });
  const asksMaker = mustPull && !figure;
  const { pull, least, most } = parseTogether(text, ['N', 'lbf'], figure?.max.unit ?? 'N', 'labelled');
  const asked = least.ok && most.ok ? { least: least.quantity, most: most.quantity } : null;
  const byHand = text.pull.trim() === '' && !mustPull;
  const off =
    pull.ok &&
    pullOff(figure, { kind: 'measure', by: 'drag', pull: pull.quantity, ...(asked ? { asked } : {}) });
  const save = () => {
    setTried(true);
    if (byHand) return record({ kind: 'measure', by: 'drag' });
    if (!pull.ok || unfit || (asksMaker && !asked)) return;
    const more = { ...(listed ? { listed } : {}), ...(asksMaker && asked ? { asked } : {}) };
    record({ kind: 'measure', by: 'drag', pull: pull.quantity, ...more });
  };
  const field = (key: keyof typeof text, label: string, parsed: Parsed, hint?: string) => (
    <FigureField
      label={`${label}, N or lbf`}
      {...{ hint, parsed }}
      tried={tried && !byHand}
      autoFocus={key === 'pull'}
      value={text[key]}
      onChange={(t) => setText({ ...text, [key]: t })}
    />
  );
  return (
    <form
      className="flex flex-col gap-4"
      onSubmit={(e) => {
        e.preventDefault();
        save();
      }}
    >
      <div className="grid gap-3 sm:grid-cols-3">
        {field(
          'pull',
          `Pull ${places[at]}${mustPull ? '' : ' (optional)'}`,
          pull,
          figure
            ? `The sheet asks for ${formatLimits(figure, reader)}`
            : asksMaker
              ? 'Steady, while it turns: never the first pull that breaks it away'
              : 'The sheet has no figure: light, even drag by hand is recorded as that',
        )}
        {asksMaker && field('least', 'The maker asks for at least', least)}
        {asksMaker && field('most', 'At most', most)}
      </div>
      {!byHand && <ToolField use={{ kind: 'pull-scale' }} code={scale} onChange={setScale} />}
      {off && (
        <Note tone="trouble">
          Too {off}: {off === 'light' ? 'tighten, or take shims out' : 'back off, or put shims in'}. This
          reading is recorded and does not count.
        </Note>
      )}
      <div>
        <Button type="submit" weight="main" className="min-h-14 px-6 text-18">
          {byHand ? 'Light, even drag all the way round' : 'Record the pull'}
        </Button>
      </div>
    </form>
  );
}

/** Takes what the construction is verified by: end play by dial or feel, or the drag of a preload. */
export function MeasurePanel(props: Props) {
  const { sheet, plan } = props.wheelEnd;
  const way = measureWay({ stack: plan.stack, sheet }, props.step);
  if (way.by === 'drag') return <DragPanel record={props.record} way={way} />;
  if (sheet.band) return <EndPlayPanel {...props} band={sheet.band} />;
  return (
    <div className="flex flex-col gap-2">
      <p className="text-14">
        The sheet has no band for the dial. No movement felt is recorded as feel, not as a reading.
      </p>
      <div>
        <Button
          weight="main"
          className="min-h-14 px-6 text-18"
          onClick={() => props.record({ kind: 'measure', by: 'feel' })}
        >
          No movement felt, spins freely
        </Button>
      </div>
    </div>
  );
}

/** Takes the cycles, judges them, and says what to do about them. */
function EndPlayPanel({ open, wheelEnd, step, record, band }: Props & { band: BandFigure }) {
  const unit = useReader().length;
  const [refused, setRefused] = useState<string | null>(null);
  const { sheet, position } = wheelEnd;
  const round = readingRound(wheelEnd, step);
  const asFound = step.stage === 'diagnose';
  const readings = readingsOf(wheelEnd, round);
  const result = verdictOf(wheelEnd, round);
  const side = result?.verdict ?? null;
  const settled = side !== null && side !== 'repeat';
  const gauge = readings.at(-1)?.gauge ?? '';
  const { listed, unfit } = useListedTool(gauge, { kind: 'dial-indicator' });
  const resolutionMm = useGraduation(gauge);
  const advice = useAdvice(sheet, result, resolutionMm);
  const accept = settled && (asFound || side === 'in-band');
  const again = () => {
    for (const r of readings) {
      const reason = open.send({
        kind: 'correction',
        corrects: r.eventId,
        reason: 'Measured again',
        replacement: null,
      });
      if (reason) return setRefused(reason);
    }
  };
  return (
    <>
      <div className="rounded-lg border border-edge bg-panel p-4 bay:px-3 bay:py-2" aria-live="polite">
        <p className="caption bay:hidden">
          {readings.length === 0 ? 'End play, push and pull' : `End play, mean of ${readings.length}`}
        </p>
        <div className="flex flex-wrap items-end gap-x-6 gap-y-1 pb-2 bay:flex-nowrap bay:gap-x-3 bay:pb-0">
          <p className={`figure shrink-0 text-54 bay:text-26 ${side ? tone[side] : 'text-muted'}`}>
            {result ? playDigits(result.endPlayMm, unit) : unit === 'in' ? '0.----' : '-.---'}
            <span className="pl-3 text-18">{unit}</span>
          </p>
          <div className="pb-1">
            <p className={`text-18 font-semibold bay:text-14 ${side ? tone[side] : ''}`}>
              {result && side
                ? verdictWords(side, result.byMm, readings.length, unit)
                : 'Three cycles that repeat'}
            </p>
            <p className="text-13 text-muted bay:text-12">
              {result
                ? `Repeats within ${playDigits(result.rangeMm, unit)}`
                : `Within ${playDigits(REPEAT_WITHIN_MM, unit)} of each other`}
            </p>
          </div>
        </div>
        <ThouRule
          bandMm={bandInMm(band)}
          unit={unit}
          meanMm={result?.endPlayMm ?? null}
          side={side}
          cyclesMm={readings.map(playMm)}
          predictedMm={asFound ? null : advice?.go?.predictedMm}
        />
      </div>
      {readings.length > 0 && (
        <div className="grid grid-cols-2 gap-3 bay:order-1 lg:grid-cols-3">
          {readings.map((r, i) => (
            <CycleCard key={r.eventId} {...{ open, unit, position }} reading={r} number={i + 1} />
          ))}
        </div>
      )}
      {accept && (
        <div className="flex flex-wrap gap-3">
          <Button
            weight="main"
            className="min-h-14 text-18"
            disabled={unfit !== null}
            onClick={() => record({ kind: 'measure', by: 'dial', ...(listed ? { listed } : {}) })}
          >
            Accept {formatPlay(result!.endPlayMm, unit)} {asFound ? 'as found' : `for ${position}`}
          </Button>
          <Button onClick={again}>Measure again</Button>
        </div>
      )}
      {!asFound && settled && side !== 'in-band' && (
        <SettingAdvice {...{ open, wheelEnd, round, advice, again, resolutionMm }} />
      )}
      {readings.length >= LEAST_CYCLES && side === 'repeat' && (
        <div>
          <Button weight="main" onClick={again}>
            Measure again
          </Button>
        </div>
      )}
      {!settled && <CycleEntry {...{ open, position, round, unit }} number={readings.length + 1} />}
      {sheet.verifyBy === 'dial-or-feel' && readings.length === 0 && (
        <div className="border-t border-rule pt-3">
          <p className="pb-2 text-14">
            Without a dial: no movement felt, spins freely. It is recorded as feel, not as a reading.
          </p>
          <Button onClick={() => record({ kind: 'measure', by: 'feel' })}>
            No movement felt, spins freely
          </Button>
        </div>
      )}
      {asFound && <SinceSet open={open} wheelEnd={wheelEnd} />}
      {accept && unfit && <Note tone="trouble">{unfit}. Measure again with one that is in calibration.</Note>}
      {refused && <Note tone="trouble">{refused}</Note>}
    </>
  );
}
