import { Plus, X } from 'lucide-react';
import { FormProvider, useFieldArray, type Path } from 'react-hook-form';
import { useState } from 'react';
import { z } from 'zod';
import {
  billSchema,
  billTotals,
  formatMoney,
  toMinor,
  typedMoney,
  type Bill,
} from '@lanternwright/core/cost';
import { parseNumber, typedNumber } from '@lanternwright/core/quantity';
import { Button } from '../ui/button.tsx';
import { SelectField, TextField } from '../ui/field.tsx';
import { Note } from '../ui/problem-note.tsx';
import { readTaxes, TaxRows, typedTaxes, typedTaxesSchema } from '../estimates/tax-rows.tsx';
import { useRequestForm } from '../use-request-form.ts';

const lineSchema = z.object({
  group: z.enum(['labour', 'parts']),
  what: z.string(),
  per: z.enum(['hour', 'wheel', 'piece']),
  quantity: z.string(),
  price: z.string(),
  /** What the line is for; not typed. */
  at: billSchema.in.shape.lines.element.shape.at,
});
const typedSchema = z.object({
  currency: z.string(),
  lines: z.array(lineSchema),
  supplies: z.string(),
  taxes: typedTaxesSchema,
});
type Typed = z.output<typeof typedSchema>;

function typedOf({ currency, lines, suppliesPercent, taxes }: Bill, priced: boolean): Typed {
  return {
    currency,
    lines: lines.map(({ quantity, unitMinor, ...line }) => ({
      ...line,
      quantity: String(quantity),
      price: priced || unitMinor > 0 ? typedMoney(unitMinor, currency) : '',
    })),
    supplies: String(suppliesPercent),
    taxes: typedTaxes(taxes),
  };
}

/** The field in which a part of the bill is typed. */
const fieldNames: Record<string, string> = { unitMinor: 'price', suppliesPercent: 'supplies' };

const words = ({ code, path, message }: z.core.$ZodIssue) =>
  code === 'invalid_type'
    ? 'A number'
    : path.at(-1) === 'what'
      ? 'Enter what it is'
      : message.charAt(0).toUpperCase() + message.slice(1);

/** From what is typed to the bill, with what is wrong at the field it is typed in. */
const formSchema = typedSchema.transform((typed, context): Bill => {
  const currency = typed.currency.trim().toUpperCase();
  const known = /^[A-Z]{3}$/.test(currency);
  typed.lines.forEach(({ price }, i) => {
    const read = parseNumber(price, 'money');
    if (!read.ok && price.trim() !== '')
      context.addIssue({ code: 'custom', message: read.message, path: ['lines', i, 'price'] });
  });
  const read = billSchema.safeParse({
    currency,
    lines: typed.lines.map(({ price, quantity, ...line }) => ({
      ...line,
      quantity: typedNumber(quantity),
      unitMinor: known ? toMinor(typedNumber(price, 'money'), currency) : 0,
    })),
    suppliesPercent: typedNumber(typed.supplies),
    taxes: readTaxes(typed.taxes),
  });
  if (read.success) return read.data;
  for (const issue of read.error.issues)
    context.addIssue({
      code: 'custom',
      message: words(issue),
      path: issue.path.map((part) => fieldNames[String(part)] ?? (part as string | number)),
    });
  return z.NEVER;
});

interface Props {
  start: Bill;
  /** Whether its prices were written by somebody; they are asked for otherwise. */
  priced: boolean;
  button: string;
  onSave: (bill: Bill) => string | null;
}

const newLine = { group: 'parts', what: '', per: 'piece', quantity: '1', price: '' } as const;

/** Lines, supplies and taxes, with the total as one types. */
export function BillForm({ start, priced, button, onSave }: Props) {
  const form = useRequestForm(formSchema, typedOf(start, priced), null);
  const { control, errorOf, field, handleSubmit, watch } = form;
  const lines = useFieldArray({ control, name: 'lines' });
  const [refused, setRefused] = useState<string | null>(null);
  const read = formSchema.safeParse(watch());
  return (
    <FormProvider {...form}>
      <form
        className="flex flex-col gap-3"
        onSubmit={(e) => void handleSubmit((b) => setRefused(onSave(b)))(e)}
      >
        <ul>
          {lines.fields.map(({ id, at }, i) => (
            <li
              key={id}
              className="grid items-start gap-2 border-b border-rule py-2 sm:grid-cols-[100px_1fr_96px_76px_104px_auto]"
            >
              <SelectField label="Kind" {...field(`lines.${i}.group`)}>
                <option value="labour">Labour</option>
                <option value="parts">Parts</option>
              </SelectField>
              <TextField label={at ? `What, ${at.position}` : 'What'} {...field(`lines.${i}.what`)} />
              <SelectField label="Per" {...field(`lines.${i}.per`)}>
                <option value="hour">Hour</option>
                <option value="wheel">Wheel</option>
                <option value="piece">Piece</option>
              </SelectField>
              <TextField
                label="How many"
                className="figure"
                inputMode="decimal"
                {...field(`lines.${i}.quantity`)}
              />
              <TextField label="Each" className="figure" inputMode="decimal" {...field(`lines.${i}.price`)} />
              <Button className="sm:mt-5" aria-label={`Remove line ${i + 1}`} onClick={() => lines.remove(i)}>
                <X size={16} aria-hidden />
              </Button>
            </li>
          ))}
        </ul>
        {errorOf('lines') && <Note tone="trouble">{errorOf('lines')}.</Note>}
        <Button className="self-start" onClick={() => lines.append({ ...newLine })}>
          <Plus size={16} aria-hidden /> Add a line
        </Button>
        <div className="grid items-start gap-3 sm:grid-cols-4">
          <TextField label="Supplies, % of labour" className="figure" {...field('supplies')} />
          <TextField label="Currency" className="figure" maxLength={3} {...field('currency')} />
        </div>
        <TaxRows errorOf={(path) => errorOf(path as Path<Typed>)} />
        <p role="status" className="text-18">
          {read.success ? (
            <>
              Total{' '}
              <span className="figure font-semibold">
                {formatMoney(billTotals(read.data).totalMinor, read.data.currency)}
              </span>
            </>
          ) : (
            'Enter a price on every line to see the total.'
          )}
        </p>
        {refused && <Note tone="trouble">{refused}</Note>}
        <div>
          <Button type="submit" weight="main">
            {button}
          </Button>
        </div>
      </form>
    </FormProvider>
  );
}
