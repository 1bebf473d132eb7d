import { useState, type ClipboardEvent } from 'react';
import { typedNumber } from '@lanternwright/core/quantity';
import { Button } from '../ui/button.tsx';

/** Readings by part, then person, then trial. */
type Study = number[][][];

type Cells = string[][];

interface Size {
  persons: number;
  trials: number;
}

const LEAST = 2;
const MOST = { parts: 200, persons: 50, trials: 50 };

const listOf = (value: unknown): unknown[] => (Array.isArray(value) ? value : []);

/**
 * A study as a table: a row a part, with the trials of one person beside those of the next. Whatever was handed over is
 * made a table of: where it has no figure, the cell is empty.
 */
function tableOf(value: unknown): { cells: Cells; size: Size } {
  const parts = listOf(value).map((part) => listOf(part).map(listOf));
  const size = {
    persons: Math.max(LEAST, ...parts.map((part) => part.length)),
    trials: Math.max(LEAST, ...parts.flat().map((trials) => trials.length)),
  };
  const cells = Array.from({ length: Math.max(LEAST, parts.length) }, (_, part) =>
    Array.from({ length: size.persons * size.trials }, (_cell, i) => {
      const reading = parts[part]?.[Math.floor(i / size.trials)]?.[i % size.trials];
      return typeof reading === 'number' ? String(reading) : '';
    }),
  );
  return { cells, size };
}

const studyOf = (cells: Cells, { persons, trials }: Size): Study =>
  cells.map((row) =>
    Array.from({ length: persons }, (_, i) =>
      row.slice(i * trials, (i + 1) * trials).map((t) => typedNumber(t)),
    ),
  );

/** Puts a table that was copied elsewhere into the cells, from one on; what does not fit is left out. */
function pasteInto(cells: Cells, text: string, at: { row: number; column: number }): Cells {
  const lines = text
    .replace(/\s+$/, '')
    .split(/\r?\n/)
    .map((line) => line.split(/\t|;| +/));
  return cells.map((row, r) => row.map((cell, c) => lines[r - at.row]?.[c - at.column]?.trim() ?? cell));
}

function Count({
  label,
  value,
  most,
  onChange,
}: {
  label: string;
  value: number;
  most: number;
  onChange: (value: number) => void;
}) {
  const button = 'size-11 rounded-md border border-edge bg-panel text-18 disabled:opacity-40';
  return (
    <div role="group" aria-label={label} className="flex items-center gap-2">
      <span className="text-14">
        {label} <span className="figure">{value}</span>
      </span>
      <button
        type="button"
        className={button}
        aria-label={`One of the ${label.toLowerCase()} less`}
        disabled={value <= LEAST}
        onClick={() => onChange(value - 1)}
      >
        −
      </button>
      <button
        type="button"
        className={button}
        aria-label={`One of the ${label.toLowerCase()} more`}
        disabled={value >= most}
        onClick={() => onChange(value + 1)}
      >
        +
      </button>
    </div>
  );
}

/** The readings of a gauge study as a table: a row a part, under each person their trials; typed, or pasted from a sheet. */
export function StudyField({
  value,
  error,
  onChange,
}: {
  value: unknown;
  error: string | undefined;
  onChange: (study: Study) => void;
}) {
  const [{ cells, size }, setTable] = useState(() => tableOf(value));
  const [seen, setSeen] = useState(value);
  if (seen !== value) {
    setSeen(value);
    // What was typed here stands already; an example that was taken does not.
    if (JSON.stringify(studyOf(cells, size)) !== JSON.stringify(value)) setTable(tableOf(value));
  }
  const set = (next: Cells, of: Size = size) => {
    setTable({ cells: next, size: of });
    const study = studyOf(next, of);
    if (study.flat(2).every(Number.isFinite)) onChange(study);
  };
  const shape = (parts: number, of: Size) =>
    set(
      Array.from({ length: parts }, (_, part) =>
        Array.from({ length: of.persons * of.trials }, (_cell, i) => {
          const [person, trial] = [Math.floor(i / of.trials), i % of.trials];
          return person < size.persons && trial < size.trials
            ? (cells[part]?.[person * size.trials + trial] ?? '')
            : '';
        }),
      ),
      of,
    );
  const missing = cells.flat().filter((text) => !Number.isFinite(typedNumber(text))).length;
  const paste = (e: ClipboardEvent, row: number, column: number) => {
    const text = e.clipboardData.getData('text');
    if (!/[\t\n;]/.test(text.trim())) return;
    e.preventDefault();
    set(pasteInto(cells, text, { row, column }));
  };
  const letter = (person: number) => `Person ${person + 1}`;
  return (
    <fieldset className="flex min-w-0 flex-col gap-3">
      <legend className="caption pb-1">Readings, a row a part</legend>
      <div className="flex flex-wrap gap-x-5 gap-y-2">
        <Count label="Parts" value={cells.length} most={MOST.parts} onChange={(n) => shape(n, size)} />
        <Count
          label="Persons"
          value={size.persons}
          most={MOST.persons}
          onChange={(n) => shape(cells.length, { ...size, persons: n })}
        />
        <Count
          label="Trials"
          value={size.trials}
          most={MOST.trials}
          onChange={(n) => shape(cells.length, { ...size, trials: n })}
        />
      </div>
      <div className="overflow-x-auto">
        <table className="border-separate border-spacing-1 text-13">
          <thead>
            <tr>
              <th scope="col" className="text-left font-normal text-muted">
                Part
              </th>
              {Array.from({ length: size.persons }, (_, p) => (
                <th key={p} scope="colgroup" colSpan={size.trials} className="text-left font-semibold">
                  {letter(p)}
                </th>
              ))}
            </tr>
          </thead>
          <tbody>
            {cells.map((row, r) => (
              <tr key={r}>
                <th scope="row" className="figure pr-1 font-normal text-muted">
                  {r + 1}
                </th>
                {row.map((text, c) => (
                  <td key={c}>
                    <input
                      aria-label={`Part ${r + 1}, ${letter(Math.floor(c / size.trials)).toLowerCase()}, trial ${(c % size.trials) + 1}`}
                      inputMode="decimal"
                      className={`figure h-11 w-16 rounded-md border bg-panel px-2 ${Number.isFinite(typedNumber(text)) ? 'border-edge' : 'border-rust'} ${c % size.trials === 0 ? 'ml-1' : ''}`}
                      value={text}
                      onPaste={(e) => paste(e, r, c)}
                      onChange={(e) =>
                        set(
                          cells.map((old, i) =>
                            i === r ? old.map((o, k) => (k === c ? e.target.value : o)) : old,
                          ),
                        )
                      }
                    />
                  </td>
                ))}
              </tr>
            ))}
          </tbody>
        </table>
      </div>
      <p role="status" className={`text-13 ${missing > 0 || error ? 'text-rust' : 'text-muted'}`}>
        {missing > 0
          ? `${missing} of ${cells.flat().length} are no figure yet; the result is of what stood before.`
          : (error ?? 'A table copied from a spreadsheet can be pasted into its first cell.')}
      </p>
      <div>
        <Button weight="quiet" onClick={() => set(cells.map((row) => row.map(() => '')))}>
          Empty the table
        </Button>
      </div>
    </fieldset>
  );
}
