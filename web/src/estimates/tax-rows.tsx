import { Plus, X } from 'lucide-react';
import { useFieldArray, useFormContext } from 'react-hook-form';
import { z } from 'zod';
import { taxed, type Tax, type Taxed } from '@lanternwright/core/cost';
import { typedNumber } from '@lanternwright/core/quantity';
import { Button } from '../ui/button.tsx';
import { TextField } from '../ui/field.tsx';

/** Taxes as they are typed. */
export const typedTaxesSchema = z.array(
  z.object({ name: z.string(), percent: z.string(), on: z.array(z.enum(taxed)) }),
);
type TypedTaxes = z.output<typeof typedTaxesSchema>;

export const typedTaxes = (taxes: readonly Tax[]): TypedTaxes =>
  taxes.map(({ name, percent, on }) => ({ name, percent: String(percent), on: [...on] }));
export const readTaxes = (typed: TypedTaxes) =>
  typed.map((tax) => ({ ...tax, percent: typedNumber(tax.percent) }));

/** The taxes of a form that has `taxes`, a row each. @param errorOf what is wrong at a field, by its path */
export function TaxRows({ errorOf }: { errorOf: (path: string) => string | undefined }) {
  const { control, register } = useFormContext<{ taxes: TypedTaxes }>();
  const taxes = useFieldArray({ control, name: 'taxes' });
  return (
    <>
      <ul>
        {taxes.fields.map(({ id }, i) => (
          <li
            key={id}
            className="grid items-start gap-2 border-b border-rule py-2 sm:grid-cols-[160px_90px_1fr_auto]"
          >
            <TextField
              label="Tax"
              placeholder="VAT"
              maxLength={40}
              {...register(`taxes.${i}.name`)}
              error={errorOf(`taxes.${i}.name`)}
            />
            <TextField
              label="Tax, %"
              className="figure"
              inputMode="decimal"
              {...register(`taxes.${i}.percent`)}
              error={errorOf(`taxes.${i}.percent`)}
            />
            <fieldset className="flex flex-wrap gap-x-4">
              <legend className="caption">Tax falls on</legend>
              {taxed.map((kind: Taxed) => (
                <label key={kind} className="flex min-h-12 items-center gap-1.5 text-14">
                  <input
                    type="checkbox"
                    className="size-5 accent-pine"
                    value={kind}
                    {...register(`taxes.${i}.on`)}
                  />
                  {kind}
                </label>
              ))}
              {errorOf(`taxes.${i}.on`) && (
                <p className="w-full text-13 text-rust">{errorOf(`taxes.${i}.on`)}</p>
              )}
            </fieldset>
            <Button className="sm:mt-5" aria-label={`Remove tax ${i + 1}`} onClick={() => taxes.remove(i)}>
              <X size={16} aria-hidden />
            </Button>
          </li>
        ))}
      </ul>
      <Button className="self-start" onClick={() => taxes.append({ name: '', percent: '', on: [] })}>
        <Plus size={16} aria-hidden /> Add a tax
      </Button>
    </>
  );
}
