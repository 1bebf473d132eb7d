import { useSearchParams } from 'react-router';
import { z } from 'zod';
import type { MeasuredQuery } from '@lanternwright/contract/stores';
import { measuredIds, type LipFacing, type PartKind } from '@lanternwright/core/part';
import { formatTyped, quantity, valueIn } from '@lanternwright/core/quantity';
import { optionalQuantity } from '../optional-quantity.ts';
import { useReader } from '../shell/use-reader.ts';
import { Button } from '../ui/button.tsx';
import { TextField } from '../ui/field.tsx';
import { useRequestForm } from '../use-request-form.ts';
import { LipFields, PartKindField } from './part-choices.tsx';

const schemaFor = (assumed: 'mm' | 'in') => {
  const size = optionalQuantity(['mm', 'in'], assumed);
  return z
    .object({
      kind: z.string(),
      bore: size,
      outside: size,
      width: size,
      lips: z.string(),
      facing: z.string(),
      tolerance: size,
    })
    .refine((typed) => measuredIds.some((what) => typed[what] !== null), {
      path: ['bore'],
      error: 'Measure one of them at the least',
    })
    .refine(({ lips, facing }) => (lips === '') === (facing === ''), {
      path: ['facing'],
      error: 'Enter the number of lips, and which way the main one faces',
    });
};

/** What was measured, as it stands in the address; null where nothing is. */
export function measuredIn(params: URLSearchParams): MeasuredQuery | null {
  const number = (name: string) => (params.get(name) ? Number(params.get(name)) : undefined);
  const [bore, outside, width] = [number('bore'), number('outside'), number('width')];
  if (bore === undefined && outside === undefined && width === undefined) return null;
  return {
    kind: (params.get('kind') as PartKind | null) ?? undefined,
    ...{ bore, outside, width, lips: number('lips') },
    facing: (params.get('facing') as LipFacing | null) ?? undefined,
    tolerance: number('tolerance') ?? 0.3,
  };
}

/** What a caliper reads of an old part. */
export function MeasureForm() {
  const reader = useReader();
  const [params, setParams] = useSearchParams();
  const unit = reader.thickness;
  const typed = (name: string) => {
    const mm = params.get(name);
    return mm
      ? formatTyped(quantity(Number(valueIn(quantity(Number(mm), 'mm'), unit).toFixed(3)), unit))
      : '';
  };
  const start = {
    ...{
      kind: params.get('kind') ?? '',
      bore: typed('bore'),
      outside: typed('outside'),
      width: typed('width'),
    },
    ...{ lips: params.get('lips') ?? '', facing: params.get('facing') ?? '', tolerance: typed('tolerance') },
  };
  const { field, handleSubmit, watch } = useRequestForm(schemaFor(unit), start, null);
  const kind = watch('kind');
  const find = handleSubmit((measured) => {
    const next = new URLSearchParams({ by: 'measure' });
    for (const name of [...measuredIds, 'tolerance'] as const) {
      const size = measured[name];
      if (size) next.set(name, String(Number((size.si * 1000).toFixed(4))));
    }
    for (const name of ['kind', 'lips', 'facing'] as const)
      if (measured[name]) next.set(name, measured[name]);
    setParams(next);
  });
  return (
    <form className="flex flex-col gap-3" onSubmit={(e) => void find(e)}>
      <div className="grid gap-3 sm:grid-cols-4">
        <PartKindField none="Any part" {...field('kind')} />
        <TextField label={`Bore, ${unit}`} className="figure" inputMode="decimal" {...field('bore')} />
        <TextField label={`Outside, ${unit}`} className="figure" inputMode="decimal" {...field('outside')} />
        <TextField label={`Width, ${unit}`} className="figure" inputMode="decimal" {...field('width')} />
        <TextField
          label="May differ by, optional"
          className="figure"
          placeholder={unit === 'mm' ? '0.3 mm' : '0.012 in'}
          {...field('tolerance')}
        />
        {(kind === 'seal' || start.lips !== '') && (
          <LipFields none="Not looked at" lips={field('lips')} facing={field('facing')} />
        )}
      </div>
      <div>
        <Button type="submit" weight="main">
          Find what fits
        </Button>
      </div>
    </form>
  );
}
