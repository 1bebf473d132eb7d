import { useState } from 'react';
import { Link } from 'react-router';
import { headRowIn } from '@lanternwright/core/fleet-list';
import { buttonLook } from '../ui/button.tsx';
import { SelectField } from '../ui/field.tsx';
import { Note } from '../ui/problem-note.tsx';
import {
  encodings,
  likelySheet,
  readListFile,
  tableOf,
  type Encoding,
  type ListFile,
  type ListTable,
} from './list-file.ts';
import { ListForm } from './list-form.tsx';

/** Rows of which one can hold the heads. */
const ROWS_ABOVE = 20;
const SHOWN_CELLS = 4;

interface Chosen {
  source: File;
  file: ListFile;
  sheet: number;
  headAt: number;
}

const inWords = (error: unknown) => (error instanceof Error ? error.message : String(error));

function chosenOf(source: File, file: ListFile, sheet = likelySheet(file)): Chosen {
  return { source, file, sheet, headAt: headRowIn(file.sheets[sheet]?.cells ?? []) };
}

/** How the file was read: each of it was seen, and can be said otherwise. */
function FileFields({
  chosen: { source, file, sheet, headAt },
  onChange,
  onRead,
}: {
  chosen: Chosen;
  onChange: (chosen: Chosen) => void;
  onRead: (as: Encoding) => void;
}) {
  const rows = (file.sheets[sheet]?.cells ?? [])
    .slice(0, ROWS_ABOVE)
    .map((cells, at) => ({ at, words: cells.filter(Boolean).slice(0, SHOWN_CELLS).join(' · ') }))
    .filter(({ words }) => words !== '');
  return (
    <section
      aria-label="How the file was read"
      className="grid gap-x-5 gap-y-3 sm:grid-cols-2 lg:grid-cols-3"
    >
      {file.encoding && (
        <SelectField
          label="Text encoding"
          hint="Choose another if names look wrong"
          value={file.encoding}
          onChange={(e) => onRead(e.target.value as Encoding)}
        >
          {Object.entries(encodings).map(([encoding, title]) => (
            <option key={encoding} value={encoding}>
              {title}
            </option>
          ))}
        </SelectField>
      )}
      {file.sheets.length > 1 && (
        <SelectField
          label="Sheet"
          value={sheet}
          onChange={(e) => onChange(chosenOf(source, file, Number(e.target.value)))}
        >
          {file.sheets.map(({ name }, i) => (
            <option key={i} value={i}>
              {name}
            </option>
          ))}
        </SelectField>
      )}
      <SelectField
        label="Column headings are in"
        value={headAt}
        onChange={(e) => onChange({ source, file, sheet, headAt: Number(e.target.value) })}
      >
        {rows.map(({ at, words }) => (
          <option key={at} value={at}>
            Line {at + 1}: {words}
          </option>
        ))}
      </SelectField>
    </section>
  );
}

function Chosen({ chosen }: { chosen: Chosen }) {
  const { file, sheet, headAt } = chosen;
  let table: ListTable;
  try {
    table = tableOf(file, sheet, headAt);
  } catch (error) {
    return <Note tone="trouble">{inWords(error)}</Note>;
  }
  return <ListForm table={table} />;
}

/** Bringing in an ordinary list of units, a row each, whatever its columns are called. */
export function FleetListPage() {
  const [chosen, setChosen] = useState<Chosen | null>(null);
  /** Counts readings: what was said of one file is not said of the next. */
  const [nth, setNth] = useState(0);
  const [refused, setRefused] = useState<string | null>(null);
  const choose = (next: Chosen | null) => {
    setChosen(next);
    setNth(nth + 1);
  };
  const read = async (source: File, as?: Encoding) => {
    setRefused(null);
    try {
      choose(chosenOf(source, await readListFile(source, as)));
    } catch (error) {
      choose(null);
      setRefused(inWords(error));
    }
  };
  return (
    <main className="mx-auto flex w-full max-w-[1160px] flex-col gap-5 p-5">
      <h1 className="text-23">Import units from a list</h1>
      <p className="max-w-[70ch] text-muted">
        A list as the office keeps it, CSV or XLSX, a row a unit: number, plate, owner, make, model, meter,
        remarks, dates of the last services, in whatever columns. What it does not tell is asked once for all
        rows alike. Nothing is saved until you say so.
      </p>
      <div className="flex flex-wrap items-center gap-4">
        <label className={buttonLook('plain')}>
          Choose a list
          <input
            type="file"
            accept=".csv,text/csv,.txt,.tsv,.xlsx"
            className="sr-only"
            onChange={(e) => {
              const [source] = e.target.files ?? [];
              if (source) void read(source);
              e.target.value = '';
            }}
          />
        </label>
        {chosen && <span className="text-14">{chosen.file.name}</span>}
        <Link to="/fleet/import" className="underline underline-offset-4">
          A file with a line per axle
        </Link>
      </div>
      {refused && <Note tone="trouble">{refused}</Note>}
      {chosen && (
        <FileFields
          chosen={chosen}
          onChange={choose}
          onRead={(encoding) => void read(chosen.source, encoding)}
        />
      )}
      {chosen && <Chosen key={nth} chosen={chosen} />}
    </main>
  );
}
