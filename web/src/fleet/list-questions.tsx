import { unitKinds, type UnitKind } from '@lanternwright/core/axle-plan';
import {
  listFields,
  type ListAnswers,
  type ListField,
  type ListQuestion,
} from '@lanternwright/core/fleet-list';
import { Button } from '../ui/button.tsx';
import { SelectField, TextField } from '../ui/field.tsx';
import { PlanDrawing } from './plan-drawing.tsx';
import type { ListTable } from './list-file.ts';

interface Props {
  answers: ListAnswers;
  set: (part: Partial<ListAnswers>) => void;
}

const SHOWN_CELLS = 3;

/** What each column is, with its first cells beside it. */
export function ColumnFields({ table, answers, set }: Props & { table: ListTable }) {
  const choose = (at: number, field: ListField | '') =>
    set({
      // A field is one column: chosen here, it is nowhere else.
      columns: answers.columns.map((c, i) => (i === at ? field || null : c === field ? null : c)),
    });
  return (
    <section aria-labelledby="columns" className="flex flex-col gap-3">
      <h2 id="columns" className="text-18">
        What each column is
      </h2>
      <ul className="grid gap-x-5 gap-y-3 sm:grid-cols-2 lg:grid-cols-3">
        {table.head.map((head, at) => {
          const cells = table.rows
            .map((row) => row[at] ?? '')
            .filter(Boolean)
            .slice(0, SHOWN_CELLS);
          return (
            <li key={at}>
              <SelectField
                label={head || `Column ${at + 1}`}
                hint={cells.join(' · ') || 'empty'}
                value={answers.columns[at] ?? ''}
                onChange={(e) => choose(at, e.target.value as ListField | '')}
              >
                <option value="">Left out</option>
                {Object.entries(listFields).map(([field, title]) => (
                  <option key={field} value={field}>
                    {title}
                  </option>
                ))}
              </SelectField>
            </li>
          );
        })}
      </ul>
      <div className="grid gap-3 sm:grid-cols-2 lg:grid-cols-3">
        {!answers.columns.includes('owner') && (
          <TextField
            label="Whose they are"
            list="list-owners"
            hint="A new name makes a new owner"
            value={answers.owner}
            error={answers.owner.trim() === '' && 'Enter the owner. A new name creates a new owner'}
            onChange={(e) => set({ owner: e.target.value })}
          />
        )}
        {answers.columns.includes('distance') && (
          <SelectField
            label="The odometer counts"
            value={answers.distanceUnit ?? ''}
            error={answers.distanceUnit === null && 'Choose one'}
            onChange={(e) => set({ distanceUnit: (e.target.value || null) as ListAnswers['distanceUnit'] })}
          >
            <option value="">Choose</option>
            <option value="km">Kilometres</option>
            <option value="mi">Miles</option>
          </SelectField>
        )}
      </div>
    </section>
  );
}

/** Which kind is meant by the words of the list. */
export function KindFields({
  words,
  answers,
  set,
}: Props & { words: readonly { words: string; rows: number }[] }) {
  return (
    <section aria-labelledby="kinds" className="flex flex-col gap-3">
      <h2 id="kinds" className="text-18">
        What their words mean
      </h2>
      <ul className="grid gap-x-5 gap-y-3 sm:grid-cols-2 lg:grid-cols-3">
        {words.map((w) => (
          <li key={w.words}>
            <SelectField
              label={`${w.words || 'Nothing said'}, ${w.rows} ${w.rows === 1 ? 'row' : 'rows'}`}
              value={answers.kinds[w.words] ?? ''}
              error={!answers.kinds[w.words] && 'Choose one'}
              onChange={(e) => {
                const others = Object.entries(answers.kinds).filter(([words]) => words !== w.words);
                const own = e.target.value === '' ? [] : [[w.words, e.target.value as UnitKind]];
                set({ kinds: Object.fromEntries([...others, ...own]) as ListAnswers['kinds'] });
              }}
            >
              <option value="">Choose</option>
              {Object.entries(unitKinds).map(([id, title]) => (
                <option key={id} value={id}>
                  {title}
                </option>
              ))}
            </SelectField>
          </li>
        ))}
      </ul>
    </section>
  );
}

/** Which plan units of a kind have, where there are several. */
export function PlanQuestion({
  question,
  answers,
  set,
}: Props & { question: Extract<ListQuestion, { about: 'plan' }> }) {
  const { group, kind, axles, plans, rows } = question;
  const said = axles === null ? '' : `, ${axles} axles`;
  return (
    <section aria-label={`Plan of ${unitKinds[kind]}${said}`} className="flex flex-col gap-2">
      <h3 className="text-16">
        {unitKinds[kind]}
        {said}: which of these are the {rows === 1 ? 'one' : rows}?
      </h3>
      <ul className="grid gap-2 sm:grid-cols-2 lg:grid-cols-4">
        {plans.map((plan) => (
          <li key={plan.id}>
            <Button
              className="flex h-full w-full flex-col items-start justify-between gap-2 py-3 text-left"
              onClick={() => set({ plans: { ...answers.plans, [group]: plan.id } })}
            >
              <PlanDrawing plan={plan} />
              <span className="text-14 font-semibold">{plan.title}</span>
              <span className="text-12 font-normal text-muted">
                {[...new Set(plan.axles.map((a) => a.sheet.title))].join('; ')}
              </span>
            </Button>
          </li>
        ))}
      </ul>
    </section>
  );
}
