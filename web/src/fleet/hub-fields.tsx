import { useState } from 'react';
import { formatHubFill, type Hub, type Sheet } from '@lanternwright/core/procedure';
import {
  parseQuantity,
  parseTogether,
  valueIn,
  type Parsed,
  typedNumber,
} from '@lanternwright/core/quantity';
import { Button } from '../ui/button.tsx';
import { TextField } from '../ui/field.tsx';
import { whyUnread } from '../ui/why-unread.tsx';
import { shop } from './shop-choices.tsx';
import { useReader } from '../shell/use-reader.ts';

const sizes = { bore: 'Bore, mm', outside: 'Outside, mm', width: 'Width, mm' } as const;
type Size = keyof typeof sizes;
type Row = Record<Size | 'mass', string>;

const MOST_BEARINGS = 4;
const empty: Row = { bore: '', outside: '', width: '', mass: '' };

const rowOf = (b: Hub['bearings'][number]): Row => ({
  bore: String(b.boreMm),
  outside: String(b.outsideMm),
  width: String(b.widthMm),
  mass: String(b.massKg),
});

/** What was typed in a row; inches and pounds are taken as well. */
function readRow({ mass, ...row }: Row) {
  return {
    ...parseTogether(row, ['mm', 'in'], 'mm', 'labelled'),
    mass: parseQuantity(mass, ['kg', 'g', 'lb'], 'kg'),
  };
}
type Read = ReturnType<typeof readRow>;

const mm = (read: Parsed) => (read.ok ? Number(valueIn(read.quantity, 'mm').toFixed(4)) : NaN);

function bearingOf(read: Read): Hub['bearings'][number] | null {
  const bearing = {
    ...{ boreMm: mm(read.bore), outsideMm: mm(read.outside), widthMm: mm(read.width) },
    massKg: read.mass.ok ? Number(valueIn(read.mass.quantity, 'kg').toFixed(4)) : NaN,
  };
  return Object.values(bearing).every((v) => v > 0) && bearing.boreMm < bearing.outsideMm ? bearing : null;
}

interface Props {
  sheet: Sheet;
  set: (part: Partial<Sheet>) => void;
}

/** Sizes of a hub, from which its grease or oil is reckoned: a row a bearing, then the cavity. */
export function HubFields({ sheet, set }: Props) {
  const reader = useReader();
  const { hub } = sheet;
  const [rows, setRows] = useState<readonly Row[]>(hub?.bearings.map(rowOf) ?? []);
  const [cavity, setCavity] = useState(hub ? String(hub.cavityMl) : '');
  const [fill, setFill] = useState(hub ? String(hub.cavityFillPercent) : '');
  const [left, setLeft] = useState<ReadonlySet<string>>(new Set());
  const reads = rows.map(readRow);
  const volume = parseQuantity(cavity, ['mL', 'L', 'qt'], 'mL');
  const percent = typedNumber(fill);
  const percentFits = fill.trim() !== '' && percent >= 0 && percent <= 100;

  /** Into the sheet once all of it can be read; until then the sheet keeps what it has. */
  const settle = (next: readonly Row[]) => {
    if (next.length === 0) return hub && set({ hub: null });
    const bearings = next.map((row) => bearingOf(readRow(row)));
    if (!volume.ok || !percentFits || bearings.some((b) => b === null)) return;
    const sizesNow = {
      bearings: bearings.flatMap((b) => b ?? []),
      cavityMl: Number(valueIn(volume.quantity, 'mL').toFixed(2)),
      cavityFillPercent: percent,
    };
    const { bearings: b, cavityMl: c, cavityFillPercent: p } = hub ?? {};
    if (JSON.stringify(sizesNow) !== JSON.stringify({ bearings: b, cavityMl: c, cavityFillPercent: p }))
      set({ hub: { ...sizesNow, ...shop } });
  };
  const change = (at: number, part: Partial<Row>) =>
    setRows(rows.map((row, i) => (i === at ? { ...row, ...part } : row)));
  const remove = (at: number) => {
    const next = rows.filter((_, i) => i !== at);
    setRows(next);
    settle(next);
  };
  /** What is wrong is said once somebody has left the field. */
  const leave = (name: string) => {
    setLeft(new Set([...left, name]));
    settle(rows);
  };
  const boreTooLarge = (read: Read) => read.bore.ok && read.outside.ok && mm(read.bore) >= mm(read.outside);
  return (
    <fieldset className="flex flex-col gap-3 sm:col-span-2 lg:col-span-4">
      <legend className="caption pb-1">Bearings of the hub and its cavity</legend>
      {rows.map((row, at) => (
        <div key={at} className="grid grid-cols-2 items-start gap-2 sm:grid-cols-[1fr_1fr_1fr_1fr_auto]">
          {([...Object.entries(sizes), ['mass', 'Mass, kg']] as [keyof Row, string][]).map(([key, label]) => {
            const read = reads[at]![key];
            const name = `${key} ${at}`;
            const why = whyUnread(read, (text) => change(at, { [key]: text }));
            const bore = key === 'bore' && boreTooLarge(reads[at]!) && 'It is under the outside';
            return (
              <TextField
                key={key}
                label={`${label}, bearing ${at + 1}`}
                className="figure"
                inputMode="decimal"
                value={row[key]}
                error={left.has(name) && (why ?? bore)}
                onChange={(e) => change(at, { [key]: e.target.value })}
                onBlur={() => leave(name)}
              />
            );
          })}
          <Button
            weight="quiet"
            className="mt-5"
            aria-label={`Remove bearing ${at + 1}`}
            onClick={() => remove(at)}
          >
            Remove
          </Button>
        </div>
      ))}
      {rows.length > 0 && (
        <div className="grid gap-2 sm:grid-cols-[1fr_1fr_2fr]">
          <TextField
            label="Cavity, mL"
            className="figure"
            inputMode="decimal"
            value={cavity}
            error={left.has('cavity') && whyUnread(volume, setCavity)}
            onChange={(e) => setCavity(e.target.value)}
            onBlur={() => leave('cavity')}
          />
          <TextField
            label="Cavity filled to, %"
            className="figure"
            inputMode="decimal"
            value={fill}
            error={left.has('fill') && !percentFits && 'From 0 to 100'}
            onChange={(e) => setFill(e.target.value)}
            onBlur={() => leave('fill')}
          />
        </div>
      )}
      <div className="flex flex-wrap items-center gap-4">
        {rows.length < MOST_BEARINGS && (
          <Button onClick={() => setRows([...rows, empty])}>Add a bearing</Button>
        )}
        <p className="text-13 text-muted">
          {hub
            ? `Hub takes ${formatHubFill(sheet, reader)}`
            : 'Without them the amount of lubricant is not reckoned'}
        </p>
      </div>
    </fieldset>
  );
}
