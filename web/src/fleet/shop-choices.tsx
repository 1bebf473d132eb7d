import { useState, type ReactNode } from 'react';
import { schoolNames, schools, type Sheet } from '@lanternwright/core/procedure';
import { formatTyped, parseQuantity, parseTogether, typedNumber } from '@lanternwright/core/quantity';
import { HEAT_LIMITS } from '@lanternwright/core/traveller';
import { SelectField, TextField } from '../ui/field.tsx';
import { whyUnread } from '../ui/why-unread.tsx';
import { useReader } from '../shell/use-reader.ts';
import { eitherUnit } from '../shell/words.ts';

interface Props {
  sheet: Sheet;
  set: (part: Partial<Sheet>) => void;
}

/** Where a figure comes from that the shop entered itself. */
export const shop = { mark: 'shop', source: 'Set by the shop' } as const;

/** What this shop does where practitioners differ. */
export function SchoolFields({ sheet, set }: Props) {
  return schoolNames.map((name) => (
    <SelectField
      key={name}
      label={schools[name].title}
      value={sheet.schools[name]}
      onChange={(e) => set({ schools: { ...sheet.schools, [name]: e.target.value } })}
    >
      {Object.entries(schools[name].choices).map(([id, words]) => (
        <option key={id} value={id}>
          {words}
        </option>
      ))}
    </SelectField>
  ));
}

/** When wheel nuts are torqued again on this kind of wheel end; empty for the shop's usual. */
export function RetorqueField({ sheet, set }: Props) {
  const { retorque } = sheet;
  const reader = useReader();
  const either = eitherUnit(reader, 'distance');
  const [text, setText] = useState({
    from: retorque ? formatTyped(retorque.from) : '',
    by: retorque ? formatTyped(retorque.by) : '',
    hours: retorque?.hours ? formatTyped(retorque.hours) : '',
    days: retorque ? String(retorque.days) : '',
  });
  const [tried, setTried] = useState(false);
  const { from, by } = parseTogether(
    { from: text.from, by: text.by },
    ['km', 'mi'],
    reader.distance,
    'unlabelled',
  );
  const days = Number(text.days);
  const daysFit = text.days.trim() !== '' && Number.isInteger(days) && days >= 1 && days <= 365;
  const hours = text.hours.trim() === '' ? null : parseQuantity(text.hours, ['h'], 'h');
  const turned = from.ok && by.ok && from.quantity.si > by.quantity.si;
  const none = Object.values(text).every((t) => t.trim() === '');
  const settle = () => {
    if (none) return retorque && set({ retorque: null });
    if ([text.from, text.by, text.days].every((t) => t.trim() !== '')) setTried(true);
    if (!from.ok || !by.ok || turned || !daysFit || hours?.ok === false) return;
    const run = hours?.quantity ?? null;
    const asIs =
      retorque?.from.si === from.quantity.si &&
      retorque.by.si === by.quantity.si &&
      retorque.hours?.si === run?.si &&
      retorque.days === days;
    if (!asIs) set({ retorque: { from: from.quantity, by: by.quantity, hours: run, days, ...shop } });
  };
  const field = (key: keyof typeof text, label: string, wrong: ReactNode, usual: string) => (
    <TextField
      label={label}
      className="figure"
      value={text[key]}
      error={tried && !none && wrong}
      hint={none ? `Empty: ${usual}` : undefined}
      onChange={(e) => setText({ ...text, [key]: e.target.value })}
      onBlur={settle}
    />
  );
  return (
    <>
      {field(
        'from',
        `Retorque after, ${either}`,
        whyUnread(from, (t) => setText({ ...text, from: t })),
        '80 km',
      )}
      {field(
        'by',
        `Retorque at the latest by, ${either}`,
        whyUnread(by, (t) => setText({ ...text, by: t })) ?? (turned && 'It is over the first'),
        '160 km',
      )}
      {field(
        'hours',
        'Without an odometer: after, h',
        hours && whyUnread(hours, (t) => setText({ ...text, hours: t })),
        '10 h',
      )}
      {field('days', 'Or after so many days', !daysFit && 'Days, from 1 to 365', '14')}
    </>
  );
}

const heatFields = [
  ['lookOverAirK', 'Hub heat: look again this much over the air, K'],
  ['lookOverOtherK', 'Or this much over the other side, K'],
  ['notReleasedOverAirK', 'Not released this much over the air, K'],
] as const;

/** How hot a hub may be after the road; all three, or none for the product's own. */
export function HeatFields({ sheet, set }: Props) {
  const [text, setText] = useState(() =>
    heatFields.map(([key]) => (sheet.heat ? String(sheet.heat[key]) : '')),
  );
  const [error, setError] = useState<string>();
  const settle = () => {
    setError(undefined);
    if (text.every((t) => t.trim() === '')) return sheet.heat && set({ heat: null });
    const [lookOverAirK = NaN, lookOverOtherK = NaN, notReleasedOverAirK = NaN] = text.map((t) =>
      typedNumber(t),
    );
    if (![lookOverAirK, lookOverOtherK, notReleasedOverAirK].every((k) => k > 0))
      return setError('All three in kelvin, or none');
    if (notReleasedOverAirK < lookOverAirK) return setError('One looks again before one refuses');
    const heat = { lookOverAirK, lookOverOtherK, notReleasedOverAirK };
    if (heatFields.some(([key]) => heat[key] !== sheet.heat?.[key])) set({ heat: { ...heat, ...shop } });
  };
  return heatFields.map(([key, label], i) => (
    <TextField
      key={key}
      label={label}
      className="figure"
      inputMode="decimal"
      value={text[i]!}
      error={i === heatFields.length - 1 ? error : undefined}
      hint={sheet.heat ? undefined : `Empty: ${HEAT_LIMITS[key]}`}
      onChange={(e) => setText(text.map((t, n) => (n === i ? e.target.value : t)))}
      onBlur={settle}
    />
  ));
}
