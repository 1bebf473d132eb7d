import { useState } from 'react';
import { formatTyped, parseQuantity } from '@lanternwright/core/quantity';
import { InstrumentLine } from '../instruments/instrument-line.tsx';
import { useInstruments } from '../instruments/use-instruments.ts';
import { TextField } from '../ui/field.tsx';
import { useDraft } from './use-draft.ts';
import { Form, noted, type FormProps } from './step-form-parts.tsx';

const units = ['degC', 'degF'] as const;

/** Hub temperatures of this side and the other after the road. */
export function HeatForm({ record }: FormProps<'heat'>) {
  const [text, setText] = useDraft('text', { here: '', other: '' });
  const [note, setNote] = useDraft('note', '');
  const [tried, setTried] = useState(false);
  const here = parseQuantity(text.here, units, 'degC');
  const other = parseQuantity(text.other, units, 'degC');
  const thermometer = useInstruments('HT', ({ quantity }) => {
    const words = formatTyped(quantity);
    setText((t) => (t.here === '' ? { ...t, here: words } : { ...t, other: words }));
  });
  const warmer = here.ok && other.ok ? Math.round(here.quantity.si - other.quantity.si) : null;
  const save = () => {
    setTried(true);
    if (here.ok && other.ok)
      record({ kind: 'heat', here: here.quantity, other: other.quantity, ...noted(note) });
  };
  return (
    <Form button="Record the temperatures" onRecord={save}>
      <div className="grid gap-3 sm:grid-cols-2">
        <TextField
          label="This hub, °C or °F"
          className="figure"
          inputMode="decimal"
          autoFocus
          value={text.here}
          error={tried && !here.ok ? here.message : undefined}
          onChange={(e) => setText({ ...text, here: e.target.value })}
        />
        <TextField
          label="The other side, °C or °F"
          className="figure"
          inputMode="decimal"
          value={text.other}
          error={tried && !other.ok ? other.message : undefined}
          onChange={(e) => setText({ ...text, other: e.target.value })}
        />
      </div>
      <InstrumentLine what="Thermometer" {...thermometer} />
      {warmer !== null && (
        <p role="status" className="text-18 font-semibold">
          {warmer === 0
            ? 'Both alike'
            : `${Math.abs(warmer)} °C ${warmer > 0 ? 'warmer' : 'cooler'} than the other side`}
        </p>
      )}
      <TextField label="Note" value={note} onChange={(e) => setNote(e.target.value)} />
    </Form>
  );
}
