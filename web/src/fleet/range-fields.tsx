import { useState, type FocusEvent } from 'react';
import { describeMark, type Sheet, type TorqueFigure } from '@lanternwright/core/procedure';
import {
  convert,
  parseTogether,
  unitDefinition,
  type Quantity,
  type Unit,
} from '@lanternwright/core/quantity';
import { whyUnread } from '../ui/why-unread.tsx';
import { shop } from './shop-choices.tsx';

type Figure = TorqueFigure | NonNullable<Sheet['band']>;

interface Props {
  label: string;
  value: Figure | null;
  units: readonly [Unit, ...Unit[]];
  onChange: (value: TorqueFigure | null) => void;
}

interface Text {
  min: string;
  max: string;
  unit: Unit;
}

/** A figure as its fields show it: one that is no range stands in the first. */
function textOf(value: { min: Quantity; max: Quantity } | null, units: Props['units']): Text {
  if (!value) return { min: '', max: '', unit: units[0] };
  const { unit } = value.max;
  const low = Number(convert(value.min.value, value.min.unit, unit).toPrecision(6));
  return value.min.si === value.max.si
    ? { min: String(value.max.value), max: '', unit }
    : { min: String(low), max: String(value.max.value), unit };
}

const input = 'figure min-h-12 w-full min-w-0 rounded-md border bg-panel px-2 text-16';

/**
 * A figure or a range with its unit. What cannot be read stays in the fields with its reason, and the sheet keeps the
 * old one; both empty takes the figure out.
 */
export function RangeFields({ label, value, units, onChange }: Props) {
  const [text, setText] = useState(() => textOf(value, units));
  const [tried, setTried] = useState(false);
  const [seen, setSeen] = useState(value);
  if (seen !== value) {
    setSeen(value);
    setText(textOf(value, units));
    setTried(false);
  }
  const { min, max } = parseTogether(
    { min: text.min, max: text.max || text.min },
    units,
    text.unit,
    'labelled',
  );
  const turned = min.ok && max.ok && min.quantity.si > max.quantity.si;
  const empty = text.min.trim() === '' && text.max.trim() === '';
  const settle = () => {
    const was = textOf(value, units);
    if (was.min === text.min && was.max === text.max && was.unit === text.unit) return;
    if (empty) return value && onChange(null);
    setTried(true);
    if (min.ok && max.ok && !turned) onChange({ min: min.quantity, max: max.quantity, ...shop });
  };
  const left = (e: FocusEvent<HTMLFieldSetElement>) => {
    if (!e.currentTarget.contains(e.relatedTarget)) settle();
  };
  const wrong =
    tried && !empty
      ? (whyUnread(min, (t) => setText({ ...text, min: t })) ??
        whyUnread(max, (t) => setText({ ...text, max: t })) ??
        (turned && 'The lower figure comes first'))
      : undefined;
  const edge = wrong ? 'border-rust' : 'border-edge';
  return (
    <fieldset onBlur={left} className="min-w-0 lg:col-span-2">
      <legend className="caption pb-1">{label}</legend>
      <div className="grid grid-cols-[1fr_auto_1fr_auto] items-center gap-1.5">
        <input
          aria-label={`${label}, from`}
          inputMode="decimal"
          className={`${input} ${edge}`}
          value={text.min}
          onChange={(e) => setText({ ...text, min: e.target.value })}
        />
        <span className="text-13 text-muted">to</span>
        <input
          aria-label={`${label}, to`}
          inputMode="decimal"
          className={`${input} ${edge}`}
          value={text.max}
          onChange={(e) => setText({ ...text, max: e.target.value })}
        />
        <select
          aria-label={`${label}, unit`}
          className="min-h-12 rounded-md border border-edge bg-panel px-2 text-14"
          value={text.unit}
          onChange={(e) => setText({ ...text, unit: e.target.value as Unit })}
        >
          {units.map((unit) => (
            <option key={unit} value={unit}>
              {unitDefinition(unit).label}
            </option>
          ))}
        </select>
      </div>
      <p className={`pt-1 text-12 ${wrong ? 'text-rust' : 'text-muted'}`}>
        {wrong ?? (value ? describeMark(value) : 'No figure')}
      </p>
    </fieldset>
  );
}
