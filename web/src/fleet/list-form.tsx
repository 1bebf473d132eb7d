import { useMemo, useState } from 'react';
import { Link } from 'react-router';
import type { FleetPreview } from '@lanternwright/contract/exchange';
import { unitKinds, type Layout } from '@lanternwright/core/axle-plan';
import {
  kindsIn,
  listFields,
  readFleetList,
  type ListAnswers,
  type ListQuestion,
} from '@lanternwright/core/fleet-list';
import { problemText } from '../api.ts';
import { useSheetsQuery } from '../sheets/sheets-api.ts';
import { Button } from '../ui/button.tsx';
import { SelectField } from '../ui/field.tsx';
import { Note } from '../ui/problem-note.tsx';
import { useImportFleetMutation, useOwnersQuery, usePreviewFleetMutation } from './fleet-api.ts';
import { fleetFileOf, sheetKey, type ChosenSheets, type ListTable } from './list-file.ts';
import { ColumnFields, KindFields, PlanQuestion } from './list-questions.tsx';
import { BadRows, ListedUnits } from './list-rows.tsx';
import { firstAnswers, remember } from './list-answers.ts';

/** Which sheet the axles of each plan go by, all of them at once. */
function SheetFields({
  plans,
  chosen,
  onChange,
}: {
  plans: readonly Layout[];
  chosen: ChosenSheets;
  onChange: (chosen: ChosenSheets) => void;
}) {
  const { data: sheets = [] } = useSheetsQuery();
  return (
    <details>
      <summary className="min-h-12 cursor-pointer py-3 text-16">Which sheet their axles go by</summary>
      {plans.map((plan) => (
        <div key={plan.id} className="pb-4">
          <h3 className="pb-2 text-14 font-semibold">{plan.title}</h3>
          <div className="grid gap-3 sm:grid-cols-2 lg:grid-cols-3">
            {plan.axles.map(({ sheet }, i) => (
              <SelectField
                key={i}
                label={`Axle ${i + 1} of ${plan.title}`}
                value={chosen[sheetKey(plan.id, i)] ?? sheet.sheetId}
                onChange={(e) => onChange({ ...chosen, [sheetKey(plan.id, i)]: e.target.value })}
              >
                {sheets.map(({ sheetId, revisions: [newest] }) => (
                  <option key={sheetId} value={sheetId}>
                    {newest?.sheet.title}
                  </option>
                ))}
                {!sheets.some((s) => s.sheetId === sheet.sheetId) && (
                  <option value={sheet.sheetId}>{sheet.title}</option>
                )}
              </SelectField>
            ))}
          </div>
        </div>
      ))}
    </details>
  );
}

const SHOWN_QUESTIONS = 4;

function describeQuestion(q: ListQuestion): string {
  if (q.about === 'column') return q.words;
  if (q.about === 'numbers' || q.about === 'dates') return `${listFields[q.field]}: what is “${q.example}”?`;
  if (q.about === 'kind') return `What kind is “${q.words || 'nothing said'}”?`;
  return `Which axle plan fits ${unitKinds[q.kind]}${q.axles === null ? '' : `, ${q.axles} axles`}?`;
}

/** What a list is asked, what it comes to, and bringing it in. */
export function ListForm({ table: asRead }: { table: ListTable }) {
  const [table, setTable] = useState(asRead);
  const [answers, setAnswers] = useState(() => firstAnswers(table));
  const [sheets, setSheets] = useState<ChosenSheets>({});
  const [known, setKnown] = useState<FleetPreview['bad'] | null>(null);
  const { data: owners = [] } = useOwnersQuery();
  const [preview, looking] = usePreviewFleetMutation();
  const [bringIn, bringing] = useImportFleetMutation();
  const list = useMemo(() => readFleetList(table.rows, answers), [table, answers]);
  const set = (part: Partial<ListAnswers>) => {
    setAnswers({ ...answers, ...part });
    setKnown(null);
  };
  const mend = (line: number, column: number, text: string) => {
    const rows = table.rows.map((row) => {
      if (row.line !== line) return row;
      const cells = table.head.map((_, i) => (i === column ? text : (row.cells[i] ?? '')));
      return { line, cells };
    });
    setTable({ ...table, rows });
    setKnown(null);
  };
  const plans = [...new Map(list.units.map((u) => [u.plan.id, u.plan])).values()];
  const asked = list.questions.flatMap((q) => (q.about === 'plan' ? [q] : []));
  const waits = list.questions.map(describeQuestion);
  const rowsWaiting = list.questions.reduce((n, q) => n + ('rows' in q ? q.rows : 0), 0);
  const answered = Object.keys(answers.plans).length > 0;
  const look = async () => {
    const { csv, lineOf } = await fleetFileOf(list.units, sheets);
    const { data } = await preview({ csv });
    if (data) setKnown(data.bad.map((row) => ({ ...row, line: lineOf(row.line) })));
  };
  const take = async () => {
    const left = new Set(known?.map((row) => row.line));
    const units = list.units.filter((u) => !left.has(u.line));
    const { data } = await bringIn({ csv: (await fleetFileOf(units, sheets)).csv });
    if (data) remember(table.head, answers);
  };
  if (bringing.data)
    return (
      <Note tone="good">
        {bringing.data.goodCount} units are in.{' '}
        <Link className="underline" to="/fleet">
          See the fleet
        </Link>
      </Note>
    );
  const isNew = list.units.filter((u) => !known?.some((row) => row.line === u.line));
  const bad = [...list.bad, ...(known ?? [])].sort((a, b) => a.line - b.line);
  return (
    <div className="flex flex-col gap-6">
      <datalist id="list-owners">
        {owners.map((o) => (
          <option key={o.id} value={o.name} />
        ))}
      </datalist>
      {waits.length > 0 && (
        <Note tone="plain">
          {rowsWaiting > 0 &&
            `${rowsWaiting} ${rowsWaiting === 1 ? 'row waits' : 'rows wait'} for an answer. `}
          {waits.slice(0, SHOWN_QUESTIONS).join(' ')}
        </Note>
      )}
      <ColumnFields {...{ table, answers, set }} />
      <KindFields {...{ answers, set }} words={kindsIn(table.rows, answers)} />
      {asked.map((question) => (
        <PlanQuestion key={question.group} {...{ question, answers, set }} />
      ))}
      {answered && (
        <div>
          <Button weight="quiet" onClick={() => set({ plans: {} })}>
            Choose the plans again
          </Button>
        </div>
      )}
      {plans.length > 0 && (
        <SheetFields
          {...{ plans }}
          chosen={sheets}
          onChange={(chosen) => {
            setSheets(chosen);
            setKnown(null);
          }}
        />
      )}
      {bad.length > 0 && <BadRows {...{ bad, table }} columns={answers.columns} onMend={mend} />}
      <ListedUnits units={isNew} />
      {looking.error && <Note tone="trouble">{problemText(looking.error)}</Note>}
      {bringing.error && <Note tone="trouble">{problemText(bringing.error)}</Note>}
      <div className="flex flex-wrap gap-3">
        {known === null ? (
          <Button
            weight="main"
            disabled={list.units.length === 0 || looking.isLoading}
            onClick={() => void look()}
          >
            Check {list.units.length} {list.units.length === 1 ? 'unit' : 'units'} against the fleet
          </Button>
        ) : (
          <Button
            weight="main"
            disabled={isNew.length === 0 || bringing.isLoading}
            onClick={() => void take()}
          >
            Bring in {isNew.length} {isNew.length === 1 ? 'unit' : 'units'}
            {bad.length > 0 && `, leave ${bad.length} ${bad.length === 1 ? 'row' : 'rows'} out`}
          </Button>
        )}
      </div>
    </div>
  );
}
