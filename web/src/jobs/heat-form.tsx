import { useState } from 'react';
import { formatTyped, parseTogether, unitDefinition } from '@lanternwright/core/quantity';
import { InstrumentLine } from '../instruments/instrument-line.tsx';
import { useInstruments } from '../instruments/use-instruments.ts';
import { hubHeat } from '@lanternwright/core/traveller';
import { TextField } from '../ui/field.tsx';
import { Note } from '../ui/problem-note.tsx';
import { whyUnread } from '../ui/why-unread.tsx';
import { useDraft } from './use-draft.ts';
import { Form, noted, type FormProps } from './step-form-parts.tsx';
import { useReader } from '../shell/use-reader.ts';
import { eitherUnit } from '../shell/words.ts';

const units = ['degC', 'degF'] as const;

/** Hub temperatures of this side and the other after the road. */
export function HeatForm({ record, step, wheelEnd }: FormProps<'heat'>) {
  const [text, setText] = useDraft('text', { here: '', other: '', air: '' });
  const [note, setNote] = useDraft('note', '');
  const [tried, setTried] = useState(false);
  const reader = useReader();
  const either = eitherUnit(reader, 'temperature');
  const { here, other, air } = parseTogether(text, units, reader.temperature, 'unlabelled');
  const thermometer = useInstruments('HT', `${wheelEnd.position}, ${step.title}`, ({ quantity }) => {
    const words = formatTyped(quantity);
    setText((t) => {
      const next = (['here', 'other', 'air'] as const).find((key) => t[key] === '') ?? 'here';
      return { ...t, [next]: words };
    });
  });
  const kelvin = here.ok && other.ok ? here.quantity.si - other.quantity.si : null;
  const warmer = kelvin === null ? null : Math.round(reader.temperature === 'degF' ? kelvin * 1.8 : kelvin);
  const heat =
    here.ok && other.ok && air.ok
      ? hubHeat({ here: here.quantity, other: other.quantity, air: air.quantity }, wheelEnd.sheet.heat)
      : null;
  const save = () => {
    setTried(true);
    if (here.ok && other.ok && air.ok)
      record({
        kind: 'heat',
        here: here.quantity,
        other: other.quantity,
        air: air.quantity,
        ...noted(note),
      });
  };
  return (
    <Form button="Record the temperatures" onRecord={save}>
      <div className="grid gap-3 sm:grid-cols-3">
        <TextField
          label={`This hub, ${either}`}
          className="figure"
          inputMode="decimal"
          autoFocus
          value={text.here}
          error={tried && whyUnread(here, (t) => setText({ ...text, here: t }))}
          onChange={(e) => setText({ ...text, here: e.target.value })}
        />
        <TextField
          label={`The other side, ${either}`}
          className="figure"
          inputMode="decimal"
          value={text.other}
          error={tried && whyUnread(other, (t) => setText({ ...text, other: t }))}
          onChange={(e) => setText({ ...text, other: e.target.value })}
        />
        <TextField
          label={`The air, ${either}`}
          className="figure"
          inputMode="decimal"
          value={text.air}
          error={tried && whyUnread(air, (t) => setText({ ...text, air: t }))}
          onChange={(e) => setText({ ...text, air: e.target.value })}
        />
      </div>
      <InstrumentLine what="Thermometer" {...thermometer} />
      {warmer !== null && (
        <p role="status" className="text-18 font-semibold">
          {warmer === 0
            ? 'Both alike'
            : `${Math.abs(warmer)} ${unitDefinition(reader.temperature).label} ${warmer > 0 ? 'warmer' : 'cooler'} than the other side`}
        </p>
      )}
      {heat && heat.verdict !== 'fine' && (
        <Note tone="trouble">
          {heat.verdict === 'not-released'
            ? 'More than 95 K over the air: not released. Find what makes it hot, bearing or brake.'
            : 'Much warmer than the air or the other side: look again, at the brake as well, and say what was found.'}
        </Note>
      )}
      <TextField
        label={heat && heat.verdict !== 'fine' ? 'What was looked at' : 'Note'}
        value={note}
        onChange={(e) => setNote(e.target.value)}
      />
    </Form>
  );
}
