import {
  guessColumns,
  headRowIn,
  type BadRow,
  type ListedUnit,
  type ListRow,
} from '@lanternwright/core/fleet-list';

/** In which encodings offices keep their lists, by what they are called. */
export const encodings = {
  'utf-8': 'UTF-8',
  'utf-16le': 'UTF-16',
  'utf-16be': 'UTF-16, big end first',
  'windows-1252': 'Windows-1252 (Western Europe, Americas)',
  'windows-1250': 'Windows-1250 (Central Europe)',
  'windows-1251': 'Windows-1251 (Cyrillic)',
} as const;
export type Encoding = keyof typeof encodings;

/** A file as it was read: its sheets, cells as text. */
export interface ListFile {
  name: string;
  /** A CSV has one, without a name. */
  sheets: { name: string; cells: string[][] }[];
  /** How its text was read; null for a workbook, which says so itself. */
  encoding: Encoding | null;
}

/** A table as it was chosen: its heads and its rows. */
export interface ListTable {
  name: string;
  head: string[];
  rows: ListRow[];
}

const MOST_BYTES = 10_000_000;
const MOST_ROWS = 5_000;
/** Enough of a text to see that every second byte of it is empty. */
const SEEN_BYTES = 4_000;

/** A cell of a workbook as somebody would type it. */
const textOf = (cell: unknown): string =>
  cell === null || cell === undefined
    ? ''
    : cell instanceof Date
      ? cell.toISOString().slice(0, 10)
      : String(cell as string | number | boolean).trim();

const isUtf8 = (bytes: Uint8Array): boolean => {
  try {
    new TextDecoder('utf-8', { fatal: true }).decode(bytes);
    return true;
  } catch {
    return false;
  }
};

/** In which encoding a text is, by the mark at its beginning, by its empty bytes, and by whether it is UTF-8 at all. */
function encodingOf(bytes: Uint8Array): Encoding {
  if (bytes[0] === 0xff && bytes[1] === 0xfe) return 'utf-16le';
  if (bytes[0] === 0xfe && bytes[1] === 0xff) return 'utf-16be';
  const seen = bytes.subarray(0, SEEN_BYTES);
  const empty = (odd: 0 | 1) => seen.filter((byte, i) => byte === 0 && i % 2 === odd).length;
  if (empty(1) * 4 > seen.length) return 'utf-16le';
  if (empty(0) * 4 > seen.length) return 'utf-16be';
  return isUtf8(bytes) ? 'utf-8' : 'windows-1252';
}

async function workbookOf(file: File): Promise<ListFile['sheets']> {
  const { default: readSheets } = await import('read-excel-file/universal');
  const sheets = await readSheets(file);
  return sheets.map(({ sheet, data }) => ({ name: sheet, cells: data.map((row) => row.map(textOf)) }));
}

async function cellsOf(text: string): Promise<string[][]> {
  const { default: Papa } = await import('papaparse');
  const { data } = Papa.parse<string[]>(text.replace(/^\uFEFF/, ''), { skipEmptyLines: false });
  return data.map((row) => row.map((cell) => cell.trim()));
}

/**
 * Reads a list: a CSV, whatever parts its cells, or a workbook (XLSX) with all of its sheets.
 * @param as in which encoding, where somebody has said it
 * @throws Error in words
 */
export async function readListFile(file: File, as?: Encoding): Promise<ListFile> {
  const { name } = file;
  if (file.size > MOST_BYTES) throw new Error(`${name} is over 10 MB: a list of units is smaller`);
  if (/\.xls$/i.test(name)) throw new Error(`${name} is of an old form: save it as XLSX or CSV`);
  try {
    if (/\.xlsx$/i.test(name)) return { name, encoding: null, sheets: await workbookOf(file) };
    const bytes = new Uint8Array(await file.arrayBuffer());
    const encoding = as ?? encodingOf(bytes);
    return {
      name,
      encoding,
      sheets: [{ name: '', cells: await cellsOf(new TextDecoder(encoding).decode(bytes)) }],
    };
  } catch (error) {
    const why = error instanceof Error ? error.message : String(error);
    throw new Error(`${name} cannot be read: ${why}`, { cause: error });
  }
}

const isEmpty = (cells: readonly string[]) => cells.every((cell) => cell === '');

/** The sheet that holds the list, probably: the one whose heads name most of what is wanted. */
export function likelySheet({ sheets }: ListFile): number {
  const named = sheets.map(({ cells }) => guessColumns(cells[headRowIn(cells)] ?? []).filter(Boolean).length);
  return Math.max(0, named.indexOf(Math.max(...named)));
}

/**
 * The rows under the heads of a sheet. Where a list repeats its heads, they are no row.
 * @param headAt index of the row with the heads
 * @throws Error in words
 */
export function tableOf(file: ListFile, sheet: number, headAt: number): ListTable {
  const cells = file.sheets[sheet]?.cells ?? [];
  const head = cells[headAt] ?? [];
  const heads = head.join('\n');
  const rows = cells
    .map((row, i) => ({ line: i + 1, cells: row }))
    .slice(headAt + 1)
    .filter((row) => row.cells.join('\n') !== heads);
  if (rows.every((row) => isEmpty(row.cells))) throw new Error(`${file.name} has no rows under its head`);
  if (rows.length > MOST_ROWS)
    throw new Error(`${file.name} has ${rows.length} rows; ${MOST_ROWS} at most: bring it in by parts`);
  const width = Math.max(head.length, ...rows.map((row) => row.cells.length));
  return { name: file.name, head: Array.from({ length: width }, (_, i) => head[i] ?? ''), rows };
}

/** Rows that are not in, as a file of the same columns with the reason of each: mended, it is brought in again. */
export async function leftOutFileOf({ head, rows }: ListTable, bad: readonly BadRow[]): Promise<string> {
  const { default: Papa } = await import('papaparse');
  const reasons = new Map(bad.map((row) => [row.line, row.reason]));
  const data = rows
    .filter(({ line }) => reasons.has(line))
    .map(({ line, cells }) => [...head.map((_, i) => cells[i] ?? ''), reasons.get(line)!]);
  return `\uFEFF${Papa.unparse({ fields: [...head, 'Why it was left out'], data }, { escapeFormulae: true })}\r\n`;
}

/** Sheets that were chosen for an axle of a plan, by `sheetKey`. */
export type ChosenSheets = Readonly<Record<string, string>>;
export const sheetKey = (planId: string, axle: number): string => `${planId} ${axle}`;

/**
 * Units as the fleet file that the server takes: a line an axle.
 * @returns the file, and the line of the list that each of its lines is from
 */
export async function fleetFileOf(
  units: readonly ListedUnit[],
  sheets: ChosenSheets,
): Promise<{ csv: string; lineOf: (line: number) => number }> {
  const { default: Papa } = await import('papaparse');
  const lines: number[] = [];
  const rows = units.flatMap(({ line, owner, name, kind, plate, distance, hours, plan, remarks, told }) =>
    plan.axles.map(({ role, wheels, brake, sheet }, i) => {
      lines.push(line);
      return {
        ...{ owner, unit: name, kind, plate },
        distance: distance ? `${distance.value} ${distance.unit}` : '',
        hours: hours ? `${hours.value} h` : '',
        ...{ axle: i + 1, role, wheels, brake, sheet: sheets[sheetKey(plan.id, i)] ?? sheet.sheetId },
        ...{ remarks, last_done: told.map(({ work, date }) => `${work} ${date}`).join('; ') },
      };
    }),
  );
  return { csv: Papa.unparse(rows, { escapeFormulae: true }), lineOf: (line) => lines[line - 2] ?? line };
}
