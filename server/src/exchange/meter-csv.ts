import Papa from 'papaparse';

/** Most bad lines that are named one by one; all are counted. */
const NAMED_LINES = 10_000;

/** Whose meters a line is about, as the file says it. */
export interface Named {
  unit: string;
  owner: string;
  plate: string;
}

export interface BadLine {
  line: number;
  text: string;
  reason: string;
}

/** A file of meter readings as a thread read it: columns of numbers, which are handed over without being copied. */
export type MeterFileRead =
  | {
      ok: true;
      distanceIn: 'km' | 'mi';
      /** Everything that lines are about, once. */
      named: Named[];
      /** Of each good line: which of `named`, its day (days since 1970), odometer, hours (NaN where not read), line. */
      of: Uint32Array;
      day: Int32Array;
      distance: Float64Array;
      hours: Float64Array;
      line: Uint32Array;
      bad: BadLine[];
      badCount: number;
    }
  | { ok: false; reason: string };

/** What a column may be called. */
const titles = {
  unit: ['unit', 'unit name', 'number', 'vehicle'],
  owner: ['owner'],
  plate: ['plate', 'registration'],
  date: ['date', 'day', 'read on'],
  km: ['km', 'odometer km', 'distance km'],
  mi: ['mi', 'miles', 'odometer mi', 'odometer miles', 'distance mi'],
  hours: ['hours', 'engine hours', 'h'],
} as const;
type Column = keyof typeof titles;

const MOST = { km: 10_000_000, mi: 6_000_000, hours: 500_000 };
const DAY_MS = 86_400_000;

/** Where each column stands; what is missing for a reading is said. */
function columnsOf(head: readonly string[]): Partial<Record<Column, number>> | string {
  const plain = head.map((h) => h.trim().toLowerCase().replace(/[_.]+/g, ' '));
  const at: Partial<Record<Column, number>> = {};
  for (const column of Object.keys(titles) as Column[]) {
    const found = plain.findIndex((h) => (titles[column] as readonly string[]).includes(h));
    if (found >= 0) at[column] = found;
  }
  if (at.unit === undefined && at.plate === undefined)
    return 'no column says whose meter it is: call one “unit” or “plate”';
  if (at.date === undefined) return 'no column says on which day it was read: call one “date”';
  if (at.km !== undefined && at.mi !== undefined) return 'it has km and miles: keep one of the two';
  if (at.km === undefined && at.mi === undefined && at.hours === undefined)
    return 'no column says what was read: call one “km”, “miles” or “hours”';
  return at;
}

/** A day as days since 1970. */
function dayOf(text: string): number | string {
  const iso = /^(\d{4})-(\d\d)-(\d\d)$/.exec(text);
  const dotted = /^(\d{1,2})\.(\d{1,2})\.(\d{4})$/.exec(text);
  const found = iso ? iso.slice(1) : dotted?.slice(1).reverse();
  if (!found) return `the day “${text}” could mean several: write it as 2026-11-26`;
  const [y, m, d] = found.map(Number) as [number, number, number];
  const at = Date.UTC(y, m - 1, d);
  const date = new Date(at);
  return date.getUTCMonth() === m - 1 && date.getUTCDate() === d ? at / DAY_MS : `there is no day ${text}`;
}

function figureOf(text: string, column: 'km' | 'mi' | 'hours'): number | string {
  if (text === '') return Number.NaN;
  if (!/^\d+(\.\d+)?$/.test(text))
    return `${column}: “${text}” is no plain number: write 123456 or 123456.7, without separators and unit`;
  const value = Number(text);
  return value > MOST[column] ? `${column}: ${text} is more than any meter shows` : value;
}

/**
 * Reads a file of meter readings: a head, then a line for each. Never throws for a bad one.
 * @param today days since 1970; a reading of a later day is bad
 */
export function readMeterCsv(csv: string, today: number, onProgress?: (done: number) => void): MeterFileRead {
  let at: Partial<Record<Column, number>> | null = null;
  let refused: string | null = null;
  let [rows, badCount, told] = [0, 0, 0];
  const keys = new Map<string, number>();
  const named: Named[] = [];
  const bad: BadLine[] = [];
  const columns = {
    of: [] as number[],
    day: [] as number[],
    distance: [] as number[],
    hours: [] as number[],
    line: [] as number[],
  };

  function whyBad(cells: readonly string[]): string | null {
    const cell = (column: Column) => (at![column] === undefined ? '' : (cells[at![column]] ?? '').trim());
    const [unit, plate, owner] = [cell('unit'), cell('plate'), cell('owner')];
    if (unit === '' && plate === '') return 'it does not say whose meter it is';
    const day = dayOf(cell('date'));
    if (typeof day === 'string') return day;
    if (day > today) return `the day ${cell('date')} is still to come`;
    const distance = figureOf(cell(at!.mi === undefined ? 'km' : 'mi'), at!.mi === undefined ? 'km' : 'mi');
    if (typeof distance === 'string') return distance;
    const hours = figureOf(cell('hours'), 'hours');
    if (typeof hours === 'string') return hours;
    if (Number.isNaN(distance) && Number.isNaN(hours)) return 'neither distance nor hours are there';
    const key = `${owner}\n${unit}\n${plate}`.toLowerCase();
    let nth = keys.get(key);
    if (nth === undefined) {
      nth = named.push({ unit, owner, plate }) - 1;
      keys.set(key, nth);
    }
    columns.of.push(nth);
    columns.day.push(day);
    columns.distance.push(distance);
    columns.hours.push(hours);
    columns.line.push(rows);
    return null;
  }

  Papa.parse<string[]>(csv, {
    step({ data, errors, meta }, parser) {
      rows += 1;
      if (data.every((cell) => cell.trim() === '')) return;
      if (at === null) {
        const found = columnsOf(data);
        if (typeof found === 'string') {
          refused = found;
          parser.abort();
        } else at = found;
        return;
      }
      const reason = errors[0]?.message ?? whyBad(data);
      if (reason !== null && ++badCount <= NAMED_LINES)
        bad.push({ line: rows, text: data.join(', ').slice(0, 200), reason });
      if (meta.cursor - told > 1_000_000) onProgress?.((told = meta.cursor) / csv.length);
    },
  });
  if (refused !== null) return { ok: false, reason: refused };
  if (at === null) return { ok: false, reason: 'the file is empty' };
  return {
    ok: true,
    distanceIn: (at as Partial<Record<Column, number>>).mi === undefined ? 'km' : 'mi',
    named,
    of: Uint32Array.from(columns.of),
    day: Int32Array.from(columns.day),
    distance: Float64Array.from(columns.distance),
    hours: Float64Array.from(columns.hours),
    line: Uint32Array.from(columns.line),
    bad,
    badCount,
  };
}
