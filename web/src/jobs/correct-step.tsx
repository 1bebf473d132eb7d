import { useState, type ReactNode } from 'react';
import type { Step, StepData } from '@lanternwright/core/procedure';
import type { StepRecord, WheelEnd } from '@lanternwright/core/traveller';
import { Button } from '../ui/button.tsx';
import { TextField } from '../ui/field.tsx';
import { Note } from '../ui/problem-note.tsx';
import { StepForm } from './step-forms.tsx';
import type { OpenJob } from './use-job.ts';

/** Kinds of step in whose record something was chosen or typed that can have been a slip. */
const correctable: readonly Step['kind'][] = [
  ...(['torque', 'turn', 'lock', 'inspect', 'choose', 'seal', 'pack', 'fill', 'linings', 'wear'] as const),
  ...(['stroke', 'rolling', 'shims', 'sensor', 'heat', 'dimension', 'joint', 'judge', 'found'] as const),
];

/** Whether a record can be entered as it should have been. */
export const isCorrectable = ({ data }: StepRecord, { kind }: Step): boolean =>
  data !== null && correctable.includes(kind);

interface Props {
  open: OpenJob;
  wheelEnd: WheelEnd;
  step: Step;
  record: StepRecord;
  onDone: () => void;
}

/** Enters a record as it should have been, with a reason. What was entered first stays in the record. */
export function CorrectStep({ open, wheelEnd, step, record: { eventId, round }, onDone }: Props) {
  const [reason, setReason] = useState('');
  const [tried, setTried] = useState(false);
  const [refused, setRefused] = useState<string | null>(null);
  const record = (data: StepData) => {
    setTried(true);
    if (reason.trim() === '') return;
    const { stage, id: stepId } = step;
    const why = open.send({
      ...{ kind: 'correction', corrects: eventId, reason: reason.trim() },
      replacement: { kind: 'step-recorded', position: wheelEnd.position, stage, stepId, round, data },
    });
    setRefused(why);
    if (!why) onDone();
  };
  return (
    <StepAgain
      {...{ wheelEnd, step, record, refused, onDone }}
      words="Enter it as it was in truth. What was done after it still counts, if the figure fits the sheet."
    >
      <TextField
        label="Why the first entry is wrong"
        value={reason}
        maxLength={200}
        autoFocus
        error={tried && reason.trim() === '' ? 'Enter a reason' : undefined}
        onChange={(e) => setReason(e.target.value)}
      />
    </StepAgain>
  );
}

/** The form of a step that has a record already, with a way back. A measurement is taken again in a round of its own. */
export function StepAgain({
  wheelEnd,
  step,
  record,
  refused,
  words,
  onDone,
  children,
}: Omit<Props, 'record' | 'open'> & {
  record: (data: StepData) => void;
  refused: string | null;
  words: string;
  children?: ReactNode;
}) {
  if (step.kind === 'measure') return null;
  return (
    <div className="flex flex-col gap-3 border-l-4 border-lamp-edge pl-4">
      <p className="text-14">{words}</p>
      {children}
      <StepForm {...{ wheelEnd, step, record }} />
      {refused && <Note tone="trouble">{refused}</Note>}
      <div>
        <Button onClick={onDone}>Leave it as it is</Button>
      </div>
    </div>
  );
}
