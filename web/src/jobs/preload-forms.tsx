import { useState } from 'react';
import { rollingFigure, rollingNm, rollingOff, shimmedMm, shimsOff } from '@lanternwright/core/route';
import { describeMark, formatTorque, type StepData } from '@lanternwright/core/procedure';
import {
  formatFor,
  parseTogether,
  quantity,
  unitDefinition,
  unitFor,
  type Parsed,
} from '@lanternwright/core/quantity';
import { ToolField, useListedTool } from '../tools/tool-field.tsx';
import { FigureField } from '../ui/figure-field.tsx';
import { LimitScale } from '../ui/limit-scale.tsx';
import { Note } from '../ui/problem-note.tsx';
import { useReader } from '../shell/use-reader.ts';
import { Choices, Form, noted, OptionalNote, type FormProps } from './step-form-parts.tsx';
import { useDraft } from './use-draft.ts';

type DataOf<K extends StepData['kind']> = Extract<StepData, { kind: K }>;

const torqueUnits = ['Nm', 'lbf-in', 'lbf-ft'] as const;
const lengths = ['mm', 'in'] as const;

const conditions = [
  ['new', 'New bearings'],
  ['run-in', 'Bearings that have run'],
] as const;
const ways = [
  ['cord', 'Cord and pull scale'],
  ['gauge', 'Torque gauge'],
] as const;

/** The torque at which a preloaded pair turns, by a gauge or by a cord, against the figure of new or run-in bearings. */
export function RollingForm({ wheelEnd, record }: FormProps<'rolling'>) {
  const reader = useReader();
  const [chosen, setChosen] = useDraft<{ bearings: '' | 'new' | 'run-in'; way: '' | 'cord' | 'gauge' }>(
    'chosen',
    {
      ...{ bearings: '', way: '' },
    },
  );
  const [text, setText] = useDraft('text', { torque: '', seal: '', least: '', most: '' });
  const [cord, setCord] = useDraft('cord', { pull: '', radius: '' });
  const [scale, setScale] = useDraft('scale', '');
  const [note, setNote] = useDraft('note', '');
  const [tried, setTried] = useState(false);
  const { listed, unfit } = useListedTool(scale, { kind: 'pull-scale' });
  const { bearings, way } = chosen;
  const figure = bearings === '' ? null : rollingFigure(wheelEnd.sheet, { bearings });
  const unit = figure ? unitFor(figure.max, reader) : reader.torque === 'Nm' ? 'Nm' : 'lbf-in';
  const { torque, seal, least, most } = parseTogether(text, torqueUnits, unit, 'labelled');
  const { pull } = parseTogether({ pull: cord.pull }, ['N', 'lbf'], 'N', 'labelled');
  const { radius } = parseTogether({ radius: cord.radius }, lengths, reader.thickness, 'labelled');
  const measured =
    way === 'gauge'
      ? torque.ok && { torque: torque.quantity }
      : pull.ok && radius.ok && { pull: pull.quantity, radius: radius.quantity };
  const asked = least.ok && most.ok ? { asked: { least: least.quantity, most: most.quantity } } : null;
  const drags = text.seal.trim() === '' ? {} : seal.ok && { sealDrag: seal.quantity };
  const data: DataOf<'rolling'> | null =
    bearings !== '' && way !== '' && measured && drags && (figure || asked)
      ? {
          ...{ kind: 'rolling', bearings, ...measured, ...drags },
          ...(figure ? {} : asked),
          ...(way === 'cord' && listed ? { listed } : {}),
          ...noted(note),
        }
      : null;
  const gross = data && (data.torque?.si ?? data.pull!.si * data.radius!.si);
  const sealOver = gross !== null && (data?.sealDrag?.si ?? 0) > gross;
  const nm = data && !sealOver ? rollingNm(data) : null;
  const off = data && !sealOver ? rollingOff(figure, data) : null;
  const [from, to] = figure ? [figure.min, figure.max] : [data?.asked?.least, data?.asked?.most];
  const say = (value: number) => formatFor(quantity(Number(value.toPrecision(3)), 'Nm'), reader);
  const field = (key: keyof typeof text, label: string, parsed: Parsed, hint?: string) => (
    <FigureField
      {...{ label, hint, parsed, tried }}
      value={text[key]}
      onChange={(t) => setText({ ...text, [key]: t })}
    />
  );
  const cordField = (key: keyof typeof cord, label: string, parsed: Parsed, hint: string) => (
    <FigureField
      {...{ label, hint, parsed, tried }}
      value={cord[key]}
      onChange={(t) => setCord({ ...cord, [key]: t })}
    />
  );
  const shown = unitDefinition(unit).label;
  return (
    <Form
      button="Record the rolling torque"
      onRecord={() => {
        setTried(true);
        if (data && !sealOver && !(way === 'cord' && unfit)) record(data);
      }}
    >
      <Choices
        legend="Which bearings"
        name="bearings"
        choices={conditions}
        chosen={bearings}
        onChoose={(id) => setChosen({ ...chosen, bearings: id })}
      />
      {figure && (
        <div className="rounded-lg border border-edge bg-panel p-4">
          <p className="caption">To turn with</p>
          <p className="figure text-23 font-semibold">{formatTorque(figure, reader)}</p>
          <p className="text-13 text-muted">{describeMark(figure)}</p>
        </div>
      )}
      <Choices
        legend="Measured with"
        name="way"
        choices={ways}
        chosen={way}
        onChoose={(id) => setChosen({ ...chosen, way: id })}
      />
      {tried && (bearings === '' || way === '') && (
        <Note tone="trouble">Choose which bearings they are, and what it was measured with.</Note>
      )}
      <div className="grid gap-3 sm:grid-cols-2">
        {way === 'gauge' && field('torque', `Torque while it turns, ${shown}`, torque)}
        {way === 'cord' && (
          <>
            {cordField(
              'pull',
              'Pull while it turns, N',
              pull,
              'Steady, never the first pull that breaks it away',
            )}
            {cordField(
              'radius',
              `Radius of the cord, ${reader.thickness}`,
              radius,
              'Half the diameter it is wound on',
            )}
          </>
        )}
        {way !== '' &&
          field(
            'seal',
            `What the seal drags by itself, ${shown}`,
            seal,
            'Leave it empty where the seal is not in yet',
          )}
        {bearings !== '' && !figure && field('least', `The maker asks for at least, ${shown}`, least)}
        {bearings !== '' && !figure && field('most', `At most, ${shown}`, most)}
      </div>
      {way === 'cord' && <ToolField use={{ kind: 'pull-scale' }} code={scale} onChange={setScale} />}
      {sealOver && <Note tone="trouble">The seal alone cannot drag more than was pulled: check both.</Note>}
      {nm !== null && from && to && (
        <LimitScale
          good={{ from: from.si, to: to.si }}
          values={[{ at: nm, bad: off !== null }]}
          say={say}
          label={`It turns with ${say(nm)}, asked are ${say(from.si)} to ${say(to.si)}`}
        />
      )}
      {off && (
        <Note tone="trouble">
          {off === 'heavy'
            ? 'Too tight: it stays on record and does not count. Back off, turn the hub, set it anew.'
            : 'Too loose: it stays on record and does not count. Tighten in small steps, turn the hub, measure again.'}
        </Note>
      )}
      <OptionalNote note={note} set={setNote} />
    </Form>
  );
}

const thicker = [
  ['looser', 'Thicker is looser'],
  ['tighter', 'Thicker is tighter'],
] as const;

const shimFields = [
  ['current', 'Shims that are in now'],
  ['play', 'End play with them, over zero'],
  ['least', 'The maker asks for preload of at least'],
  ['most', 'At most'],
  ['chosen', 'Shims that go in'],
] as const;

/** The shims that preload a pair, from the end play that another stack of them left. */
export function ShimsForm({ record }: FormProps<'shims'>) {
  const unit = useReader().thickness;
  const [side, setSide] = useDraft<'' | 'looser' | 'tighter'>('side', '');
  const [text, setText] = useDraft('text', { current: '', play: '', least: '', most: '', chosen: '' });
  const [note, setNote] = useDraft('note', '');
  const [tried, setTried] = useState(false);
  const read = parseTogether(text, lengths, unit, 'labelled');
  const { current, play, least, most, chosen } = read;
  const before =
    side !== '' && current.ok && play.ok && least.ok && most.ok
      ? {
          ...{ kind: 'shims' as const, current: current.quantity, play: play.quantity, thicker: side },
          preload: { least: least.quantity, most: most.quantity },
        }
      : null;
  const data: DataOf<'shims'> | null =
    before && chosen.ok ? { ...before, chosen: chosen.quantity, ...noted(note) } : null;
  const off = data && shimsOff(data);
  const middleMm = before && ((before.preload.least.si + before.preload.most.si) / 2) * 1000;
  const wantedMm =
    before && before.current.si * 1000 + (side === 'looser' ? -1 : 1) * (before.play.si * 1000 + middleMm!);
  const say = (mm: number) => (unit === 'mm' ? `${mm.toFixed(2)} mm` : `${(mm / 25.4).toFixed(4)} in`);
  return (
    <Form
      button="Record the shims"
      onRecord={() => {
        setTried(true);
        if (data && play.ok && play.quantity.si > 0) record(data);
      }}
    >
      <Choices
        legend="What a thicker stack does"
        name="thicker"
        choices={thicker}
        chosen={side}
        onChoose={setSide}
      />
      {tried && side === '' && <Note tone="trouble">Choose what a thicker stack does.</Note>}
      <div className="grid gap-3 sm:grid-cols-2">
        {shimFields.map(([key, label]) => (
          <FigureField
            key={key}
            label={`${label}, ${unit}`}
            {...{ tried, parsed: read[key] }}
            value={text[key]}
            onChange={(t) => setText({ ...text, [key]: t })}
          />
        ))}
      </div>
      {tried && play.ok && play.quantity.si <= 0 && (
        <Note tone="trouble">Measure with some end play: at zero the preload does not show.</Note>
      )}
      {wantedMm !== null && (
        <p className="text-18 font-semibold" role="status">
          The middle of the preload wants {say(wantedMm)} of shims
          {data && `; with ${say(data.chosen.si * 1000)} it is ${say(-shimmedMm(data))}`}
        </p>
      )}
      {off && (
        <Note tone="trouble">
          {off === 'heavy' ? 'More preload' : 'Less preload'} than the maker asks for: it stays on record and
          does not count. Choose other shims.
        </Note>
      )}
      <OptionalNote note={note} set={setNote} />
    </Form>
  );
}
