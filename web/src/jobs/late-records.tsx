import { useState } from 'react';
import { lateRecords, type WheelEnd } from '@lanternwright/core/traveller';
import { ReasonForm } from '../reason-form.tsx';
import { Button } from '../ui/button.tsx';
import type { OpenJob } from './use-job.ts';

/** Records of the work at hand that waited on a device too long to count: a supervisor lets them count, all in one act. */
export function LateRecords({ open, wheelEnd }: { open: OpenJob; wheelEnd: WheelEnd }) {
  const [saying, setSaying] = useState(false);
  const { position, release } = wheelEnd;
  const late = lateRecords(wheelEnd);
  if (late.length === 0 || release || open.job.stopped || open.person.role !== 'supervisor') return null;
  const what = late.length === 1 ? 'The record that came late' : `The ${late.length} records that came late`;
  if (!saying)
    return (
      <Button className="self-start" onClick={() => setSaying(true)}>
        {what} on {position}: let {late.length === 1 ? 'it' : 'them'} count
      </Button>
    );
  return (
    <ReasonForm
      label="How you know that it was done after what it follows"
      button="Let it count"
      onCancel={() => setSaying(false)}
      onSave={(reason) => {
        const records = late.map((r) => r.eventId);
        const refused = open.send({ kind: 'late-counted', position, records, reason });
        if (!refused) setSaying(false);
        return refused;
      }}
    />
  );
}
