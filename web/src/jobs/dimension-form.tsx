import { useState } from 'react';
import { dimensions } from '@lanternwright/core/procedure';
import { parseQuantity, parseTogether, unitDefinition, type Parsed } from '@lanternwright/core/quantity';
import { TextField } from '../ui/field.tsx';
import { FigureField } from '../ui/figure-field.tsx';
import { useDraft } from './use-draft.ts';
import { Form, noted, type FormProps } from './step-form-parts.tsx';
import { useReader } from '../shell/use-reader.ts';

const units = ['in', 'mm', 'thou'] as const;

/** A measured size against its own figure: the sheet's, the maker's, or the part's own. */
export function DimensionForm({ step, wheelEnd, record }: FormProps<'dimension'>) {
  const unit = useReader().length;
  const [text, setText] = useDraft('text', { value: '', least: '', most: '' });
  const [note, setNote] = useDraft('note', '');
  const [tried, setTried] = useState(false);
  const own = step.what === 'shaft-movement' ? wheelEnd.sheet.shaftMovement : null;
  const { value, least, most } = parseTogether(text, units, unit, 'labelled');
  const asked = own
    ? { least: own.min, most: own.max }
    : least.ok && most.ok
      ? { least: least.quantity, most: most.quantity }
      : null;
  const off =
    value.ok && asked !== null && (value.quantity.si < asked.least.si || value.quantity.si > asked.most.si);
  const save = () => {
    setTried(true);
    if (!value.ok || !asked || (off && note.trim() === '')) return;
    record({ kind: 'dimension', value: value.quantity, ...(own ? {} : { asked }), ...noted(note) });
  };
  const field = (key: keyof typeof text, label: string, parsed: Parsed, hint?: string) => (
    <FigureField
      label={`${label}, ${unit}`}
      {...{ hint, parsed, tried }}
      autoFocus={key === 'value'}
      value={text[key]}
      onChange={(t) => setText({ ...text, [key]: t })}
    />
  );
  const hint = step.what === 'needle-depth' ? 'The seal, measured' : 'From the maker’s sheet';
  return (
    <Form button="Record the measurement" onRecord={save}>
      <div className="grid gap-3 sm:grid-cols-3">
        {field('value', dimensions[step.what], value)}
        {!own && field('least', 'At least', least, hint)}
        {!own && field('most', 'At most', most, hint)}
      </div>
      {off && (
        <TextField
          label="Off its figure: what was found"
          value={note}
          error={
            tried && note.trim() === ''
              ? 'Correct it, or record what you found'
              : 'It cannot be released like this'
          }
          onChange={(e) => setNote(e.target.value)}
        />
      )}
    </Form>
  );
}

/** How long the sealant’s own sheet asks for in this air; the record is refused until that time is over. */
export function CureForm({ record }: FormProps<'cure'>) {
  const [text, setText] = useDraft('text', { hours: '', air: '' });
  const [tried, setTried] = useState(false);
  const unit = useReader().temperature;
  const hours = parseQuantity(text.hours, ['h'], 'h');
  const air = parseQuantity(text.air, ['degC', 'degF'], unit);
  return (
    <Form
      button="It has cured"
      onRecord={() => {
        setTried(true);
        if (hours.ok && air.ok) record({ kind: 'cure', hours: hours.quantity.value, air: air.quantity });
      }}
    >
      <div className="grid gap-3 sm:grid-cols-2">
        <TextField
          label="The sealant asks for, hours"
          className="figure"
          inputMode="decimal"
          autoFocus
          value={text.hours}
          hint="In air of this temperature, counted from the last stage of the cover bolts"
          error={tried && !hours.ok ? hours.message : undefined}
          onChange={(e) => setText({ ...text, hours: e.target.value })}
        />
        <TextField
          label={`Air, ${unitDefinition(unit).label}`}
          className="figure"
          inputMode="decimal"
          value={text.air}
          error={tried && !air.ok ? air.message : undefined}
          onChange={(e) => setText({ ...text, air: e.target.value })}
        />
      </div>
    </Form>
  );
}
