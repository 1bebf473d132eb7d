import { useState } from 'react';
import { sensorState } from '@lanternwright/core/route';
import type { StepData } from '@lanternwright/core/procedure';
import { parseTogether, type Parsed } from '@lanternwright/core/quantity';
import { TextField } from '../ui/field.tsx';
import { FigureField } from '../ui/figure-field.tsx';
import { Note } from '../ui/problem-note.tsx';
import { useReader } from '../shell/use-reader.ts';
import { Choices, Form, noted, OptionalNote, type FormProps } from './step-form-parts.tsx';
import { useDraft } from './use-draft.ts';

const ways = [
  ['to-stop', 'Pushed up until it stops'],
  ['gap', 'Set to a gap'],
  ['fixed', 'Fixed, nothing to set'],
] as const;

const offWords = {
  low: 'It gives too little for the brake control to read: push it up, look at the ring’s teeth and runout.',
  unlike: 'One side gives twice the other: gap, ring or lead of the weaker one.',
};

/** A wheel-speed sensor: how it sits, how its ring runs, and what it gives on both sides. */
export function SensorForm({ record }: FormProps<'sensor'>) {
  const unit = useReader().length;
  const [set, setSet] = useDraft<'' | 'to-stop' | 'gap' | 'fixed'>('set', '');
  const [size, setSize] = useDraft('size', { gap: '', runout: '' });
  const [volts, setVolts] = useDraft('volts', { here: '', other: '' });
  const [note, setNote] = useDraft('note', '');
  const [tried, setTried] = useState(false);
  const sizes = parseTogether(size, ['in', 'mm', 'thou'] as const, unit, 'labelled');
  const given = parseTogether(volts, ['mV', 'V'] as const, 'mV', 'labelled');
  const isEmpty = (text: string) => text.trim() === '';
  const reads = [
    [set === 'gap' ? size.gap || ' ' : '', sizes.gap],
    [size.runout, sizes.runout],
    [volts.here, given.here],
    [volts.other, given.other],
  ] as const;
  const isRead = reads.every(([text, parsed]) => text === '' || parsed.ok);
  const of = (text: string, parsed: Parsed) => (isEmpty(text) || !parsed.ok ? undefined : parsed.quantity);
  const data: Extract<StepData, { kind: 'sensor' }> | null =
    set !== '' && isRead
      ? {
          ...{ kind: 'sensor', set, runout: of(size.runout, sizes.runout) },
          ...(set === 'gap' ? { gap: of(size.gap, sizes.gap) } : {}),
          ...{ here: of(volts.here, given.here), other: of(volts.other, given.other) },
          ...noted(note),
        }
      : null;
  const state = data && sensorState(data);
  const off = state === 'low' || state === 'unlike' ? state : null;
  const text = (label: string, value: string, parsed: Parsed, change: (t: string) => void, must = false) => (
    <FigureField {...{ label, value, parsed }} tried={tried && (must || !isEmpty(value))} onChange={change} />
  );
  return (
    <Form
      button="Record the sensor"
      onRecord={() => {
        setTried(true);
        if (data && (!off || note.trim() !== '')) record(data);
      }}
    >
      <Choices legend="How it sits" name="sensor-set" choices={ways} chosen={set} onChoose={setSet} />
      {tried && set === '' && <Note tone="trouble">Choose how the sensor sits.</Note>}
      <div className="grid gap-3 sm:grid-cols-2">
        {set === 'gap' && text(`Gap, ${unit}`, size.gap, sizes.gap, (gap) => setSize({ ...size, gap }), true)}
        {text(`Runout of the ring, ${unit}`, size.runout, sizes.runout, (runout) =>
          setSize({ ...size, runout }),
        )}
        {text('Gives here, mV', volts.here, given.here, (here) => setVolts({ ...volts, here }))}
        {text('The other side, mV', volts.other, given.other, (other) => setVolts({ ...volts, other }))}
      </div>
      {off && (
        <>
          <Note tone="trouble">{offWords[off]}</Note>
          <TextField
            label="What was found"
            value={note}
            error={tried && note.trim() === '' ? 'Enter what was found' : undefined}
            onChange={(e) => setNote(e.target.value)}
          />
        </>
      )}
      {!off && <OptionalNote note={note} set={setNote} />}
    </Form>
  );
}
