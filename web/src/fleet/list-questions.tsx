import { unitKinds, type UnitKind } from '@lanternwright/core/axle-plan';
import {
  listFields,
  openStyles,
  readDate,
  readMeter,
  type ListAnswers,
  type ListField,
  type ListQuestion,
  type StyleQuestion,
} from '@lanternwright/core/fleet-list';
import { formatDate } from '../shell/words.ts';
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
      // A field is one column, remarks may be several: chosen here, it is nowhere else.
      columns: answers.columns.map((c, i) =>
        i === at ? field || null : c === field && field !== 'remarks' ? null : c,
      ),
    });
  const styles = openStyles(table.rows, answers);
  const namesNobody = table.rows.some(
    ({ cells }) => cells.some(Boolean) && !cells[answers.columns.indexOf('owner')],
  );
  return (
    <section aria-labelledby="columns" className="flex flex-col gap-3">
      <h2 id="columns" className="text-18">
        What each column is
      </h2>
      <ul className="grid gap-x-5 gap-y-3 sm:grid-cols-2 lg:grid-cols-3">
        {table.head.map((head, at) => {
          const cells = table.rows
            .map(({ cells: row }) => row[at] ?? '')
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
      <div className="grid gap-x-5 gap-y-3 sm:grid-cols-2 lg:grid-cols-3">
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
        {answers.columns.includes('distance') && !styles.some((q) => q.field === 'distance') && (
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
        {answers.columns.includes('owner') && namesNobody && (
          <SelectField
            label="Rows that name no owner"
            value={answers.ownerAbove === null ? '' : answers.ownerAbove ? 'above' : 'out'}
            error={answers.ownerAbove === null && 'Choose one'}
            onChange={(e) => set({ ownerAbove: e.target.value === '' ? null : e.target.value === 'above' })}
          >
            <option value="">Choose</option>
            <option value="above">Belong to the owner above them</option>
            <option value="out">Are left out</option>
          </SelectField>
        )}
        {styles.map((question) => (
          <StyleField key={question.field} {...{ question, answers, set }} />
        ))}
      </div>
    </section>
  );
}

/** What one cell can be, as an answer for its whole column. */
function readingsOf(question: StyleQuestion): { words: string; said: Partial<ListAnswers> }[] {
  const { field, example } = question;
  if (question.about === 'dates')
    return (['day-first', 'month-first'] as const).map((order) => ({
      words: formatDate(readDate(example, order) ?? ''),
      said: { styles: { [field]: order } },
    }));
  const units = question.field === 'hours' ? (['h'] as const) : (['km', 'mi'] as const);
  return (['comma-groups', 'point-groups'] as const).flatMap((style) => {
    const reads = units.flatMap((unit) => {
      const read = readMeter(example, units, unit, style);
      return read ? [{ unit, read }] : [];
    });
    // A cell with its own unit says nothing of the bare ones.
    const bare = new Set(reads.map(({ read }) => read.unit)).size > 1;
    return (bare ? reads : reads.slice(0, 1)).map(({ unit, read }) => ({
      words: `${figures.format(read.value)} ${read.unit}`,
      said: { styles: { [field]: style }, ...(bare && unit !== 'h' ? { distanceUnit: unit } : {}) },
    }));
  });
}

const figures = new Intl.NumberFormat('en-GB', { maximumFractionDigits: 3 });

/** Which of its readings a column means, by one of its cells; for an odometer also what it counts. */
function StyleField({ question, answers, set }: Props & { question: StyleQuestion }) {
  const { field, example } = question;
  const readings = readingsOf(question);
  const isSaid = ({ said }: (typeof readings)[number]) =>
    said.styles?.[field] === answers.styles[field] &&
    (said.distanceUnit === undefined || said.distanceUnit === answers.distanceUnit);
  const chosen = answers.styles[field] ? readings.findIndex(isSaid) : -1;
  return (
    <SelectField
      label={`${listFields[field]}: “${example}” is`}
      value={chosen < 0 ? '' : chosen}
      error={chosen < 0 && 'Choose one: it holds for the whole column'}
      onChange={(e) => {
        const said: Partial<ListAnswers> = readings[Number(e.target.value)]?.said ?? {};
        set({ ...said, styles: { ...answers.styles, [field]: undefined, ...said.styles } });
      }}
    >
      <option value="">Choose</option>
      {readings.map(({ words }, i) => (
        <option key={i} value={i}>
          {words}
        </option>
      ))}
    </SelectField>
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
        {said}: which axle plan {rows === 1 ? 'has this unit' : `have these ${rows} units`}?
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
