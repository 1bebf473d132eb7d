import { isValid, parse } from 'date-fns';
import { parseQuantity, quantity, type Quantity } from '../quantity/index.ts';

/** How a column parts its figures: `1,250.5` or `1.250,5`. */
export type NumberStyle = 'comma-groups' | 'point-groups';
/** How a column writes a day in figures alone: `31/12/2025` or `12/31/2025`. */
export type DateOrder = 'day-first' | 'month-first';

/** What a column says of its own style. */
export interface StyleSeen<S> {
  /** The one style that all its cells have; null where they leave it open, or contradict each other. */
  style: S | null;
  /** A cell that could be read either way; null where there is none, and nothing needs to be asked. */
  example: string | null;
}

/** What people write where they know nothing. */
const NOTHING_KNOWN = /^(n\/?[ak]|none|nil|unkn?(own)?|tb[ac]|not known|broken|faulty|[-\u2013\u2014?.x]+)$/i;
export const isNothingKnown = (cell: string): boolean => NOTHING_KNOWN.test(cell.trim());

/** The same as in the row above. */
const DITTO = /^("|\u201d|\u3003|''|ditto|do\.|same|as above)$/i;
export const isDitto = (cell: string): boolean => DITTO.test(cell.trim());

const FIGURE = /\d[\d.,'\u2019\s]*/;
/** The figure in a cell, without spaces and apostrophes that part its thousands. */
const figureIn = (cell: string): string =>
  (FIGURE.exec(cell)?.[0] ?? '').replace(/['\u2019\s]/g, '').replace(/[.,]$/, '');

const decimalMark = { 'comma-groups': '.', 'point-groups': ',' } as const;

/** What one figure says of its style: one style, either, or nothing. */
function styleOf(figure: string): NumberStyle | 'either' | null {
  const marks = [...figure.matchAll(/[.,]/g)].map((m) => m[0]);
  const last = marks.at(-1);
  if (!last) return null;
  const grouping = last === ',' ? 'comma-groups' : 'point-groups';
  const decimal = last === ',' ? 'point-groups' : 'comma-groups';
  if (new Set(marks).size > 1) return decimal;
  const [whole = '', ...groups] = figure.split(/[.,]/);
  if (groups.length > 1) return grouping;
  return groups[0]!.length === 3 && /^[1-9]\d{0,2}$/.test(whole) ? 'either' : decimal;
}

/** In which style the figures of a column are written. */
export function numberStyleIn(cells: readonly string[]): StyleSeen<NumberStyle> {
  const seen = cells.map((cell) => ({ cell: cell.trim(), style: styleOf(figureIn(cell)) }));
  const sure = new Set(seen.flatMap(({ style }) => (style === null || style === 'either' ? [] : [style])));
  const example = seen.find(({ style }) => style === 'either')?.cell ?? null;
  return { style: sure.size === 1 ? [...sure][0]! : null, example };
}

const ABOUT = /^(ca\.?|circa|approx\.?|about|abt\.?|~|\u2248)\s*/i;

/**
 * A meter as a list has it: `402 118`, `611,240 km`, `ca. 98.000`, `120k`, `4,210.5 hrs`.
 * @param style how its column parts figures; null where that was not said, and figures that could be two things are none
 * @returns null where the cell holds no figure of these units
 */
export function readMeter(
  cell: string,
  units: readonly ('km' | 'mi' | 'h')[],
  assumed: 'km' | 'mi' | 'h' | undefined,
  style: NumberStyle | null,
): Quantity | null {
  const said = cell.trim().replace(ABOUT, '');
  const match = /^(\d[\d.,'\u2019\s]*?)\s*(k(?![a-z]))?\s*([a-z.]*)$/i.exec(said);
  if (!match) return null;
  const figure = figureIn(match[1]!);
  if (styleOf(figure) === 'either' && style === null) return null;
  const read = style ?? styleOf(figure);
  const mark = decimalMark[read === 'point-groups' ? 'point-groups' : 'comma-groups'];
  const parted = figure.split(mark);
  // Thousands have three figures each: `12,34,5` is a slip.
  const grouped = /^\d{1,3}([.,]\d{3})+$|^\d+$/.test(parted[0]!);
  if (!grouped || parted.length > 2 || /[.,]/.test(parted[1] ?? '')) return null;
  const value = Number(`${parted[0]!.replace(/[.,]/g, '')}.${parted[1] ?? '0'}`);
  const one = parseQuantity(`1 ${match[3]!}`, units, assumed);
  return one.ok ? quantity(match[2] ? value * 1000 : value, one.quantity.unit) : null;
}

/** Days that say by themselves what is day and what is month, by how they look. */
const PLAIN_DATES: readonly [looks: RegExp, formats: readonly string[]][] = [
  [/^\d{4}[-/.]\d/, ['yyyy-M-d', 'yyyy/M/d', 'yyyy.M.d', 'yyyy-M']],
  [/^\d{1,2}\.\d{1,2}\.\d/, ['d.M.yyyy', 'd.M.yy']],
  [/^\d{1,2}[ -][a-z]/i, ['d MMM yyyy', 'd MMMM yyyy', 'd-MMM-yyyy', 'd-MMM-yy', 'd MMM yy']],
  [/^[a-z]+ \d{1,2}\b/i, ['MMM d, yyyy', 'MMMM d, yyyy', 'MMM d yyyy', 'MMMM d yyyy']],
  // A month alone begins with its first day: what is due by it is due sooner, and not later.
  [/^[a-z]+[ -]\d/i, ['MMM yyyy', 'MMMM yyyy', 'MMM-yyyy', 'MMM-yy']],
  [/^\d{1,2}[/.]\d{4}$/, ['M/yyyy', 'M.yyyy']],
  [/^\d{4}$/, ['yyyy']],
];
const IN_ORDER: Record<DateOrder, readonly string[]> = {
  'day-first': ['d/M/yyyy', 'd/M/yy', 'd-M-yyyy', 'd-M-yy'],
  'month-first': ['M/d/yyyy', 'M/d/yy', 'M-d-yyyy', 'M-d-yy'],
};
/** A day in figures alone, whose order its column tells. */
const IN_FIGURES = /^(\d{1,2})[-/](\d{1,2})[-/]\d/;
/** Any day in the years that two figures are read as. */
const REFERENCE = new Date(2020, 0, 1);
const EARLIEST_YEAR = 1970;

const two = (n: number) => String(n).padStart(2, '0');

function parsedBy(formats: readonly string[], text: string): string | null {
  for (const format of formats) {
    const date = parse(text, format, REFERENCE);
    if (isValid(date) && date.getFullYear() >= EARLIEST_YEAR && date.getFullYear() < 2100)
      return `${date.getFullYear()}-${two(date.getMonth() + 1)}-${two(date.getDate())}`;
  }
  return null;
}

/** A spreadsheet's own count of days since 1899-12-30, in the years in which lists are kept. */
function fromSerial(text: string): string | null {
  const days = /^[34]\d{4}$/.test(text) ? Number(text) : NaN;
  return Number.isNaN(days) ? null : new Date(Date.UTC(1899, 11, 30 + days)).toISOString().slice(0, 10);
}

/** A list is read again after each answer, and its days are the same few. */
const daysRead = new Map<string, string | null>();
const MOST_READ = 20_000;

/**
 * A day as a list has it: `2025-03-12`, `12.3.25`, `12 Mar 2025`, `03/2025`, or in figures by the order of its column.
 * @param order null where nobody has said it: a day that could be two is none then
 * @returns ISO 8601; null where the cell holds no day
 */
export function readDate(cell: string, order: DateOrder | null): string | null {
  const key = `${order} ${cell}`;
  const known = daysRead.get(key);
  if (known !== undefined) return known;
  if (daysRead.size >= MOST_READ) daysRead.clear();
  const day = dayIn(cell, order);
  daysRead.set(key, day);
  return day;
}

function dayIn(cell: string, order: DateOrder | null): string | null {
  const text = cell
    .trim()
    .replace(/[T ]\d{1,2}:\d{2}.*$/, '')
    .replace(/(\d)(st|nd|rd|th)\b/i, '$1')
    .replace(/\bsept\b/i, 'Sep')
    .replace(/\s+/g, ' ');
  const formats = PLAIN_DATES.find(([looks]) => looks.test(text))?.[1] ?? [];
  const plain = parsedBy(formats, text) ?? fromSerial(text);
  if (plain !== null) return plain;
  if (!IN_FIGURES.test(text)) return null;
  if (order !== null) return parsedBy(IN_ORDER[order], text);
  const [day, month] = [parsedBy(IN_ORDER['day-first'], text), parsedBy(IN_ORDER['month-first'], text)];
  return day === null || month === null || day === month ? (day ?? month) : null;
}

/** In which order the days of a column are written. */
export function dateOrderIn(cells: readonly string[]): StyleSeen<DateOrder> {
  const sure = new Set<DateOrder>();
  let example: string | null = null;
  for (const cell of cells) {
    const [, first, second] = IN_FIGURES.exec(cell.trim()) ?? [];
    if (Number(first) > 12) sure.add('day-first');
    else if (Number(second) > 12) sure.add('month-first');
    else if (first !== undefined && Number(first) !== Number(second)) example ??= cell.trim();
  }
  return { style: sure.size === 1 ? [...sure][0]! : null, example };
}

/** Number and plate in one cell: `T1 / TH 11`, `T1 (TH 11)`, `T1 - TH 11`. One alone is the number. */
export function splitNames(cell: string): [first: string, second: string] {
  const match =
    /^(.+?)\s*[([]\s*(.+?)\s*[)\]]$/.exec(cell.trim()) ??
    /^(.+?)(?:\s*[/|;,]\s*|\s+[-\u2013]\s+|\s{2,}|\n)(.+)$/.exec(cell.trim());
  return match ? [match[1]!.trim(), match[2]!.trim()] : [cell.trim(), ''];
}

const looksLikePlate = (text: string) => /^(?=.*\d)(?=.*[a-z])[a-z0-9][a-z0-9 -]{2,10}$/i.test(text);

/** Whether most cells of a column hold a number and a plate. */
export function holdsBoth(cells: readonly string[]): boolean {
  const filled = cells.filter((cell) => cell.trim() !== '');
  const both = filled.filter((cell) => looksLikePlate(splitNames(cell)[1]));
  return filled.length > 0 && both.length * 2 > filled.length;
}
