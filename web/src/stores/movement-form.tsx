import { useState } from 'react';
import { v4 as uuid } from 'uuid';
import { z } from 'zod';
import type { StorePart } from '@lanternwright/contract/stores';
import { LampForm } from '../lamp-form.tsx';
import { typedPrice } from './typed-price.ts';
import { useShop } from '../people/people-api.ts';
import { TextField } from '../ui/field.tsx';
import { useRequestForm } from '../use-request-form.ts';
import { useMovePartMutation } from './stores-api.ts';
import { wholeNumber } from './whole-number.ts';

/** What a storekeeper tells of a part, each with the fields it takes. */
export const keeperMoves = {
  received: { title: 'Receive', button: 'Put them on the shelf', fields: ['price', 'batch'] },
  counted: { title: 'Count', button: 'Record the count', fields: ['reason'] },
  moved: { title: 'Move', button: 'Move them', fields: ['to'] },
  lent: { title: 'Lend', button: 'Lend them', fields: ['who'] },
  'lent-back': { title: 'Came back', button: 'Put them back', fields: ['who'] },
  scrapped: { title: 'Scrap', button: 'Scrap them', fields: ['reason'] },
  'core-returned': { title: 'Return old ones', button: 'Record that they went back', fields: [] },
} as const satisfies Record<
  string,
  { title: string; button: string; fields: readonly ('price' | 'batch' | 'reason' | 'to' | 'who')[] }
>;
export type KeeperMove = keyof typeof keeperMoves;

const schemaFor = (what: KeeperMove, currency: string) =>
  z
    .object({
      ...{ quantity: z.string(), place: z.string(), to: z.string() },
      ...{ who: z.string(), reason: z.string(), price: z.string(), batch: z.string() },
    })
    .transform(({ quantity, price, ...words }, context) => {
      const wrong = (path: string, message: string) => {
        context.addIssue({ code: 'custom', message, path: [path] });
        return z.NEVER;
      };
      const n = wholeNumber(quantity);
      if (n === null) return wrong('quantity', 'A whole number');
      if (words.place.trim() === '') return wrong('place', 'Enter the place');
      const paid = typedPrice(price, currency);
      if (paid && !paid.ok) return wrong('price', paid.message);
      const told = Object.fromEntries(Object.entries(words).filter(([, text]) => text.trim() !== ''));
      return {
        ...{ what, quantity: n, ...told, place: words.place },
        ...(paid ? { price: paid.price } : {}),
      };
    });

/** One movement of a part in the store. Where there is one place alone, that is where it is. */
export function MovementForm({
  found,
  what,
  onDone,
}: {
  found: StorePart;
  what: KeeperMove;
  onDone: () => void;
}) {
  const currency = useShop()?.currency ?? 'USD';
  const [move, { isLoading, error }] = useMovePartMutation();
  // The same record, however often it is sent.
  const [recordId] = useState(() => uuid());
  const { title, button, fields } = keeperMoves[what];
  const start = {
    ...{ quantity: '', place: found.places.length === 1 ? found.places[0]!.place : '' },
    ...{ to: '', who: found.lent.length === 1 && what === 'lent-back' ? found.lent[0]!.who : '' },
    ...{ reason: '', price: '', batch: '' },
  };
  const { field, handleSubmit } = useRequestForm(schemaFor(what, currency), start, error);
  const has = (name: string) => (fields as readonly string[]).includes(name);
  const save = handleSubmit(async (movement) => {
    const { data } = await move({ id: found.part.id, recordId, movement });
    if (data) onDone();
  });
  return (
    <LampForm
      label={title}
      {...{ error, isLoading }}
      button={button}
      onSave={() => void save()}
      onCancel={onDone}
    >
      <div className="grid gap-3 sm:grid-cols-3">
        <TextField
          label={what === 'counted' ? 'Quantity on hand' : 'How many'}
          className="figure"
          inputMode="numeric"
          autoFocus
          {...field('quantity')}
        />
        <TextField
          label={what === 'moved' ? 'From' : 'Place'}
          placeholder="A3"
          maxLength={40}
          list="places"
          {...field('place')}
        />
        {has('to') && <TextField label="To" maxLength={40} {...field('to')} />}
        {has('who') && <TextField label="Who has them" maxLength={80} {...field('who')} />}
        {has('price') && (
          <TextField label={`Paid for one, optional, ${currency}`} className="figure" {...field('price')} />
        )}
        {has('batch') && <TextField label="Batch on it, optional" maxLength={40} {...field('batch')} />}
        {has('reason') && (
          <TextField
            label={what === 'counted' ? 'Why it is otherwise, where it is' : 'Why'}
            maxLength={200}
            {...field('reason')}
          />
        )}
      </div>
      <datalist id="places">
        {found.places.map(({ place }) => (
          <option key={place} value={place} />
        ))}
      </datalist>
    </LampForm>
  );
}
