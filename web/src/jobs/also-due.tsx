import { useState } from 'react';
import { followUpKinds, type BodyOf, type FollowUpKind, type WheelEnd } from '@lanternwright/core/traveller';
import { formatDate, formatTime } from '../shell/words.ts';
import { Button } from '../ui/button.tsx';
import { SelectField, TextField } from '../ui/field.tsx';
import { Note } from '../ui/problem-note.tsx';
import { TakeBack } from './strike-out.tsx';
import type { OpenJob } from './use-job.ts';

export type AlsoDue = NonNullable<BodyOf<'wheel-end-released'>['alsoDue']>;

const kinds = Object.entries(followUpKinds) as [FollowUpKind, string][];
const examples: Record<FollowUpKind, string> = {
  'oil-level': 'Check the oil level when it has settled',
  temporary: 'Used cap until the new one is in',
  deferred: 'Seal weep, oil level steady: watched',
  'other-side': 'Same bearings on the other side: look at them',
};

/** Things to look after besides the retorque, named at the release. */
export function AlsoDueFields({ due, onChange }: { due: AlsoDue; onChange: (due: AlsoDue) => void }) {
  const [kind, setKind] = useState<FollowUpKind | ''>('');
  const [byDate, setByDate] = useState('');
  const [what, setWhat] = useState('');
  const [error, setError] = useState<string>();
  const left = kinds.filter(([k]) => !due.some((d) => d.kind === k));
  const add = () => {
    if (kind === '' || byDate === '') return setError(kind === '' ? 'Choose what kind' : 'By when');
    onChange([...due, { kind, byDate, what: what.trim() || examples[kind] }]);
    setKind('');
    setByDate('');
    setWhat('');
    setError(undefined);
  };
  return (
    <details className="rounded-lg border border-edge bg-panel px-4 py-3">
      <summary className="min-h-8 text-14">
        Look after something later{due.length > 0 && `, ${due.length} named`}
      </summary>
      <ul>
        {due.map((d) => (
          <li
            key={d.kind}
            className="flex items-center justify-between gap-3 border-b border-rule py-2 text-14"
          >
            <span>
              {followUpKinds[d.kind]} by {formatDate(d.byDate)}: {d.what}
            </span>
            <Button weight="quiet" onClick={() => onChange(due.filter((x) => x !== d))}>
              Take it away
            </Button>
          </li>
        ))}
      </ul>
      {left.length > 0 && (
        <div className="grid items-start gap-3 pt-3 sm:grid-cols-[1fr_1fr_2fr_auto]">
          <SelectField
            label="What kind"
            value={kind}
            error={kind === '' ? error : undefined}
            onChange={(e) => setKind(e.target.value as FollowUpKind | '')}
          >
            <option value="">Choose</option>
            {left.map(([k, label]) => (
              <option key={k} value={k}>
                {label}
              </option>
            ))}
          </SelectField>
          <TextField
            label="By when"
            type="date"
            value={byDate}
            error={kind === '' ? undefined : error}
            onChange={(e) => setByDate(e.target.value)}
          />
          <TextField
            label="What"
            value={what}
            placeholder={kind && examples[kind]}
            onChange={(e) => setWhat(e.target.value)}
          />
          <Button className="sm:mt-5" onClick={add}>
            Name it
          </Button>
        </div>
      )}
    </details>
  );
}

/** One thing that a released wheel end still asks for; of a temporary repair it is said what was seen. */
function AlsoDueNote({
  open,
  wheelEnd,
  d,
  nth,
}: {
  open: OpenJob;
  wheelEnd: WheelEnd;
  d: AlsoDue[number];
  nth: number;
}) {
  const [error, setError] = useState<string>();
  const [note, setNote] = useState('');
  const done = wheelEnd.followUpsDone.find((f) => f.followUp === d.kind && f.nth === nth);
  const send = () => {
    const seen = note.trim() === '' ? {} : { note: note.trim() };
    const { position } = wheelEnd;
    setError(open.send({ kind: 'follow-up-done', position, followUp: d.kind, nth, ...seen }) ?? undefined);
  };
  return (
    <Note tone={done ? 'good' : 'plain'}>
      <span className="flex flex-wrap items-center justify-between gap-3">
        <span>
          <b>{followUpKinds[d.kind]}</b>, by {formatDate(d.byDate)}: {d.what}.{' '}
          {done && `Looked after by ${done.doneBy ?? done.by.name}, ${formatTime(done.at)}.`}
          {done?.note && ` ${done.note}`}
        </span>
        {done && <TakeBack open={open} eventId={done.eventId} by={done.by.id} words="It was not" />}
        {!done && <Button onClick={send}>Looked after</Button>}
      </span>
      {!done && d.kind === 'temporary' && (
        <TextField
          label="What was seen"
          value={note}
          error={error}
          onChange={(e) => setNote(e.target.value)}
        />
      )}
      {d.kind !== 'temporary' && error}
    </Note>
  );
}

/** What a released wheel end still asks for, and what was looked after. */
export function AlsoDueList({ open, wheelEnd }: { open: OpenJob; wheelEnd: WheelEnd }) {
  const due = wheelEnd.release?.alsoDue ?? [];
  return due.map((d, i) => {
    const nth = due.slice(0, i).filter((x) => x.kind === d.kind).length;
    return <AlsoDueNote key={`${d.kind} ${nth}`} {...{ open, wheelEnd, d, nth }} />;
  });
}
