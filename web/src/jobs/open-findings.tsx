import { useState } from 'react';
import { describeFinding, openFindings, type Finding, type WheelEnd } from '@lanternwright/core/traveller';
import { Button } from '../ui/button.tsx';
import { TextField } from '../ui/field.tsx';
import { Note } from '../ui/problem-note.tsx';
import { Choices } from './step-form-parts.tsx';
import type { OpenJob } from './use-job.ts';

const answers = [
  ['put-right', 'Put right'],
  ['not-so', 'Looked into: not so'],
] as const;
type Answer = (typeof answers)[number][0];

function Answering({ open, wheelEnd, finding }: { open: OpenJob; wheelEnd: WheelEnd; finding: Finding }) {
  const [how, setHow] = useState<Answer | ''>('');
  const [reason, setReason] = useState('');
  const [refused, setRefused] = useState<string | null>(null);
  const { position } = wheelEnd;
  return (
    <form
      className="flex flex-col gap-3"
      onSubmit={(e) => {
        e.preventDefault();
        if (how === '') return setRefused('Choose what was done about it.');
        setRefused(
          open.send({ kind: 'finding-answered', position, finding: finding.id, how, reason: reason.trim() }),
        );
      }}
    >
      <Choices
        legend="What was done about it"
        name={`${position}-${finding.id}`}
        choices={answers}
        chosen={how}
        onChoose={setHow}
      />
      <TextField
        label={how === 'not-so' ? 'What was looked at, and found' : 'How it was put right'}
        value={reason}
        onChange={(e) => setReason(e.target.value)}
      />
      {refused && <Note tone="trouble">{refused}</Note>}
      <div>
        <Button type="submit" disabled={how === '' || reason.trim() === ''}>
          Answer this finding on {position}
        </Button>
      </div>
    </form>
  );
}

/** Findings of a wheel end that no record answers: a supervisor answers them, by name, or the work does. */
export function OpenFindings({ open, wheelEnd }: { open: OpenJob; wheelEnd: WheelEnd }) {
  const findings = wheelEnd.release ? [] : openFindings(wheelEnd);
  if (findings.length === 0) return null;
  return (
    <section aria-label={`Findings on ${wheelEnd.position}`} className="flex flex-col gap-4">
      <h2 className="text-18">Findings on {wheelEnd.position}</h2>
      <ul className="flex flex-col gap-4">
        {findings.map((finding) => (
          <li key={finding.id} className="flex flex-col gap-3 border-l-4 border-rust pl-4">
            <p className="font-semibold">{describeFinding(finding.id, finding.note)}</p>
            {open.person.role === 'supervisor' && !open.job.stopped ? (
              <Answering {...{ open, wheelEnd, finding }} />
            ) : (
              <p className="text-14 text-muted">The work answers it, or a supervisor.</p>
            )}
          </li>
        ))}
      </ul>
    </section>
  );
}
