import { useState } from 'react';
import { useParams } from 'react-router';
import type { JobParts } from '@lanternwright/contract/stores';
import { readyStates, type ReadyLine, type ReadyState } from '@lanternwright/core/procedure';
import { describeTool } from '@lanternwright/core/tool';
import { linesToAnswer } from '@lanternwright/core/traveller';
import { formatDate } from '../shell/words.ts';
import { standWords } from '../stores/part-words.ts';
import { useJobPartsQuery } from '../stores/stores-api.ts';
import { useListedTool } from '../tools/tool-field.tsx';
import { Button } from '../ui/button.tsx';
import { TextField } from '../ui/field.tsx';
import { useDraft } from './use-draft.ts';
import { Form, noted, type FormProps } from './step-form-parts.tsx';

const groups: Record<ReadyLine['group'], string> = {
  tool: 'Tools',
  part: 'Parts',
  lubricant: 'Lubricant',
  lifting: 'Lifting',
};
const states = Object.entries(readyStates) as [ReadyState, string][];

/** Which of the shop's tools can do it today. */
function AbleTools({ need }: { need: NonNullable<ReadyLine['need']> }) {
  const { tools, why } = useListedTool('', need);
  if (tools.length === 0) return null;
  const able = tools.filter((t) => why(t) === null);
  if (able.length === 0)
    return <span className="block text-13 text-rust">None on the list: {tools.map(why).join('; ')}</span>;
  return (
    <span className="block text-13 text-muted">
      {able
        .map((t) =>
          t.calibratedUntil
            ? `${t.code} until ${formatDate(t.calibratedUntil)}`
            : `${t.code} ${describeTool(t)}`.trim(),
        )
        .join(', ')}
    </span>
  );
}

function StoreSays({ stand }: { stand: JobParts['stand'] | undefined }) {
  if (!stand) return null;
  const bad = stand.state === 'late' || stand.state === 'none';
  return <span className={`block text-13 ${bad ? 'text-rust' : 'text-muted'}`}>{standWords(stand)}</span>;
}

/** What the store says of the parts of a wheel end; nothing where it cannot be asked. */
function useStore({ position }: FormProps<'ready'>['wheelEnd']) {
  const { id = '' } = useParams();
  const { data } = useJobPartsQuery(id, { skip: id === '' });
  return (what: string): JobParts['stand'] | undefined =>
    data?.find((l) => l.position === position && l.line === what)?.stand;
}

/** What must be at hand before anything comes apart, line by line. */
export function ReadyForm({ wheelEnd, record }: FormProps<'ready'>) {
  const lines = linesToAnswer(wheelEnd).map((l) => ({ ...l, title: l.title ?? l.what }));
  const standOf = useStore(wheelEnd);
  const [held, setHeld] = useDraft<Partial<Record<string, ReadyState>>>('held', {});
  const [dates, setDates] = useDraft<Partial<Record<string, string>>>('dates', {});
  const [note, setNote] = useDraft('note', '');
  const [tried, setTried] = useState(false);
  const open = lines.filter((l) => !held[l.what]);
  const lacking = lines.filter((l) => held[l.what] === 'missing' || held[l.what] === 'ordered');
  const undated = lines.some((l) => held[l.what] === 'ordered' && !dates[l.what]);
  const save = () => {
    setTried(true);
    if (open.length > 0 || undated || (lacking.length > 0 && note.trim() === '')) return;
    record({
      kind: 'ready',
      lines: lines.map(({ what }) => {
        const state = held[what]!;
        const by = dates[what];
        return { what, state, ...(state === 'ordered' && by ? { by } : {}) };
      }),
      ...noted(note),
    });
  };
  const allHere = () => setHeld(Object.fromEntries(lines.map((l) => [l.what, held[l.what] ?? 'have'])));
  const fromStore = open.flatMap(({ what }): { what: string; state: ReadyState; by?: string }[] => {
    const stand = standOf(what);
    if (stand?.state === 'here') return [{ what, state: 'have' }];
    return stand?.state === 'ordered' ? [{ what, state: 'ordered', by: stand.coming.expected }] : [];
  });
  const takeStore = () => {
    setHeld({ ...held, ...Object.fromEntries(fromStore.map((l) => [l.what, l.state])) });
    setDates({ ...dates, ...Object.fromEntries(fromStore.flatMap((l) => (l.by ? [[l.what, l.by]] : []))) });
  };
  return (
    <Form button={lacking.length > 0 ? 'Start all the same' : 'Ready'} onRecord={save}>
      <div className="flex flex-wrap gap-3">
        <Button className="min-h-14" onClick={allHere}>
          {open.length === lines.length ? 'Everything is at hand' : 'The rest is at hand'}
        </Button>
        {fromStore.length > 0 && (
          <Button className="min-h-14" onClick={takeStore}>
            As the store says: {fromStore.length === 1 ? '1 line' : `${fromStore.length} lines`}
          </Button>
        )}
      </div>
      {(Object.keys(groups) as ReadyLine['group'][])
        .filter((group) => lines.some((l) => l.group === group))
        .map((group) => (
          <section key={group}>
            <h3 className="caption pb-1">{groups[group]}</h3>
            <ul>
              {lines
                .filter((l) => l.group === group)
                .map(({ what, title, detail, need }) => (
                  <li
                    key={what}
                    className="grid items-center gap-2 border-b border-rule py-2 sm:grid-cols-[1fr_auto]"
                  >
                    <span className={`text-16 ${tried && !held[what] ? 'text-rust' : ''}`}>
                      {title}
                      {detail && <span className="figure block text-13 text-muted">{detail}</span>}
                      {need && <AbleTools need={need} />}
                      <StoreSays stand={standOf(what)} />
                    </span>
                    <span role="radiogroup" aria-label={title} className="flex flex-wrap gap-1">
                      {states.map(([state, label]) => (
                        <button
                          key={state}
                          type="button"
                          role="radio"
                          aria-checked={held[what] === state}
                          onClick={() => setHeld({ ...held, [what]: state })}
                          className={`min-h-12 rounded-md border px-3 text-14 ${held[what] === state ? 'border-lamp-edge bg-lamp font-semibold' : 'border-edge bg-panel'}`}
                        >
                          {label}
                        </button>
                      ))}
                    </span>
                    {held[what] === 'ordered' && (
                      <TextField
                        label="Arrives"
                        type="date"
                        value={dates[what] ?? ''}
                        error={tried && !dates[what] ? 'When' : undefined}
                        onChange={(e) => setDates({ ...dates, [what]: e.target.value })}
                      />
                    )}
                  </li>
                ))}
            </ul>
          </section>
        ))}
      {tried && open.length > 0 && (
        <p className="text-14 text-rust">{open.length} lines are not answered yet</p>
      )}
      {lacking.length > 0 && (
        <TextField
          label={`Not here: ${lacking.map((l) => l.title).join(', ')}. Why the work starts all the same`}
          value={note}
          error={tried && note.trim() === '' ? 'Enter a reason, or wait for it' : undefined}
          onChange={(e) => setNote(e.target.value)}
        />
      )}
    </Form>
  );
}
