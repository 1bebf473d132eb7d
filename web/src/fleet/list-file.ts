import type { ListedUnit } from '@lanternwright/core/fleet-list';

/** A table as it was chosen: its head and its rows, cells as text. */
export interface ListTable {
  name: string;
  head: string[];
  rows: string[][];
}

const MOST_BYTES = 10_000_000;
const MOST_ROWS = 5_000;

/** A cell of a workbook as somebody would type it. */
const textOf = (cell: unknown): string =>
  cell === null || cell === undefined
    ? ''
    : cell instanceof Date
      ? cell.toISOString().slice(0, 10)
      : String(cell as string | number | boolean).trim();

async function cellsOf(file: File): Promise<string[][]> {
  if (/\.xlsx$/i.test(file.name)) {
    const { readSheet } = await import('read-excel-file/universal');
    return (await readSheet(file)).map((row) => row.map(textOf));
  }
  const { default: Papa } = await import('papaparse');
  const { data } = Papa.parse<string[]>((await file.text()).replace(/^\uFEFF/, ''), {
    skipEmptyLines: false,
  });
  return data.map((row) => row.map((cell) => cell.trim()));
}

/**
 * Reads a list from a CSV, whatever parts its cells, or from the first sheet of a workbook (XLSX). Its first row that is
 * not empty is the head.
 * @throws Error in words
 */
export async function readListFile(file: File): Promise<ListTable> {
  if (file.size > MOST_BYTES) throw new Error(`${file.name} is over 10 MB: a list of units is smaller`);
  if (/\.xls$/i.test(file.name)) throw new Error(`${file.name} is of an old form: save it as XLSX or CSV`);
  const cells = await cellsOf(file).catch((error: unknown) => {
    const why = error instanceof Error ? error.message : String(error);
    throw new Error(`${file.name} cannot be read: ${why}`);
  });
  const first = cells.findIndex((row) => row.some((cell) => cell !== ''));
  const [head, ...rows] = first < 0 ? [] : cells.slice(first);
  if (!head || rows.every((row) => row.every((cell) => cell === '')))
    throw new Error(`${file.name} has no rows under its head`);
  if (rows.length > MOST_ROWS)
    throw new Error(`${file.name} has ${rows.length} rows; ${MOST_ROWS} at most: bring it in by parts`);
  const width = Math.max(head.length, ...rows.map((row) => row.length));
  return {
    name: file.name,
    head: Array.from({ length: width }, (_, i) => head[i] ?? ''),
    rows,
  };
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
  const rows = units.flatMap(({ line, owner, name, kind, plate, distance, hours, plan }) =>
    plan.axles.map(({ role, wheels, brake, sheet }, i) => {
      lines.push(line);
      return {
        ...{ owner, unit: name, kind, plate },
        distance: distance ? `${distance.value} ${distance.unit}` : '',
        hours: hours ? `${hours.value} h` : '',
        ...{ axle: i + 1, role, wheels, brake, sheet: sheets[sheetKey(plan.id, i)] ?? sheet.sheetId },
      };
    }),
  );
  return { csv: Papa.unparse(rows, { escapeFormulae: true }), lineOf: (line) => lines[line - 2] ?? line };
}
