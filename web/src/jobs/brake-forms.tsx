import { useState } from 'react';
import { chambers, chamberStrokes } from '@lanternwright/core/brake';
import type { StepData } from '@lanternwright/core/procedure';
import { formatTypedFor, parseTogether, quantity, type Parsed } from '@lanternwright/core/quantity';
import { layerOf } from '@lanternwright/core/stack';
import { isPastLimit, strokeFaults, strokeOf, wearOf, whyNoStroke } from '@lanternwright/core/route';
import { useReader } from '../shell/use-reader.ts';
import { Button } from '../ui/button.tsx';
import { SelectField, TextField } from '../ui/field.tsx';
import { FigureField } from '../ui/figure-field.tsx';
import { strokeTitles } from '../ui/brake-words.ts';
import { LimitScale } from '../ui/limit-scale.tsx';
import { Note } from '../ui/problem-note.tsx';
import { useDraft } from './use-draft.ts';
import { Form, noted, type FormProps } from './step-form-parts.tsx';

const units = ['mm', 'in'] as const;
const places = ['one', 'two', 'three', 'four'] as const;

/** Lengths in the reader's unit for parts of a brake. */
function useThickness() {
  const reader = useReader();
  return (mm: number) => formatTypedFor(quantity(Number(mm.toFixed(2)), 'mm'), reader);
}

/** A drum's diameters or a rotor's thicknesses, against the figure cast into it. */
export function WearForm({ step, record }: FormProps<'wear'>) {
  const unit = useReader().thickness;
  const say = useThickness();
  const [text, setText] = useDraft('text', {
    ...{ one: '', two: '', three: '', four: '', discard: '', runout: '', runoutLimit: '' },
  });
  const [note, setNote] = useDraft('note', '');
  const [tried, setTried] = useState(false);
  const read = parseTogether(text, units, unit, 'labelled');
  const typed = places.filter((p) => text[p].trim() !== '');
  const measured = typed.flatMap((p) => (read[p].ok ? [read[p].quantity] : []));
  const withRunout = step.part === 'rotor' && text.runout.trim() !== '';
  const { discard, runout, runoutLimit } = read;
  const complete =
    measured.length > 0 &&
    measured.length === typed.length &&
    discard.ok &&
    (!withRunout || (runout.ok && runoutLimit.ok));
  const data: Extract<StepData, { kind: 'wear' }> | null = complete
    ? {
        kind: 'wear',
        measured,
        discard: discard.quantity,
        ...(withRunout && runout.ok && runoutLimit.ok
          ? { runout: runout.quantity, runoutLimit: runoutLimit.quantity }
          : {}),
        ...noted(note),
      }
    : null;
  const wear = data && wearOf(step, data);
  const past = data !== null && isPastLimit(step, data);
  const field = (key: keyof typeof text, label: string, parsed: Parsed, isNeeded = true) => (
    <FigureField
      label={`${label}, ${unit}`}
      autoFocus={key === 'one'}
      value={text[key]}
      parsed={parsed}
      tried={tried && (isNeeded || text[key].trim() !== '')}
      onChange={(t) => setText({ ...text, [key]: t })}
    />
  );
  const what = step.part === 'drum' ? 'Diameter' : 'Thickness';
  return (
    <Form
      button="Record the measurement"
      onRecord={() => {
        setTried(true);
        if (data && (!past || note.trim() !== '')) record(data);
      }}
    >
      <div className="grid gap-3 sm:grid-cols-4">
        {places.map((p, i) => (
          <div key={p}>{field(p, `${what} ${i + 1}`, read[p], i === 0)}</div>
        ))}
      </div>
      <div className="grid gap-3 sm:grid-cols-3">
        {field('discard', 'Discard figure cast into it', discard)}
        {step.part === 'rotor' && field('runout', 'Runout', runout, false)}
        {withRunout && field('runoutLimit', 'Allowed runout', runoutLimit)}
      </div>
      {data && wear && (
        <LimitScale
          good={step.part === 'drum' ? { to: data.discard.si * 1000 } : { from: data.discard.si * 1000 }}
          values={data.measured.map(({ si }) => ({
            at: si * 1000,
            bad: step.part === 'drum' ? si > data.discard.si : si < data.discard.si,
          }))}
          say={say}
          label={`Worst ${say(wear.worstMm)}, discard figure ${say(data.discard.si * 1000)}`}
        />
      )}
      {wear?.state === 'at-limit' && <p className="text-14">{say(wear.leftMm)} left: not for long.</p>}
      {past && (
        <>
          <Note tone="trouble">
            {wear?.state === 'discard'
              ? 'Past its discard figure: a new one goes in. This is kept, and the new one is measured in its turn.'
              : 'It runs out: look at the bearings’ play and at the faces first.'}
          </Note>
          <TextField
            label="What was found or is done about it"
            value={note}
            error={tried && note.trim() === '' ? 'Enter it in a few words' : undefined}
            onChange={(e) => setNote(e.target.value)}
          />
        </>
      )}
    </Form>
  );
}

/** The stroke of an air brake chamber, released and applied, against its limit. */
export function StrokeForm({ step, wheelEnd, record }: FormProps<'stroke'>) {
  const unit = useReader().thickness;
  const say = useThickness();
  const [text, setText] = useDraft('text', { released: '', applied: '', marked: '' });
  const [chosen, setChosen] = useDraft('chosen', { chamber: '', stroke: '' });
  const [note, setNote] = useDraft('note', '');
  const [tried, setTried] = useState(false);
  const { released, applied, marked } = parseTogether(text, units, unit, 'labelled');
  const { chamberSize, chamberStroke } = layerOf(wheelEnd.plan.stack, 'brake-outer') ?? {};
  const onFile = chamberSize !== undefined && chamberStroke !== undefined;
  const [isAnother, setAnother] = useDraft('another', false);
  const asBuilt = onFile && !isAnother;
  const chamber = asBuilt ? chamberSize : chambers.find((c) => String(c) === chosen.chamber);
  const stroke = asBuilt ? chamberStroke : chamberStrokes.find((s) => s === chosen.stroke);
  const isOther = !asBuilt && chosen.chamber === 'other';
  const data: Extract<StepData, { kind: 'stroke' }> | null =
    released.ok && applied.ok
      ? {
          ...{ kind: 'stroke', released: released.quantity, applied: applied.quantity },
          ...(chamber === undefined ? {} : { chamber }),
          ...(chamber === undefined || stroke === undefined ? {} : { stroke }),
          ...(isOther && marked.ok ? { marked: marked.quantity } : {}),
          ...noted(note),
        }
      : null;
  const why = data && whyNoStroke(data);
  const result = data && why === null ? strokeOf(data) : null;
  const out = result?.state === 'out';
  const field = (key: keyof typeof text, label: string, parsed: Parsed) => (
    <FigureField
      label={`${label}, ${unit}`}
      {...{ parsed, tried }}
      autoFocus={key === 'released'}
      value={text[key]}
      onChange={(t) => setText({ ...text, [key]: t })}
    />
  );
  return (
    <Form
      button="Record the stroke"
      onRecord={() => {
        setTried(true);
        if (data && result && ((!out && asBuilt === onFile) || note.trim() !== '')) record(data);
      }}
    >
      <div className="grid gap-3 sm:grid-cols-2">
        {field('released', 'Face to pin, released', released)}
        {field('applied', 'Face to pin, applied', applied)}
        {asBuilt ? (
          <div className="flex flex-col gap-2 sm:col-span-2">
            <p className="text-14">
              On file: type {chamberSize}. {strokeTitles[chamberStroke]}. Look at what is marked on it.
            </p>
            <Button weight="quiet" className="self-start" onClick={() => setAnother(true)}>
              Another is marked on it
            </Button>
          </div>
        ) : (
          <>
            <SelectField
              label="Chamber, as marked on it"
              value={chosen.chamber}
              error={tried && chosen.chamber === '' ? 'Choose the chamber' : undefined}
              onChange={(e) => setChosen({ ...chosen, chamber: e.target.value })}
            >
              <option value="">Choose</option>
              {chambers.map((c) => (
                <option key={c} value={c}>
                  Type {c}
                </option>
              ))}
              <option value="other">Another, with its stroke marked</option>
            </SelectField>
            {isOther ? (
              field('marked', 'Stroke marked on it', marked)
            ) : (
              <SelectField
                label="Stroke of the chamber"
                value={chosen.stroke}
                error={tried && chosen.stroke === '' ? 'Choose the stroke' : undefined}
                onChange={(e) => setChosen({ ...chosen, stroke: e.target.value })}
              >
                <option value="">Choose</option>
                {chamberStrokes.map((s) => (
                  <option key={s} value={s}>
                    {strokeTitles[s]}
                  </option>
                ))}
              </SelectField>
            )}
          </>
        )}
      </div>
      {tried && why && <Note tone="trouble">{strokeFaults[why]}</Note>}
      {result && (
        <LimitScale
          good={{ to: result.limitMm }}
          values={[{ at: result.strokeMm, bad: out }]}
          say={say}
          label={`Stroke ${say(result.strokeMm)}, limit ${say(result.limitMm)}`}
        />
      )}
      {out && (
        <>
          <Note tone="trouble">
            Over its limit. An automatic adjuster that is out has a cause: foundation brake, chamber, bracket,
            adjuster. Turning it answers nothing.
          </Note>
        </>
      )}
      {(out || asBuilt !== onFile) && (
        <TextField
          label={out ? 'What was found' : 'What is marked on it, and why it is another'}
          value={note}
          error={tried && note.trim() === '' ? 'Enter it in a few words' : undefined}
          onChange={(e) => setNote(e.target.value)}
        />
      )}
      <p className="text-12 text-muted">{step.source}, from memory: local rules decide.</p>
    </Form>
  );
}
