import { useState } from 'react';
import { decisionsOn, dispositions, type Disposition } from '@lanternwright/core/inspection';
import {
  lastVerdict,
  openQuestions,
  otherSideDue,
  type OpenQuestion,
  type WheelEnd,
} from '@lanternwright/core/traveller';
import { formatDistance, formatPlay } from '../shell/words.ts';
import { Button } from '../ui/button.tsx';
import { TextField } from '../ui/field.tsx';
import { Note } from '../ui/problem-note.tsx';
import type { OpenJob } from './use-job.ts';
import { useReader } from '../shell/use-reader.ts';

/** What is known of the unit that bears on the question. */
function Known({ open, wheelEnd }: { open: OpenJob; wheelEnd: WheelEnd }) {
  const reader = useReader();
  const unit = reader.length;
  const verdict = lastVerdict(wheelEnd);
  const before = open.detail.before.filter((r) => r.position === wheelEnd.position && r.final);
  const km = open.job.meter.distance ? open.job.meter.distance.si / 1000 : null;
  const facts = [
    km === null ? null : `at ${formatDistance(km, reader)}`,
    `${before.length} earlier ${before.length === 1 ? 'setting' : 'settings'} of this wheel end`,
    verdict ? `as found ${formatPlay(verdict.result.endPlayMm, unit)}` : null,
    open.job.complaint ? `complaint: ${open.job.complaint.toLowerCase()}` : null,
  ];
  return <p className="text-13 text-muted">{facts.filter(Boolean).join(', ')}.</p>;
}

function Answer({ open, wheelEnd, question }: { open: OpenJob; wheelEnd: WheelEnd; question: OpenQuestion }) {
  const [reason, setReason] = useState('');
  const [error, setError] = useState<string>();
  const decide = (decision: Exclude<Disposition, 'ask'>) => {
    if (reason.trim() === '') return setError('Enter a reason');
    const { component } = question;
    const refused = open.send({
      kind: 'decision-made',
      position: wheelEnd.position,
      component,
      decision,
      reason: reason.trim(),
    });
    if (refused) setError(refused);
  };
  return (
    <div className="flex flex-col gap-3">
      <TextField
        label="Your reason"
        value={reason}
        error={error}
        onChange={(e) => {
          setReason(e.target.value);
          setError(undefined);
        }}
      />
      <div className="flex flex-wrap gap-2">
        {decisionsOn(question.component).map((d) => (
          <Button key={d} onClick={() => decide(d)}>
            {dispositions[d]}
          </Button>
        ))}
      </div>
    </div>
  );
}

/** Findings that could go either way: the supervisor decides, the technician waits for it before Assemble. */
export function Questions({ open, wheelEnd }: { open: OpenJob; wheelEnd: WheelEnd }) {
  const questions = openQuestions(wheelEnd);
  const isSupervisor = open.person.role === 'supervisor';
  const pair = wheelEnd.release ? null : otherSideDue(open.job, wheelEnd);
  return (
    <>
      {pair && (
        <Note tone="plain">
          {pair.parts.join(', ')} failed here: {pair.position} has run as far on the same parts. Look at it in
          the same lift; the release opens a check of it.
        </Note>
      )}
      {questions.map((q) => (
        <section
          key={q.component}
          aria-label={`Decide about ${q.title}`}
          className="flex flex-col gap-2 rounded-lg border border-lamp-edge bg-lamp p-4"
        >
          <h2 className="text-18">
            {isSupervisor ? 'Decide' : 'Waits for the supervisor'}: {q.title} of {wheelEnd.position}
          </h2>
          <p className="text-16">
            {q.seen}
            {q.note && `. ${q.note}`}, seen by {q.askedBy}.
          </p>
          <Known open={open} wheelEnd={wheelEnd} />
          {isSupervisor ? (
            <Answer {...{ open, wheelEnd, question: q }} />
          ) : (
            <Note tone="plain">Work goes on up to Assemble; the answer shows here at once.</Note>
          )}
        </section>
      ))}
    </>
  );
}
