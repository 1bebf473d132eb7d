import { FormProvider, type Path } from 'react-hook-form';
import { z } from 'zod';
import type { ShopRates } from '@lanternwright/contract/estimates';
import { toMinor, typedMoney } from '@lanternwright/core/cost';
import { parseNumber } from '@lanternwright/core/quantity';
import { problemText } from '../api.ts';
import { FormProblem } from '../form-problem.tsx';
import { useShop } from '../people/people-api.ts';
import { Button } from '../ui/button.tsx';
import { TextField } from '../ui/field.tsx';
import { Note } from '../ui/problem-note.tsx';
import { useRequestForm } from '../use-request-form.ts';
import { useChangeRatesMutation, useRatesQuery } from './estimates-api.ts';
import { readTaxes, TaxRows, typedTaxes, typedTaxesSchema } from './tax-rows.tsx';

const typedSchema = z.object({
  hour: z.string(),
  supplies: z.string(),
  taxNumber: z.string(),
  validDays: z.string(),
  taxes: typedTaxesSchema,
});

type Typed = z.output<typeof typedSchema>;

/** From what is typed to what is asked, in a currency. */
const formSchema = (currency: string) =>
  typedSchema.transform(({ hour, supplies, taxNumber, validDays, taxes }, context): ShopRates => {
    const figure = (text: string, path: string, kind?: 'money') => {
      const read = parseNumber(text, kind);
      if (read.ok) return read.value;
      context.addIssue({ code: 'custom', message: read.message, path: [path] });
      return NaN;
    };
    return {
      hour: hour.trim() === '' ? null : { currency, minor: toMinor(figure(hour, 'hour', 'money'), currency) },
      suppliesPercent: supplies.trim() === '' ? 0 : figure(supplies, 'supplies'),
      taxes: readTaxes(taxes),
      taxNumber,
      validDays: validDays.trim() === '' ? null : figure(validDays, 'validDays'),
    };
  });

const paths = { suppliesPercent: 'supplies', 'hour.minor': 'hour' } as const;

function RatesForm({ start, currency }: { start: ShopRates; currency: string }) {
  const [save, { error, isLoading, isSuccess }] = useChangeRatesMutation();
  const { hour, suppliesPercent, taxes, taxNumber, validDays } = start;
  const typed = {
    hour: hour?.currency === currency ? typedMoney(hour.minor, currency) : '',
    supplies: String(suppliesPercent),
    ...{ taxNumber, validDays: validDays === null ? '' : String(validDays), taxes: typedTaxes(taxes) },
  };
  const form = useRequestForm(formSchema(currency), typed, error, paths);
  const { errorOf, field, handleSubmit } = form;
  return (
    <FormProvider {...form}>
      <form
        className="flex flex-col gap-3"
        onSubmit={(e) => void handleSubmit((r) => save({ ...r, seen: start }))(e)}
      >
        <div className="grid items-start gap-4 md:grid-cols-2">
          <TextField
            label={`An hour of labour, ${currency}`}
            className="figure"
            inputMode="decimal"
            hint="Before tax. Without it estimates leave labour open."
            {...field('hour')}
          />
          <TextField
            label="Supplies, % of labour"
            className="figure"
            inputMode="decimal"
            hint="Cleaner, rags, small items."
            {...field('supplies')}
          />
          <TextField
            label="An estimate is valid for, days"
            className="figure"
            inputMode="numeric"
            hint="Leave empty to print no date."
            {...field('validDays')}
          />
          <TextField
            label="Tax number of the shop"
            hint="Printed on estimates and bills."
            maxLength={40}
            {...field('taxNumber')}
          />
        </div>
        <TaxRows errorOf={(path) => errorOf(path as Path<Typed>)} />
        <FormProblem error={error} />
        {isSuccess && !error && <Note tone="good">Saved.</Note>}
        <div>
          <Button type="submit" disabled={isLoading}>
            Save the rates
          </Button>
        </div>
      </form>
    </FormProvider>
  );
}

/** What the shop charges: estimates begin with it. */
export function RatesSection() {
  const { data, error } = useRatesQuery();
  const currency = useShop()?.currency;
  return (
    <section aria-label="Rates" className="flex flex-col gap-3 border-t border-rule pt-5">
      <h2 className="text-18 font-semibold">Rates</h2>
      <p className="max-w-[70ch] text-14">
        Estimates start with these rates, the planned hours of each work, and the prices of the parts in
        Stores. You can change every line before you save an estimate.
      </p>
      {error && <Note tone="trouble">{problemText(error)}</Note>}
      {data && currency && <RatesForm key={currency} start={data} currency={currency} />}
    </section>
  );
}
