import { useMemo, useState } from 'react';
import { Link } from 'react-router';
import type { FleetPreview } from '@lanternwright/contract/exchange';
import { unitKinds, type Layout } from '@lanternwright/core/axle-plan';
import {
  distanceUnitIn,
  guessColumns,
  kindsIn,
  readFleetList,
  type ListAnswers,
  type ListedUnit,
  type ListQuestion,
} from '@lanternwright/core/fleet-list';
import { formatFor } from '@lanternwright/core/quantity';
import { problemText } from '../api.ts';
import { useSheetsQuery } from '../sheets/sheets-api.ts';
import { Button, buttonLook } from '../ui/button.tsx';
import { SelectField } from '../ui/field.tsx';
import { Note } from '../ui/problem-note.tsx';
import { useImportFleetMutation, useOwnersQuery, usePreviewFleetMutation } from './fleet-api.ts';
import { fleetFileOf, readListFile, sheetKey, type ChosenSheets, type ListTable } from './list-file.ts';
import { ColumnFields, KindFields, PlanQuestion } from './list-questions.tsx';
import { PlanDrawing } from './plan-drawing.tsx';
import { useReader } from '../shell/use-reader.ts';

const REMEMBERED = 'lanternwright.fleet-list';
const SHOWN_ROWS = 100;

type Remembered = Partial<Pick<ListAnswers, 'columns' | 'distanceUnit' | 'kinds'>>;

/** What was said of a list with this head before, on this device. */
function remembered(head: readonly string[]): Remembered {
  const all = JSON.parse(localStorage.getItem(REMEMBERED) ?? '{}') as Record<string, Remembered>;
  return all[head.join('\n')] ?? {};
}

function remember(head: readonly string[], { columns, distanceUnit, kinds }: ListAnswers): void {
  localStorage.setItem(
    REMEMBERED,
    JSON.stringify({ [head.join('\n')]: { columns, distanceUnit, kinds } satisfies Remembered }),
  );
}

/** What a list probably says; nobody’s plan is guessed. */
function firstAnswers({ head, rows }: ListTable): ListAnswers {
  const before = remembered(head);
  const columns = before.columns ?? guessColumns(head);
  const guesses = kindsIn(rows, columns).flatMap(({ words, guess }) => (guess ? [[words, guess]] : []));
  const distance = columns.indexOf('distance');
  return {
    columns,
    distanceUnit: before.distanceUnit ?? (distance < 0 ? null : distanceUnitIn(head[distance] ?? '')),
    owner: '',
    kinds: { ...(Object.fromEntries(guesses) as ListAnswers['kinds']), ...before.kinds },
    plans: {},
  };
}

function Bad({ rows }: { rows: readonly { line: number; name: string; reason: string }[] }) {
  return (
    <section aria-labelledby="bad">
      <h2 id="bad" className="pb-2 text-18 text-rust">
        {rows.length} {rows.length === 1 ? 'row' : 'rows'} left out
      </h2>
      <ul className="max-h-[40vh] overflow-y-auto">
        {rows.slice(0, SHOWN_ROWS).map((row, i) => (
          <li key={i} className="border-b border-rule py-2 text-14">
            <span className="figure pr-3 text-13 text-muted">line {row.line}</span>
            <span className="font-semibold">{row.name}</span>: {row.reason}
          </li>
        ))}
      </ul>
    </section>
  );
}

function Units({ units }: { units: readonly ListedUnit[] }) {
  const reader = useReader();
  return (
    <section aria-labelledby="units">
      <h2 id="units" className="pb-2 text-18 text-pine">
        {units.length} {units.length === 1 ? 'unit' : 'units'}
      </h2>
      <ul className="max-h-[60vh] overflow-y-auto">
        {units.slice(0, SHOWN_ROWS).map((u) => (
          <li key={u.line} className="flex flex-wrap items-center gap-x-5 gap-y-1 border-b border-rule py-2">
            <span className="w-44 shrink-0">
              <PlanDrawing plan={u.plan} />
            </span>
            <span className="min-w-40 flex-1">
              <span className="block text-16 font-semibold">{u.name}</span>
              <span className="text-13 text-muted">
                {[unitKinds[u.kind], u.owner, u.plate].filter(Boolean).join(' · ')}
              </span>
            </span>
            <span className="figure text-14">
              {[u.distance, u.hours].flatMap((q) => (q ? [formatFor(q, reader)] : [])).join(', ') ||
                'no meter'}
            </span>
          </li>
        ))}
        {units.length > SHOWN_ROWS && (
          <li className="py-2 text-13 text-muted">and {units.length - SHOWN_ROWS} more</li>
        )}
      </ul>
    </section>
  );
}

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
  if (q.about === 'kind') return `What kind is “${q.words || 'nothing said'}”?`;
  return `Which plan has ${unitKinds[q.kind]}${q.axles === null ? '' : `, ${q.axles} axles`}?`;
}

function ListForm({ table }: { table: ListTable }) {
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
  const plans = [...new Map(list.units.map((u) => [u.plan.id, u.plan])).values()];
  const asked = list.questions.flatMap((q) => (q.about === 'plan' ? [q] : []));
  const waits = list.questions.map(describeQuestion);
  const rowsWaiting = list.questions.reduce((n, q) => n + (q.about === 'column' ? 0 : q.rows), 0);
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
      <KindFields {...{ answers, set }} words={kindsIn(table.rows, answers.columns)} />
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
      <div className="grid gap-6 lg:grid-cols-[3fr_2fr]">
        <Units units={isNew} />
        {bad.length > 0 && <Bad rows={bad} />}
      </div>
      {looking.error && <Note tone="trouble">{problemText(looking.error)}</Note>}
      {bringing.error && <Note tone="trouble">{problemText(bringing.error)}</Note>}
      <div className="flex flex-wrap gap-3">
        {known === null ? (
          <Button
            weight="main"
            disabled={list.units.length === 0 || looking.isLoading}
            onClick={() => void look()}
          >
            Hold {list.units.length} {list.units.length === 1 ? 'unit' : 'units'} against the fleet
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

/** Bringing in an ordinary list of units, a row each, whatever its columns are called. */
export function FleetListPage() {
  const [table, setTable] = useState<ListTable | null>(null);
  const [refused, setRefused] = useState<string | null>(null);
  const read = async (file: File | undefined) => {
    if (!file) return;
    setRefused(null);
    setTable(null);
    try {
      setTable(await readListFile(file));
    } catch (error) {
      setRefused(error instanceof Error ? error.message : String(error));
    }
  };
  return (
    <main className="mx-auto flex w-full max-w-[1160px] flex-col gap-5 p-5">
      <h1 className="text-23">Import units from a list</h1>
      <p className="max-w-[70ch] text-muted">
        A list as the office keeps it, CSV or XLSX, a row a unit: number, plate, owner, make, model, meter, in
        whatever columns. What it does not tell is asked once for all rows alike. Nothing is saved until you
        say so.
      </p>
      <div className="flex flex-wrap items-center gap-4">
        <label className={buttonLook('plain')}>
          Choose a list
          <input
            type="file"
            accept=".csv,text/csv,.xlsx"
            className="sr-only"
            onChange={(e) => {
              void read(e.target.files?.[0]);
              e.target.value = '';
            }}
          />
        </label>
        {table && <span className="text-14">{table.name}</span>}
        <Link to="/fleet/import" className="underline underline-offset-4">
          A file with a line per axle
        </Link>
      </div>
      {refused && <Note tone="trouble">{refused}</Note>}
      {table && <ListForm key={`${table.name} ${table.rows.length} ${table.head.join()}`} table={table} />}
    </main>
  );
}
