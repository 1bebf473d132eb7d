import { useState } from 'react';
import { z } from 'zod';
import { describeOff } from '@lanternwright/core/traveller';
import { Button } from '../ui/button.tsx';
import { TextField } from '../ui/field.tsx';
import { Note } from '../ui/problem-note.tsx';
import { Choices } from './step-form-parts.tsx';
import { useRequestForm } from '../use-request-form.ts';
import type { OpenJob } from './use-job.ts';

type Leaves = z.output<typeof leavesSchema>;
const leavesSchema = z.enum(['stays', 'on-a-bed', 'axle-lifted']);
const ways: readonly (readonly [Leaves, string])[] = [
  ['stays', 'The unit stays'],
  ['on-a-bed', 'Leaves on a bed'],
  ['axle-lifted', 'Leaves with that axle lifted'],
];

const INCOMPLETE = 'Enter the reason, how it leaves, and who was informed';
const formSchema = z.object({
  reason: z.string().trim().min(1, INCOMPLETE),
  told: z.string().trim().min(1, INCOMPLETE),
  leaves: z
    .union([leavesSchema, z.literal('')])
    .refine((leaves): leaves is Leaves => leaves !== '', INCOMPLETE),
});

/** Ends a job without a release: the honest way out when something on the never-list cannot be had. */
export function OutOfService({ open }: { open: OpenJob }) {
  const [asked, setAsked] = useState(false);
  const form = useRequestForm(formSchema, { reason: '', told: '', leaves: '' }, null);
  const { formState, handleSubmit, register, setError, setValue, watch } = form;
  if (!asked)
    return (
      <Button weight="quiet" onClick={() => setAsked(true)}>
        End out of service
      </Button>
    );
  const off = open.job.wheelEnds.filter((w) => !w.release).map(describeOff);
  const save = handleSubmit((said) => {
    const refused = open.send({ kind: 'ended-out-of-service', ...said, leaves: said.leaves });
    if (refused) setError('root', { message: refused });
  });
  const { errors } = formState;
  const error = errors.root ?? errors.reason ?? errors.leaves ?? errors.told;
  return (
    <form className="flex w-full flex-col gap-3 pt-2" onSubmit={(e) => void save(e)}>
      <p className="text-14">
        {off.join('. ')}. It never rolls on this axle until a later job has released it.
      </p>
      <TextField label="Why it ends without a release" autoFocus {...register('reason')} />
      <Choices
        legend="How it leaves"
        name="leaves"
        choices={ways}
        chosen={watch('leaves')}
        onChoose={(leaves) => setValue('leaves', leaves)}
      />
      <TextField label="Who was informed" {...register('told')} />
      {error && <Note tone="trouble">{error.message}</Note>}
      <div className="flex flex-wrap gap-2">
        <Button type="submit" weight="grave">
          End it out of service
        </Button>
        <Button onClick={() => setAsked(false)}>Go on working</Button>
      </div>
    </form>
  );
}
