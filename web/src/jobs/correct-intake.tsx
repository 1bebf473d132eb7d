import { useState } from 'react';
import type { Symptom } from '@lanternwright/core/inspection';
import { formatTyped, parseQuantity } from '@lanternwright/core/quantity';
import type { Meter } from '@lanternwright/core/traveller';
import { Button } from '../ui/button.tsx';
import { TextField } from '../ui/field.tsx';
import { SymptomPicker } from './symptom-picker.tsx';
import type { OpenJob } from './use-job.ts';
import { useReader } from '../shell/use-reader.ts';

const typed = ({ distance, hours }: Meter) => {
  const q = distance ?? hours;
  return q ? formatTyped(q) : '';
};

/** What was noted at intake, put right with a reason. What stood there first stays in the record. */
export function CorrectIntake({ open, onDone }: { open: OpenJob; onDone: () => void }) {
  const { job } = open;
  const reader = useReader();
  const [complaint, setComplaint] = useState(job.complaint);
  const [reportedBy, setReportedBy] = useState(job.reportedBy);
  const [noticed, setNoticed] = useState<Symptom[]>([...job.symptoms]);
  const [meter, setMeter] = useState(typed(job.meter));
  const [reason, setReason] = useState('');
  const [error, setError] = useState<{ meter?: string; reason?: string }>({});
  const save = () => {
    const read =
      meter.trim() === ''
        ? null
        : parseQuantity(meter, ['km', 'mi', 'h'], job.meter.hours ? 'h' : reader.distance);
    if (read && !read.ok) return setError({ meter: read.message });
    if (reason.trim() === '') return setError({ reason: 'Say why' });
    const { distance, hours } = job.meter;
    const right: Meter = !read
      ? {}
      : read.quantity.unit === 'h'
        ? { ...(distance ? { distance } : {}), hours: read.quantity }
        : { ...(hours ? { hours } : {}), distance: read.quantity };
    const refused = open.send({
      kind: 'correction',
      corrects: job.events[0]!.id,
      reason: reason.trim(),
      replacement: { kind: 'intake', complaint, reportedBy, symptoms: noticed, meter: right },
    });
    if (refused) setError({ reason: refused });
    else onDone();
  };
  return (
    <form
      className="flex flex-col gap-3 rounded-lg border border-edge bg-panel p-4"
      onSubmit={(e) => {
        e.preventDefault();
        save();
      }}
    >
      <SymptomPicker noticed={noticed} onChange={setNoticed} />
      <div className="grid gap-3 sm:grid-cols-2">
        <TextField
          label="Should be noticed"
          value={complaint}
          maxLength={500}
          onChange={(e) => setComplaint(e.target.value)}
        />
        <TextField
          label="Should be reported by"
          value={reportedBy}
          maxLength={80}
          onChange={(e) => setReportedBy(e.target.value)}
        />
        <TextField
          label="Should be on the meter"
          className="figure"
          value={meter}
          error={error.meter}
          onChange={(e) => setMeter(e.target.value)}
        />
        <TextField
          label="Why it is wrong"
          value={reason}
          error={error.reason}
          onChange={(e) => setReason(e.target.value)}
        />
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
