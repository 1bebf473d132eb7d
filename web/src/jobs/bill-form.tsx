import { Plus, X } from 'lucide-react';
import { useState } from 'react';
import {
  billSchema,
  billTotals,
  formatMoney,
  toMinor,
  typedMoney,
  type Bill,
} from '@lanternwright/core/cost';
import { Button } from '../ui/button.tsx';
import { SelectField, TextField } from '../ui/field.tsx';
import { Note } from '../ui/problem-note.tsx';

interface Row {
  group: 'labour' | 'parts';
  what: string;
  per: 'hour' | 'wheel' | 'piece';
  quantity: string;
  price: string;
}

const number = (text: string) => (text.trim() === '' ? NaN : Number(text.trim().replace(',', '.')));
const toRow = (l: Bill['lines'][number], currency: string): Row => ({
  group: l.group,
  what: l.what,
  per: l.per,
  quantity: String(l.quantity),
  price: typedMoney(l.unitMinor, currency),
});

interface Props {
  start: Bill;
  button: string;
  onSave: (bill: Bill) => string | null;
}

/** Lines, supplies and tax, with the total as one types. */
export function BillForm({ start, button, onSave }: Props) {
  const [rows, setRows] = useState<readonly Row[]>(start.lines.map((l) => toRow(l, start.currency)));
  const [currency, setCurrency] = useState(start.currency);
  const [supplies, setSupplies] = useState(String(start.suppliesPercent));
  const [tax, setTax] = useState(String(start.tax.percent));
  const [on, setOn] = useState(start.tax.on);
  const [error, setError] = useState<string | null>(null);
  const change = (i: number, part: Partial<Row>) =>
    setRows(rows.map((r, k) => (k === i ? { ...r, ...part } : r)));
  const code = currency.trim().toUpperCase();
  const known = /^[A-Z]{3}$/.test(code);
  const read = billSchema.safeParse({
    currency: code,
    lines: rows.map(({ group, what, per, quantity, price }) => ({
      group,
      what,
      per,
      quantity: number(quantity),
      unitMinor: known ? toMinor(number(price), code) : 0,
    })),
    suppliesPercent: number(supplies),
    tax: { percent: number(tax), on },
  });
  const issue = read.success ? null : read.error.issues[0];
  const wrong = issue
    ? `${issue.path[0] === 'lines' && typeof issue.path[1] === 'number' ? `Line ${issue.path[1] + 1}, ${String(issue.path[2])}` : String(issue.path[0])}: ${issue.message}`
    : null;
  return (
    <form
      className="flex flex-col gap-3"
      onSubmit={(e) => {
        e.preventDefault();
        setError(read.success ? onSave(read.data) : wrong);
      }}
    >
      <ul>
        {rows.map((r, i) => (
          <li
            key={i}
            className="grid items-end gap-2 border-b border-rule py-2 sm:grid-cols-[110px_1fr_110px_90px_110px_auto]"
          >
            <SelectField
              label="Kind"
              value={r.group}
              onChange={(e) => change(i, { group: e.target.value as Row['group'] })}
            >
              <option value="labour">Labour</option>
              <option value="parts">Parts</option>
            </SelectField>
            <TextField label="What" value={r.what} onChange={(e) => change(i, { what: e.target.value })} />
            <SelectField
              label="Per"
              value={r.per}
              onChange={(e) => change(i, { per: e.target.value as Row['per'] })}
            >
              <option value="hour">hour</option>
              <option value="wheel">wheel</option>
              <option value="piece">piece</option>
            </SelectField>
            <TextField
              label="How many"
              className="figure"
              inputMode="decimal"
              value={r.quantity}
              onChange={(e) => change(i, { quantity: e.target.value })}
            />
            <TextField
              label="Each"
              className="figure"
              inputMode="decimal"
              value={r.price}
              onChange={(e) => change(i, { price: e.target.value })}
            />
            <Button
              aria-label={`Take line ${i + 1} away`}
              onClick={() => setRows(rows.filter((_, k) => k !== i))}
            >
              <X size={16} aria-hidden />
            </Button>
          </li>
        ))}
      </ul>
      <Button
        className="self-start"
        onClick={() =>
          setRows([...rows, { group: 'parts', what: '', per: 'piece', quantity: '1', price: '' }])
        }
      >
        <Plus size={16} aria-hidden /> Add a line
      </Button>
      <div className="grid items-end gap-3 sm:grid-cols-4">
        <TextField
          label="Supplies, % of labour"
          className="figure"
          value={supplies}
          onChange={(e) => setSupplies(e.target.value)}
        />
        <TextField label="Tax, %" className="figure" value={tax} onChange={(e) => setTax(e.target.value)} />
        <fieldset className="flex flex-wrap gap-x-3">
          <legend className="caption">Tax falls on</legend>
          {(['labour', 'parts', 'supplies'] as const).map((part) => (
            <label key={part} className="flex min-h-11 items-center gap-1.5 text-14">
              <input
                type="checkbox"
                className="size-5 accent-pine"
                checked={on.includes(part)}
                onChange={(e) => setOn(e.target.checked ? [...on, part] : on.filter((p) => p !== part))}
              />
              {part}
            </label>
          ))}
        </fieldset>
        <TextField
          label="Currency"
          className="figure"
          maxLength={3}
          value={currency}
          onChange={(e) => setCurrency(e.target.value)}
        />
      </div>
      <p role="status" className="text-18">
        Total{' '}
        <span className="figure font-semibold">
          {read.success
            ? formatMoney(billTotals(read.data).totalMinor, read.data.currency)
            : 'when every line is whole'}
        </span>
      </p>
      {error && <Note tone="trouble">{error}</Note>}
      <div>
        <Button type="submit" weight="main">
          {button}
        </Button>
      </div>
    </form>
  );
}
