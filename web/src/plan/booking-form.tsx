import { Dialog, DialogPanel, DialogTitle } from '@headlessui/react';
import { useState } from 'react';
import { Link } from 'react-router';
import { z } from 'zod';
import type { Booked } from '@lanternwright/contract/plan';
import { problemText } from '../api.ts';
import { FormProblem } from '../form-problem.tsx';
import { jobLink } from '../jobs/job-link.ts';
import { useMay, useShop } from '../people/people-api.ts';
import { ReasonForm } from '../reason-form.tsx';
import { dayAndTime, momentOf } from '../shell/words.ts';
import { Button, buttonLook } from '../ui/button.tsx';
import { SelectField, TextField } from '../ui/field.tsx';
import { useRequestForm } from '../use-request-form.ts';
import {
  useBookMutation,
  useCancelBookingMutation,
  useMoveBookingMutation,
  useSayWhereMutation,
} from './plan-api.ts';

/** What is booked: a unit for a job or none yet, or a booking that is moved. */
export interface Wanted {
  unit: { id: string; name: string };
  jobId: string | null;
  bayId?: string;
  /** What is to be done, where somebody said. */
  works?: Booked['works'];
  /** Where it is moved from. */
  booked?: Booked;
}

interface Props {
  wanted: Wanted;
  people: readonly { id: string; name: string }[];
  onClose: () => void;
}

const chip = (on: boolean) =>
  `flex min-h-12 cursor-pointer items-center rounded-md border px-3 text-14 has-focus-visible:outline-2 ${on ? 'border-lamp-edge bg-lamp font-semibold' : 'border-edge bg-panel'}`;

/** That it is here was said of the wrong unit, or comes before its hour. */
function WhereItIs({ booked, onDone }: { booked: Booked; onDone: () => void }) {
  const [sayWhere, { isLoading, error }] = useSayWhereMutation();
  const what = booked.cameAt === null ? 'come' : 'not-here';
  return (
    <>
      <Button
        weight="quiet"
        className="self-start"
        disabled={isLoading}
        onClick={() =>
          void sayWhere({ id: booked.id, seenVersion: booked.version, what }).then(
            (answer) => !answer.error && onDone(),
          )
        }
      >
        {what === 'come' ? 'It is here' : 'It is not here after all'}
      </Button>
      <FormProblem error={error} />
    </>
  );
}

/** A booking is taken back with why; nothing of it goes from the record. */
function TakeBack({ booked, onDone }: { booked: Booked; onDone: () => void }) {
  const [asked, setAsked] = useState(false);
  const [cancel] = useCancelBookingMutation();
  if (!asked)
    return (
      <Button weight="quiet" className="self-start" onClick={() => setAsked(true)}>
        It is not wanted any more
      </Button>
    );
  return (
    <div className="border-t border-rule pt-3">
      <ReasonForm
        label="Why"
        button={`Take the booking of ${booked.unit.name} back`}
        onCancel={() => setAsked(false)}
        onSave={async (reason) => {
          const { error } = await cancel({ id: booked.id, seenVersion: booked.version, reason });
          if (error) return problemText(error);
          onDone();
          return null;
        }}
      />
    </div>
  );
}

const bookingSchema = z
  .object({
    bayId: z.string().min(1, 'Choose a bay'),
    people: z.array(z.string()),
    from: z.string().min(1, 'Enter the date'),
    fromTime: z.string().min(1, 'Enter the time'),
    until: z.string().min(1, 'Enter the date'),
    untilTime: z.string().min(1, 'Enter the time'),
  })
  .transform(({ bayId, people, from, fromTime, until, untilTime }) => ({
    ...{ bayId, people },
    from: momentOf(from, fromTime),
    until: momentOf(until, untilTime),
  }));

/** What a booking that is moved has; nothing of a new one but the bay it was begun from. */
function startOf({ bayId, booked }: Wanted): z.input<typeof bookingSchema> {
  const [from, until] = booked
    ? [dayAndTime(booked.from), dayAndTime(booked.until)]
    : [
        { day: '', time: '' },
        { day: '', time: '' },
      ];
  return {
    bayId: bayId ?? booked?.bayId ?? '',
    people: booked?.people ?? [],
    ...{ from: from.day, fromTime: from.time, until: until.day, untilTime: until.time },
  };
}

/** Which bay, who, from when to when. What is in the way is said in words, and what was typed stays. */
export function BookingForm({ wanted, people, onClose }: Props) {
  const { booked } = wanted;
  const able = useMay();
  const bays = useShop()?.bays ?? [];
  const [book, booking] = useBookMutation();
  const [move, moving] = useMoveBookingMutation();
  const error = booking.error ?? moving.error;
  const form = useRequestForm(bookingSchema, startOf(wanted), error, { unitId: 'bayId' });
  const { errorOf, field, getValues, handleSubmit, register, setValue, watch } = form;
  const save = handleSubmit(async (to) => {
    const placed = { tools: booked?.tools ?? [], ...to };
    const answer = booked
      ? await move({ id: booked.id, seenVersion: booked.version, ...placed })
      : await book({
          unitId: wanted.unit.id,
          jobId: wanted.jobId,
          works: [...(wanted.works ?? [])],
          ...placed,
        });
    if (!answer.error) onClose();
  });
  const chosen = watch('people');
  return (
    <Dialog open onClose={onClose} className="relative z-20">
      <div className="fixed inset-0 bg-ink/40" aria-hidden />
      <div className="fixed inset-0 overflow-y-auto p-4">
        <DialogPanel className="mx-auto flex max-w-[560px] flex-col gap-4 rounded-lg border border-edge bg-paper p-5">
          <DialogTitle className="text-18">
            {booked ? `Move ${wanted.unit.name}` : `Book a bay for ${wanted.unit.name}`}
          </DialogTitle>
          <form className="flex flex-col gap-4" onSubmit={(e) => void save(e)}>
            <SelectField label="Bay" {...field('bayId')}>
              <option value="">Choose</option>
              {bays.map((b) => (
                <option key={b.id} value={b.id}>
                  {b.name}
                </option>
              ))}
            </SelectField>
            <div className="grid grid-cols-2 items-start gap-2">
              <TextField
                label="From, day"
                type="date"
                {...field('from')}
                onBlur={() => {
                  // Most leave on the day they came.
                  if (getValues('until') === '') setValue('until', getValues('from'));
                }}
              />
              <TextField label="From, time" type="time" {...field('fromTime')} />
              <TextField label="Until, day" type="date" {...field('until')} />
              <TextField label="Until, time" type="time" {...field('untilTime')} />
            </div>
            <fieldset className="flex flex-col gap-1">
              <legend className="caption">Who works on it, optional</legend>
              <div className="flex flex-wrap gap-2">
                {people.map((p) => (
                  <label key={p.id} className={chip(chosen.includes(p.id))}>
                    <input type="checkbox" className="sr-only" value={p.id} {...register('people')} />
                    {p.name}
                  </label>
                ))}
              </div>
              {errorOf('people') && <p className="text-13 text-rust">{errorOf('people')}</p>}
            </fieldset>
            <FormProblem error={error} />
            <div className="flex flex-wrap gap-2">
              <Button type="submit" weight="main" disabled={booking.isLoading || moving.isLoading}>
                {booked ? 'Move it' : `Book ${wanted.unit.name}`}
              </Button>
              <Button onClick={onClose}>Cancel</Button>
            </div>
          </form>
          {booked?.jobId === null && able('open-jobs') && (
            <Link
              to={jobLink(booked.unitId, booked.works, booked.id)}
              className={`${buttonLook('plain')} self-start`}
            >
              Open the job
            </Link>
          )}
          {booked && <WhereItIs booked={booked} onDone={onClose} />}
          {booked && <TakeBack booked={booked} onDone={onClose} />}
        </DialogPanel>
      </div>
    </Dialog>
  );
}
