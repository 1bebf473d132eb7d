import { useState } from 'react';
import { sayHubFill, schoolNames, schools, type Hub, type Sheet } from '@lanternwright/core/procedure';
import { formatTyped, parseQuantity } from '@lanternwright/core/quantity';
import { HEAT_LIMITS } from '@lanternwright/core/traveller';
import { SelectField, TextField } from '../ui/field.tsx';

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

/** Numbers of a bearing as "bore × outside × width, mass"; one bearing a line of four. */
function readBearings(text: string): Hub['bearings'] | string {
  const rows = text.split(/[;\n]/).filter((row) => row.trim() !== '');
  const bearings = rows.map((row) =>
    row
      .split(/[\s×x,/]+/)
      .filter(Boolean)
      .map(Number),
  );
  if (bearings.length === 0 || bearings.some((b) => b.length !== 4 || !b.every((v) => v > 0)))
    return 'Bore, outside and width in mm, mass in kg, for each bearing: 82.5 139.7 36.5 2.1; 66.7 122.2 38.1 1.8';
  if (bearings.some(([bore, outside]) => bore! >= outside!)) return 'A bore is under its outside';
  return bearings.map(([boreMm, outsideMm, widthMm, massKg]) => ({
    boreMm: boreMm!,
    outsideMm: outsideMm!,
    widthMm: widthMm!,
    massKg: massKg!,
  }));
}

/** Sizes of a hub, from which its grease or oil is reckoned. */
export function HubFields({ sheet, set }: Props) {
  const { hub } = sheet;
  const [bearings, setBearings] = useState(
    hub?.bearings.map((b) => `${b.boreMm} ${b.outsideMm} ${b.widthMm} ${b.massKg}`).join('; ') ?? '',
  );
  const [cavity, setCavity] = useState(hub ? `${hub.cavityMl} ${hub.cavityFillPercent}` : '');
  const [error, setError] = useState<string>();
  const settle = () => {
    setError(undefined);
    if (bearings.trim() === '') return hub && set({ hub: null });
    const read = readBearings(bearings);
    const [cavityMl = NaN, cavityFillPercent = NaN] = cavity
      .split(/[\s,;]+/)
      .filter(Boolean)
      .map(Number);
    if (typeof read === 'string') return setError(read);
    if (!(cavityMl >= 0) || !(cavityFillPercent >= 0 && cavityFillPercent <= 100)) return;
    const next = { bearings: read, cavityMl, cavityFillPercent };
    const { bearings: b, cavityMl: c, cavityFillPercent: p } = hub ?? {};
    if (JSON.stringify(next) !== JSON.stringify({ bearings: b, cavityMl: c, cavityFillPercent: p }))
      set({ hub: { ...next, ...shop } });
  };
  return (
    <>
      <div className="sm:col-span-2">
        <TextField
          label="Bearings: bore, outside, width in mm, mass in kg"
          className="figure"
          value={bearings}
          error={error}
          hint={hub ? `Hub takes ${sayHubFill(sheet)}` : 'Empty: the amount is not reckoned'}
          onChange={(e) => setBearings(e.target.value)}
          onBlur={settle}
        />
      </div>
      <TextField
        label="Cavity, mL, and filled to, %"
        className="figure"
        value={cavity}
        onChange={(e) => setCavity(e.target.value)}
        onBlur={settle}
      />
    </>
  );
}

/** When wheel nuts are torqued again on this kind of wheel end; empty for the shop's usual 80 to 160 km. */
export function RetorqueField({ sheet, set }: Props) {
  const { retorque } = sheet;
  const [text, setText] = useState(
    retorque ? `${retorque.from.value} to ${formatTyped(retorque.by)}, ${retorque.days} days` : '',
  );
  const [error, setError] = useState<string>();
  const settle = () => {
    setError(undefined);
    if (text.trim() === '') return retorque && set({ retorque: null });
    const found = /^(.+?)\s+to\s+(.+?),\s*(\d+)\s*days?$/.exec(text.trim());
    const by = found && parseQuantity(found[2]!, ['km', 'mi'], 'km');
    const from = found && by?.ok ? parseQuantity(found[1]!, ['km', 'mi'], by.quantity.unit) : null;
    if (!by?.ok || !from?.ok || from.quantity.si > by.quantity.si) return setError('As 50 to 100 mi, 7 days');
    set({ retorque: { from: from.quantity, by: by.quantity, days: Number(found![3]), ...shop } });
  };
  return (
    <TextField
      label="Retorque"
      value={text}
      error={error}
      hint={retorque ? undefined : 'Empty: 80 to 160 km, 14 days'}
      onChange={(e) => setText(e.target.value)}
      onBlur={settle}
    />
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
      t.trim() === '' ? NaN : Number(t.replace(',', '.')),
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
