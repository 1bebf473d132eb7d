import { useState } from 'react';
import {
  componentOf,
  dispose,
  dispositions,
  PLANNED,
  type Disposition,
} from '@lanternwright/core/inspection';
import { partsPlanned, partsToJudge } from '@lanternwright/core/traveller';
import { Button } from '../ui/button.tsx';
import { ConditionDrawing } from '../ui/condition-drawing.tsx';
import { TextField } from '../ui/field.tsx';
import { useDraft } from './use-draft.ts';
import { Form, noted, type FormProps } from './step-form-parts.tsx';

const tone: Record<Disposition, string> = {
  reuse: 'text-pine',
  dress: 'text-lamp-ink',
  replace: 'text-rust',
  'replace-set': 'text-rust',
  sleeve: 'text-rust',
  'replace-pair': 'text-rust',
  ask: 'text-ink',
};

/** Each part as it is seen, with what it asks for and why. What could go either way is the supervisor's. */
export function JudgeForm({ record, wheelEnd }: FormProps<'judge'>) {
  const renewBearings = wheelEnd.sheet.schools.bearings === 'renew';
  const [seen, setSeen] = useDraft<Partial<Record<string, string>>>('seen', {});
  const [notes, setNotes] = useDraft<Partial<Record<string, string>>>('notes', {});
  const [hardWorked, setHardWorked] = useDraft('hardWorked', false);
  const [note, setNote] = useDraft('note', '');
  const [tried, setTried] = useState(false);
  const planned = partsPlanned(wheelEnd);
  const components = partsToJudge(wheelEnd).map((id) => {
    const c = componentOf(id)!;
    return planned.includes(id) ? { ...c, conditions: [PLANNED, ...c.conditions] } : c;
  });
  const open = components.filter((c) => !seen[c.id]);
  const judged = components.map((c) => ({
    c,
    found: seen[c.id] ? dispose(c.id, seen[c.id]!, { hardWorked, renewBearings }) : undefined,
  }));
  const asks = judged.filter((j) => j.found?.disposition === 'ask');
  const save = () => {
    setTried(true);
    if (open.length > 0) return;
    record({
      kind: 'judge',
      hardWorked,
      findings: judged.map(({ c, found }) => ({
        component: c.id,
        seen: seen[c.id]!,
        disposition: found!.disposition,
        ...noted(notes[c.id] ?? ''),
      })),
      ...noted(note),
    });
  };
  const restSound = () =>
    setSeen(Object.fromEntries(components.map((c) => [c.id, seen[c.id] ?? c.conditions[0]!.id])));
  return (
    <Form
      button={asks.length > 0 ? 'Record and ask the supervisor' : 'Record what was found'}
      onRecord={save}
    >
      <div className="flex flex-wrap items-center gap-4">
        <Button className="min-h-14" onClick={restSound}>
          {planned.length > 0
            ? 'Renewed as planned, the rest is sound'
            : open.length === components.length
              ? 'Every part is sound'
              : 'The rest is sound'}
        </Button>
        <label className="flex min-h-12 items-center gap-2 text-14">
          <input
            type="checkbox"
            className="size-5 accent-pine"
            checked={hardWorked}
            onChange={(e) => setHardWorked(e.target.checked)}
          />
          The unit has run far and cannot stand still
        </label>
      </div>
      <ul>
        {judged.map(({ c, found }) => (
          <li key={c.id} className="flex flex-col gap-2 border-b border-rule py-3">
            <fieldset>
              <legend className={`pb-1 text-16 font-semibold ${tried && !seen[c.id] ? 'text-rust' : ''}`}>
                {c.title}
                {tried && !seen[c.id] && ': look at it'}
              </legend>
              <div className="grid gap-2 sm:grid-cols-2 xl:grid-cols-3">
                {c.conditions.map((o) => (
                  <label
                    key={o.id}
                    className={`flex min-h-14 cursor-pointer items-center gap-2 rounded-lg border px-2 py-1 text-14 has-focus-visible:outline-3 has-focus-visible:outline-lamp-edge ${seen[c.id] === o.id ? 'border-lamp-edge bg-lamp font-semibold' : 'border-edge bg-panel'}`}
                  >
                    <input
                      type="radio"
                      name={c.id}
                      className="size-5 shrink-0 accent-pine"
                      checked={seen[c.id] === o.id}
                      onChange={() => setSeen({ ...seen, [c.id]: o.id })}
                    />
                    <ConditionDrawing component={c.id} condition={o.id} />
                    {o.words}
                  </label>
                ))}
              </div>
            </fieldset>
            <div aria-live="polite">
              {found && found.disposition !== 'reuse' && (
                <>
                  <p className={`text-16 font-semibold ${tone[found.disposition]}`}>
                    {dispositions[found.disposition]}
                  </p>
                  <p className="text-13 text-muted">{found.reason}.</p>
                  <TextField
                    label="What else is to be said of it"
                    value={notes[c.id] ?? ''}
                    onChange={(e) => setNotes({ ...notes, [c.id]: e.target.value })}
                  />
                </>
              )}
            </div>
          </li>
        ))}
      </ul>
      {tried && open.length > 0 && (
        <p className="text-14 text-rust">Not looked at yet: {open.map((c) => c.title).join(', ')}</p>
      )}
      <TextField label="Note" value={note} onChange={(e) => setNote(e.target.value)} />
    </Form>
  );
}
