import { useState } from 'react';
import { stackOfSheet, type IntervalFigure, type Sheet } from '@lanternwright/core/procedure';
import { parseQuantity } from '@lanternwright/core/quantity';
import { works, worksOf, type Work } from '@lanternwright/core/stack';
import { Button } from '../ui/button.tsx';
import { SelectField, TextField } from '../ui/field.tsx';
import { shop } from './shop-choices.tsx';
import { useReader } from '../shell/use-reader.ts';
import { eitherUnit } from '../shell/words.ts';
import type { ReaderUnits } from '@lanternwright/core/quantity';

interface Row {
  work: Work | '';
  distance: string;
  months: string;
  hours: string;
}
const typed = (value: number | undefined, unit = '') =>
  value === undefined ? '' : `${value}${unit && ` ${unit}`}`;

const rowOf = ({ work, distance, months, hours }: IntervalFigure): Row => ({
  work,
  distance: typed(distance?.value, distance?.unit),
  months: typed(months ?? undefined),
  hours: typed(hours?.value),
});

/** What a row says; null while it does not say it whole. */
function figureOf({ work, distance, months, hours }: Row, reader: ReaderUnits): IntervalFigure | null {
  const km = parseQuantity(distance, ['km', 'mi'], reader.distance);
  const h = parseQuantity(hours, ['h'], 'h');
  const m = Number(months);
  const whole =
    work !== '' &&
    (distance.trim() === '' || km.ok) &&
    (hours.trim() === '' || h.ok) &&
    (months.trim() === '' || (Number.isInteger(m) && m >= 1));
  if (!whole || (!km.ok && !h.ok && months.trim() === '')) return null;
  return {
    work,
    distance: km.ok ? km.quantity : null,
    months: months.trim() === '' ? null : m,
    hours: h.ok ? h.quantity : null,
    ...shop,
  };
}

/** How often each work is wanted on such a wheel end, whichever comes first; none while it is what is usual. */
export function IntervalFields({ sheet, set }: { sheet: Sheet; set: (part: Partial<Sheet>) => void }) {
  const reader = useReader();
  const [rows, setRows] = useState<readonly Row[]>((sheet.intervals ?? []).map(rowOf));
  const built = stackOfSheet(sheet, { role: 'drive', wheels: 'single', brake: 'drum' });
  const offered = (built ? worksOf(built) : (Object.keys(works) as Work[])).filter((w) => w !== 'wheel-off');
  const change = (next: readonly Row[]) => {
    setRows(next);
    const figures = next.map((row) => figureOf(row, reader));
    // A row that is not whole yet changes nothing.
    if (figures.some((f) => f === null)) return;
    const kept = (sheet.intervals ?? []).map((i) => [JSON.stringify(rowOf(i)), i] as const);
    const same = new Map(kept);
    set({
      intervals:
        next.length === 0 ? null : next.map((row, i) => same.get(JSON.stringify(row)) ?? figures[i]!),
    });
  };
  const put = (i: number, part: Partial<Row>) =>
    change(rows.map((r, at) => (at === i ? { ...r, ...part } : r)));
  return (
    <fieldset className="col-span-full flex flex-col gap-2">
      <legend className="caption pb-1">How often, whichever comes first</legend>
      {rows.map((row, i) => (
        <div key={i} className="grid grid-cols-2 items-end gap-2 sm:grid-cols-[1.6fr_1fr_0.7fr_0.8fr_auto]">
          <SelectField
            label="Work"
            value={row.work}
            onChange={(e) => put(i, { work: e.target.value as Work })}
          >
            <option value="">Choose</option>
            {offered.map((w) => (
              <option key={w} value={w}>
                {works[w]}
              </option>
            ))}
          </SelectField>
          <TextField
            label={`Distance, ${eitherUnit(reader, 'distance')}`}
            value={row.distance}
            placeholder="160,000 km"
            onChange={(e) => put(i, { distance: e.target.value })}
          />
          <TextField
            label="Months"
            inputMode="numeric"
            value={row.months}
            error={row.months !== '' && !/^[1-9]\d*$/.test(row.months) ? 'Whole months' : undefined}
            onChange={(e) => put(i, { months: e.target.value })}
          />
          <TextField
            label="Hours"
            inputMode="numeric"
            value={row.hours}
            onChange={(e) => put(i, { hours: e.target.value })}
          />
          <Button weight="quiet" onClick={() => change(rows.filter((_, at) => at !== i))}>
            Remove
          </Button>
        </div>
      ))}
      <div className="flex flex-wrap items-center gap-3">
        <Button onClick={() => setRows([...rows, { work: '', distance: '', months: '', hours: '' }])}>
          Add an interval
        </Button>
        {rows.length === 0 && (
          <span className="text-13 text-muted">As is usual for such a unit, where anything is.</span>
        )}
      </div>
    </fieldset>
  );
}
