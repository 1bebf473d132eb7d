import { z } from 'zod';
import { parseQuantity, type ReaderUnits } from '@lanternwright/core/quantity';
import { problemFields } from '../api.ts';
import { optionalQuantity } from '../optional-quantity.ts';
import { Choices } from '../jobs/step-form-parts.tsx';
import { useReader } from '../shell/use-reader.ts';
import { eitherUnit, shopToday } from '../shell/words.ts';
import { Button } from '../ui/button.tsx';
import { TextField } from '../ui/field.tsx';
import { Note } from '../ui/problem-note.tsx';
import { useRequestForm } from '../use-request-form.ts';
import { useAddMeterMutation, useSwapMeterMutation } from './fleet-api.ts';
import { PanelForm } from './panel-form.tsx';

const day = z.string().min(1, 'Enter the date');
const distanceOf = (text: string, reader: ReaderUnits) => parseQuantity(text, ['km', 'mi'], reader.distance);
const hoursOf = (text: string) => parseQuantity(text, ['h'], 'h');

const readSchema = (reader: ReaderUnits) =>
  z
    .object({
      date: day,
      distance: optionalQuantity(['km', 'mi'], reader.distance),
      hours: optionalQuantity(['h'], 'h'),
    })
    .refine(({ distance, hours }) => distance !== null || hours !== null, {
      path: ['distance'],
      error: 'Enter one of the two meters',
    })
    .transform(({ date, distance, hours }) => ({
      date,
      ...(distance ? { distance } : {}),
      ...(hours ? { hours } : {}),
    }));

/** What a unit's meters read on a day. One that does not fit is asked about before it is taken. */
export function ReadForm({ unitId, onDone }: { unitId: string; onDone: () => void }) {
  const reader = useReader();
  const [add, { isLoading, error }] = useAddMeterMutation();
  const start = { date: '', distance: '', hours: '' };
  const { field, handleSubmit } = useRequestForm(readSchema(reader), start, error);
  const save = (sure: boolean) =>
    void handleSubmit(async (meter) => {
      const answer = await add({ id: unitId, sure, ...meter });
      if (!answer.error) onDone();
    })();
  const doubted = error !== undefined && Object.keys(problemFields(error)).some((f) => f !== 'date');
  return (
    <PanelForm
      {...{ error, isLoading, onDone }}
      button="Keep this reading"
      also={
        doubted && (
          <Button disabled={isLoading} onClick={() => save(true)}>
            I looked again: keep it as it is
          </Button>
        )
      }
      onSave={() => save(false)}
    >
      <TextField label="Day" type="date" max={shopToday()} {...field('date')} />
      <TextField
        label={`Odometer, optional, ${eitherUnit(reader, 'distance')}`}
        placeholder="611,240 km"
        {...field('distance')}
      />
      <TextField label="Hour meter, optional" placeholder="4,210 h" {...field('hours')} />
    </PanelForm>
  );
}

const meters = [
  ['distance', 'Odometer'],
  ['hours', 'Hour meter'],
] as const;
const reasons = [
  ['swapped', 'Another one was put in'],
  ['set-back', 'It was set back, or ran over'],
] as const;
const WHICH = 'Choose one, and enter a reason';

const swapSchema = (reader: ReaderUnits) =>
  z
    .object({
      of: z.enum(['distance', 'hours', '']),
      why: z.enum(['swapped', 'set-back', '']),
      date: z.string(),
      last: z.string(),
      first: z.string(),
    })
    .transform(({ of, why, date, last, first }, context) => {
      const valueOf = (text: string) => {
        const read = of === 'hours' ? hoursOf(text) : distanceOf(text, reader);
        if (!read.ok) return null;
        return of === 'hours' ? read.quantity.value : read.quantity.si / 1000;
      };
      const wrong = (path: string, message: string) =>
        context.addIssue({ code: 'custom', message, path: [path] });
      const [old, now] = [valueOf(last), valueOf(first)];
      if (of === '' || why === '') wrong('of', WHICH);
      if (date === '') wrong('date', 'Enter the date');
      if (old === null) wrong('last', 'Enter the last reading of the old meter');
      if (now === null) wrong('first', 'Enter the first reading of the new meter');
      if (of === '' || why === '' || date === '' || old === null || now === null) return z.NEVER;
      return { of, why, date, last: old, first: now };
    });

/** A meter was changed for another, or set back: distances count on across it. */
export function SwapForm({ unitId, onDone }: { unitId: string; onDone: () => void }) {
  const reader = useReader();
  const [swap, { isLoading, error }] = useSwapMeterMutation();
  const form = useRequestForm(swapSchema(reader), { of: '', why: '', date: '', last: '', first: '' }, error);
  const { errorOf, field, handleSubmit, setValue, watch } = form;
  const save = handleSubmit(async (swapped) => {
    const answer = await swap({ id: unitId, ...swapped });
    if (!answer.error) onDone();
  });
  return (
    <PanelForm
      {...{ error, isLoading, onDone }}
      button="Count on from the new one"
      onSave={() => void save()}
    >
      <Choices
        legend="Which meter"
        name="of"
        choices={meters}
        chosen={watch('of')}
        onChoose={(of) => setValue('of', of)}
      />
      <Choices
        legend="What happened"
        name="why"
        choices={reasons}
        chosen={watch('why')}
        onChoose={(why) => setValue('why', why)}
      />
      {errorOf('of') && <Note tone="trouble">{errorOf('of')}</Note>}
      <TextField label="Day" type="date" max={shopToday()} {...field('date')} />
      <TextField label="The old one read at its end" {...field('last')} />
      <TextField label="The new one began at" {...field('first')} />
    </PanelForm>
  );
}
