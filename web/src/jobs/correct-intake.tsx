import { useState } from 'react';
import { z } from 'zod';
import type { Symptom } from '@lanternwright/core/inspection';
import { formatTyped, type Unit } from '@lanternwright/core/quantity';
import type { Meter } from '@lanternwright/core/traveller';
import { Button } from '../ui/button.tsx';
import { TextField } from '../ui/field.tsx';
import { SymptomPicker } from './symptom-picker.tsx';
import { optionalQuantity } from '../optional-quantity.ts';
import { useRequestForm } from '../use-request-form.ts';
import type { OpenJob } from './use-job.ts';
import { useReader } from '../shell/use-reader.ts';

const typed = ({ distance, hours }: Meter) => {
  const q = distance ?? hours;
  return q ? formatTyped(q) : '';
};

/** @param assumed what a bare meter reading is in */
const intakeSchema = (assumed: Unit) =>
  z.object({
    complaint: z.string(),
    reportedBy: z.string(),
    meter: optionalQuantity(['km', 'mi', 'h'], assumed),
    reason: z.string().trim().min(1, 'Enter a reason'),
  });

/** What was noted at intake, put right with a reason. What stood there first stays in the record. */
export function CorrectIntake({ open, onDone }: { open: OpenJob; onDone: () => void }) {
  const { job } = open;
  const reader = useReader();
  const [noticed, setNoticed] = useState<Symptom[]>([...job.symptoms]);
  const schema = intakeSchema(job.meter.hours ? 'h' : reader.distance);
  const form = useRequestForm(
    schema,
    { complaint: job.complaint, reportedBy: job.reportedBy, meter: typed(job.meter), reason: '' },
    null,
  );
  const { field, handleSubmit, setError } = form;
  const save = handleSubmit(({ complaint, reportedBy, meter, reason }) => {
    const { distance, hours } = job.meter;
    const right: Meter = !meter
      ? {}
      : meter.unit === 'h'
        ? { ...(distance ? { distance } : {}), hours: meter }
        : { ...(hours ? { hours } : {}), distance: meter };
    const refused = open.send({
      kind: 'correction',
      corrects: job.events[0]!.id,
      reason,
      replacement: { kind: 'intake', complaint, reportedBy, symptoms: noticed, meter: right },
    });
    if (refused) setError('reason', { message: refused });
    else onDone();
  });
  return (
    <form
      className="flex flex-col gap-3 rounded-lg border border-edge bg-panel p-4"
      onSubmit={(e) => void save(e)}
    >
      <SymptomPicker noticed={noticed} onChange={setNoticed} />
      <div className="grid gap-3 sm:grid-cols-2">
        <TextField label="Should be noticed" maxLength={500} {...field('complaint')} />
        <TextField label="Should be reported by" maxLength={80} {...field('reportedBy')} />
        <TextField label="Should be on the meter" className="figure" {...field('meter')} />
        <TextField label="Why it is wrong" {...field('reason')} />
      </div>
      <div className="flex flex-wrap gap-2">
        <Button type="submit" weight="main">
          Correct the intake
        </Button>
        <Button onClick={onDone}>Leave it</Button>
      </div>
    </form>
  );
}
