import { Plus, X } from 'lucide-react';
import { useFieldArray } from 'react-hook-form';
import { useNavigate } from 'react-router';
import { v4 as uuid } from 'uuid';
import { useState } from 'react';
import { z } from 'zod';
import type { StorePart } from '@lanternwright/contract/stores';
import { typedMoney } from '@lanternwright/core/cost';
import { thickenerIds, thickeners } from '@lanternwright/core/lubricant';
import {
  measures,
  partKinds,
  partSchema,
  type Measured,
  type Part,
  type PartKind,
  type Price,
} from '@lanternwright/core/part';
import { formatTyped } from '@lanternwright/core/quantity';
import { partLines } from '@lanternwright/core/route';
import { LampForm } from '../lamp-form.tsx';
import { typedPrice } from './typed-price.ts';
import { useNewestSheets } from '../sheets/sheets-api.ts';
import { optionalQuantity } from '../optional-quantity.ts';
import { useShop } from '../people/people-api.ts';
import { useReader } from '../shell/use-reader.ts';
import { Button } from '../ui/button.tsx';
import { SelectField, TextField } from '../ui/field.tsx';
import { useRequestForm } from '../use-request-form.ts';
import { LipFields, PartKindField } from './part-choices.tsx';
import { wholeNumber } from './whole-number.ts';
import { useSavePartMutation } from './stores-api.ts';
import { useExactParts } from './use-exact-parts.ts';

const fitSchema = z.object({
  sheetId: z.string().min(1, 'Choose the sheet'),
  line: z.string().min(1, 'Choose what it is there'),
});
const counted = (most: number) =>
  z.string().transform((text, context) => {
    if (text.trim() === '') return null;
    const n = wholeNumber(text, most);
    if (n !== null) return n;
    context.addIssue({ code: 'custom', message: `A whole number up to ${most}` });
    return z.NEVER;
  });

const schemaFor = (
  id: string,
  currency: string,
  /** The one part of a number in the store. */
  find: (number: string) => Promise<string | null>,
  assumed: 'mm' | 'in',
) => {
  const size = optionalQuantity(['mm', 'in'], assumed);
  const price = z.string().transform((text, context): Price | null => {
    const read = typedPrice(text, currency);
    if (!read || read.ok) return read && read.price;
    context.addIssue({ code: 'custom', message: read.message });
    return z.NEVER;
  });
  return z
    .object({
      kind: z.string(),
      number: z.string(),
      title: z.string(),
      crossings: z.array(z.object({ number: z.string() })),
      fits: z.array(fitSchema),
      ...{ bore: size, outside: size, width: size, lips: z.string(), facing: z.string() },
      ...{ thickener: z.string(), category: z.string() },
      supersededBy: z.string().transform(async (number, context) => {
        const successor = number.trim() === '' ? null : await find(number.trim());
        if (successor === null && number.trim() !== '')
          context.addIssue({ code: 'custom', message: 'No part of the store has this number' });
        return successor;
      }),
      ...{ price, core: price, supplier: z.string(), leadDays: counted(400), reorderLevel: counted(10_000) },
    })
    .transform((typed, context): Part => {
      const { kind, number, title, crossings, fits, lips, facing, bore, outside, width, ...more } = typed;
      const { thickener, category, ...rest } = more;
      const grease = kind === 'lubricant';
      const dims = Object.fromEntries(Object.entries({ bore, outside, width }).filter(([, q]) => q !== null));
      const read = partSchema.safeParse({
        ...{ id, kind: kind || undefined, number, title, dims, ...rest },
        crossings: crossings.map((c) => c.number).filter((c) => c.trim() !== ''),
        lips: kind === 'seal' && lips !== '' ? { count: Number(lips), facing: facing || undefined } : null,
        ...(grease && thickener ? { thickener } : {}),
        ...(grease && category.trim() ? { category } : {}),
        fits,
      });
      if (read.success) return read.data;
      for (const { path, message } of read.error.issues)
        context.addIssue({ code: 'custom', message: wordsFor(path, message), path: fieldAt(path) });
      return z.NEVER;
    });
};

/** What the schema of a part calls a field, and the field that it is typed in. */
function fieldAt(path: readonly PropertyKey[]): PropertyKey[] {
  const [first, second] = path;
  if (first === 'dims') return [second ?? 'bore'];
  if (first === 'lips') return [second === 'facing' ? 'facing' : 'lips'];
  return first === 'crossings' ? ['crossings', second ?? 0, 'number'] : [first ?? 'number'];
}
const wordsFor = ([first]: readonly PropertyKey[], message: string): string =>
  first === 'kind' ? 'Choose what it is' : message.charAt(0).toUpperCase() + message.slice(1);

/** Adds a part, or changes one. */
export function PartForm({ part: found, onDone }: { part: StorePart | null; onDone: () => void }) {
  const reader = useReader();
  const shopCurrency = useShop()?.currency ?? 'USD';
  const navigate = useNavigate();
  const [save, { isLoading, error }] = useSavePartMutation();
  const part = found?.part ?? null;
  const currency = part?.price?.currency ?? shopCurrency;
  const money = (price: Price | null | undefined) => (price ? typedMoney(price.minor, price.currency) : '');
  const size = (what: Measured) => (part?.dims[what] ? formatTyped(part.dims[what]) : '');
  const start = {
    ...{ kind: part?.kind ?? '', number: part?.number ?? '', title: part?.title ?? '' },
    crossings: (part?.crossings ?? []).map((number) => ({ number })),
    fits: part?.fits ?? [],
    ...{ bore: size('bore'), outside: size('outside'), width: size('width') },
    ...{ lips: part?.lips ? String(part.lips.count) : '', facing: part?.lips?.facing ?? '' },
    ...{ thickener: part?.thickener ?? '', category: part?.category ?? '' },
    supersededBy: found?.supersededBy?.number ?? '',
    ...{ price: money(part?.price), core: money(part?.core), supplier: part?.supplier ?? '' },
    ...{ leadDays: part?.leadDays?.toString() ?? '', reorderLevel: part?.reorderLevel?.toString() ?? '' },
  };
  // The same part, however often it is sent.
  const [id] = useState(() => part?.id ?? uuid());
  const exactParts = useExactParts();
  const find = async (number: string) => {
    const same = await exactParts(number);
    return same.length === 1 ? same[0]!.id : null;
  };
  const form = useRequestForm(schemaFor(id, currency, find, reader.thickness), start, error, {
    'part.number': 'number',
    'part.title': 'title',
    'part.supersededBy': 'supersededBy',
  });
  const { control, errorOf, field, handleSubmit, register, watch } = form;
  const crossings = useFieldArray({ control, name: 'crossings' });
  const fits = useFieldArray({ control, name: 'fits' });
  const sheets = useNewestSheets();
  const kind = watch('kind') as PartKind | '';
  const measured: readonly Measured[] = kind ? partKinds[kind].measured : [];
  const keep = handleSubmit(async (asked) => {
    const { data } = await save({ seenVersion: found?.version ?? 0, part: asked });
    if (!data) return;
    onDone();
    if (!found) void navigate(`/stores/${data.part.id}`);
  });
  return (
    <LampForm
      {...{ error, isLoading }}
      button={part ? `Save ${part.number}` : 'Put it on the list'}
      onSave={() => void keep()}
      onCancel={onDone}
    >
      <h2 className="text-18">{part ? `Change ${part.number}` : 'Add a part'}</h2>
      <div className="grid gap-3 sm:grid-cols-3">
        <PartKindField none="Choose" {...field('kind')} />
        <TextField label="Number" className="figure" maxLength={40} {...field('number')} />
        <TextField
          label="In words"
          placeholder="Hub seal of the drive axle"
          maxLength={120}
          {...field('title')}
        />
        {measured.map((what) => (
          <TextField
            key={what}
            label={`${measures[what]}, optional, ${reader.thickness}`}
            className="figure"
            {...field(what)}
          />
        ))}
        {kind === 'lubricant' && (
          <>
            <SelectField label="Thickened with, optional" {...field('thickener')}>
              <option value="">Unknown, or an oil</option>
              {thickenerIds.map((of) => (
                <option key={of} value={of}>
                  {thickeners[of]}
                </option>
              ))}
            </SelectField>
            <TextField label="Category, optional" placeholder="GC-LB" maxLength={40} {...field('category')} />
          </>
        )}
        {kind === 'seal' && <LipFields none="Unknown" lips={field('lips')} facing={field('facing')} />}
      </div>
      <fieldset className="flex flex-col gap-2">
        <legend className="caption pb-1">Other numbers it is sold under, optional</legend>
        {crossings.fields.map(({ id: row }, i) => (
          <div key={row} className="flex items-start gap-2">
            <div className="w-full max-w-72">
              <TextField
                label={`Number ${i + 1}`}
                className="figure"
                error={errorOf(`crossings.${i}.number`)}
                {...register(`crossings.${i}.number`)}
              />
            </div>
            <Button
              className="mt-5"
              aria-label={`Remove number ${i + 1}`}
              onClick={() => crossings.remove(i)}
            >
              <X size={18} aria-hidden />
            </Button>
          </div>
        ))}
        <div>
          <Button onClick={() => crossings.append({ number: '' })}>
            <Plus size={18} aria-hidden /> Add a number
          </Button>
        </div>
      </fieldset>
      <fieldset className="flex flex-col gap-2">
        <legend className="caption pb-1">Where it fits, optional</legend>
        {fits.fields.map(({ id: row }, i) => (
          <div key={row} className="grid items-start gap-2 sm:grid-cols-[1fr_1fr_auto]">
            <SelectField label={`Sheet ${i + 1}`} {...field(`fits.${i}.sheetId`)}>
              <option value="">Choose</option>
              {sheets.map((sheet) => (
                <option key={sheet.sheetId} value={sheet.sheetId}>
                  {sheet.title}
                </option>
              ))}
            </SelectField>
            <SelectField label={`As ${i + 1}`} {...field(`fits.${i}.line`)}>
              <option value="">Choose</option>
              {Object.entries(partLines).map(([line, title]) => (
                <option key={line} value={line}>
                  {title}
                </option>
              ))}
            </SelectField>
            <Button className="sm:mt-5" aria-label={`Remove fit ${i + 1}`} onClick={() => fits.remove(i)}>
              <X size={18} aria-hidden />
            </Button>
          </div>
        ))}
        <div>
          <Button onClick={() => fits.append({ sheetId: '', line: '' })}>
            <Plus size={18} aria-hidden /> Add where it fits
          </Button>
        </div>
      </fieldset>
      <div className="grid gap-3 sm:grid-cols-3">
        <TextField label={`Price of one, optional, ${currency}`} className="figure" {...field('price')} />
        <TextField
          label={`For the old one back, optional, ${currency}`}
          className="figure"
          {...field('core')}
        />
        <TextField label="Supplier, optional" maxLength={80} {...field('supplier')} />
        <TextField
          label="Days from order to shelf, optional"
          className="figure"
          inputMode="numeric"
          {...field('leadDays')}
        />
        <TextField
          label="Order again when so many are free, optional"
          className="figure"
          inputMode="numeric"
          {...field('reorderLevel')}
        />
        {part && (
          <TextField
            label="Replaced by the part of this number, optional"
            className="figure"
            maxLength={40}
            {...field('supersededBy')}
          />
        )}
      </div>
    </LampForm>
  );
}
