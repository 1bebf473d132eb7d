import { unitKinds } from '@lanternwright/core/axle-plan';
import { listFields, type BadRow, type ListedUnit, type ListField } from '@lanternwright/core/fleet-list';
import { formatFor } from '@lanternwright/core/quantity';
import { works } from '@lanternwright/core/stack';
import { useReader } from '../shell/use-reader.ts';
import { formatDate } from '../shell/words.ts';
import { Button } from '../ui/button.tsx';
import { leftOutFileOf, type ListTable } from './list-file.ts';
import { PlanDrawing } from './plan-drawing.tsx';

const SHOWN_ROWS = 100;

const cellBox =
  'min-h-12 w-full min-w-24 rounded-md border border-edge bg-panel px-2 text-14 focus:border-lamp-edge focus:bg-lamp';

/** Hands a text to the person as a file. */
function saveAs(name: string, text: string): void {
  const url = URL.createObjectURL(new Blob([text], { type: 'text/csv;charset=utf-8' }));
  const link = document.createElement('a');
  Object.assign(link, { href: url, download: name }).click();
  URL.revokeObjectURL(url);
}

/** Rows that are no units as they stand: mended here, or taken along as a file. */
export function BadRows({
  bad,
  table,
  columns,
  onMend,
}: {
  bad: readonly BadRow[];
  table: ListTable;
  columns: readonly (ListField | null)[];
  onMend: (line: number, column: number, text: string) => void;
}) {
  const shown = columns.flatMap((field, at) => (field ? [{ field, at }] : []));
  const cellsOf = new Map(table.rows.map(({ line, cells }) => [line, cells]));
  return (
    <section aria-labelledby="bad" className="flex flex-col gap-2">
      <h2 id="bad" className="text-18 text-rust">
        {bad.length} {bad.length === 1 ? 'row is' : 'rows are'} left out
      </h2>
      <p className="max-w-[70ch] text-14 text-muted">
        Correct a row here and it moves to the units, or save the rows as a file and import them later.
      </p>
      <div className="max-h-[50vh] overflow-auto border-y border-rule">
        <table className="w-full text-left text-14">
          <thead className="sticky top-0 bg-paper">
            <tr>
              <th className="caption px-2 py-2">Line</th>
              <th className="caption px-2 py-2">Why</th>
              {shown.map(({ field, at }) => (
                <th key={at} className="caption px-2 py-2">
                  {table.head[at] || listFields[field]}
                </th>
              ))}
            </tr>
          </thead>
          <tbody>
            {bad.slice(0, SHOWN_ROWS).map(({ line, name, reason }) => (
              <tr key={line} className="border-t border-rule">
                <td className="figure px-2 py-1 text-13 text-muted">line {line}</td>
                <td className="min-w-48 px-2 py-1 text-rust">
                  <span className="font-semibold">{name}</span>: {reason}
                </td>
                {shown.map(({ field, at }) => {
                  const cell = cellsOf.get(line)?.[at] ?? '';
                  return (
                    <td key={at} className="px-1 py-1">
                      <input
                        // A row that was mended may be bad in another way: its cells are shown as they are now.
                        key={cell}
                        aria-label={`${table.head[at] || listFields[field]}, line ${line}`}
                        autoComplete="off"
                        className={cellBox}
                        defaultValue={cell}
                        onBlur={(e) =>
                          e.target.value.trim() !== cell && onMend(line, at, e.target.value.trim())
                        }
                        onKeyDown={(e) => e.key === 'Enter' && e.currentTarget.blur()}
                      />
                    </td>
                  );
                })}
              </tr>
            ))}
          </tbody>
        </table>
      </div>
      {bad.length > SHOWN_ROWS && (
        <p className="text-13 text-muted">and {bad.length - SHOWN_ROWS} more, all of them in the file</p>
      )}
      <div>
        <Button
          onClick={() =>
            void leftOutFileOf(table, bad).then((csv) =>
              saveAs(`${table.name.replace(/\.[a-z]+$/i, '')}, left out.csv`, csv),
            )
          }
        >
          Save these rows as a file
        </Button>
      </div>
    </section>
  );
}

function ListedUnitRow({ unit: u }: { unit: ListedUnit }) {
  const reader = useReader();
  const meters = [u.distance, u.hours].flatMap((q) => (q ? [formatFor(q, reader)] : []));
  return (
    <li className="flex flex-wrap items-center gap-x-5 gap-y-1 border-b border-rule py-2">
      <span className="w-44 shrink-0">
        <PlanDrawing plan={u.plan} />
      </span>
      <span className="min-w-40 flex-1">
        <span className="block text-16 font-semibold">{u.name}</span>
        <span className="block text-13 text-muted">
          {[unitKinds[u.kind], u.owner, u.plate].filter(Boolean).join(' · ')}
        </span>
        {u.told.map(({ work, date }) => (
          <span key={work} className="block text-13 text-muted">
            {works[work]}: {formatDate(date)}
          </span>
        ))}
        {u.remarks && <span className="block text-13 text-muted">{u.remarks}</span>}
        {u.open.map((words) => (
          <span key={words} className="block text-13 text-rust">
            Left open: {words}
          </span>
        ))}
      </span>
      <span className="figure text-14">{meters.join(', ') || 'no meter'}</span>
    </li>
  );
}

/** Rows that are units; those with a cell that could not be read stand first. */
export function ListedUnits({ units }: { units: readonly ListedUnit[] }) {
  const withOpen = units.filter((u) => u.open.length > 0);
  const inOrder = [...withOpen, ...units.filter((u) => u.open.length === 0)];
  return (
    <section aria-labelledby="units">
      <h2 id="units" className="pb-2 text-18 text-pine">
        {units.length} {units.length === 1 ? 'unit' : 'units'}
      </h2>
      {withOpen.length > 0 && (
        <p className="pb-2 text-14 text-muted">
          {withOpen.length === 1 ? 'One comes' : `${withOpen.length} come`} in with a cell left open: it could
          not be read.
        </p>
      )}
      <ul className="max-h-[60vh] overflow-y-auto">
        {inOrder.slice(0, SHOWN_ROWS).map((u) => (
          <ListedUnitRow key={u.line} unit={u} />
        ))}
        {units.length > SHOWN_ROWS && (
          <li className="py-2 text-13 text-muted">and {units.length - SHOWN_ROWS} more</li>
        )}
      </ul>
    </section>
  );
}
