import type { Layout, UnitKind } from '../axle-plan/index.ts';
import type { Quantity } from '../quantity/index.ts';
import {
  dateOrderIn,
  isDitto,
  isNothingKnown,
  numberStyleIn,
  readDate,
  readMeter,
  splitNames,
  type DateOrder,
  type NumberStyle,
  type StyleSeen,
} from './cells.ts';
import { listedWorks, type LastField, type ListedWork, type ListField } from './columns.ts';
import { axlesIn, kindIn, onlyPlan, plansFor } from './kinds.ts';

/** What the supervisor said of a list. */
export interface ListAnswers {
  /** What each column is. */
  columns: readonly (ListField | null)[];
  /** In what a bare odometer figure counts; null where nobody has said. */
  distanceUnit: 'km' | 'mi' | null;
  /** How the figures of a column are parted, and in which order its days stand, where they do not say it themselves. */
  styles: Partial<Record<'distance' | 'hours', NumberStyle> & Record<LastField, DateOrder>>;
  /** Whose they are, where no column says it. */
  owner: string;
  /** Whether a row that names no owner belongs to the one above; null where nobody has said. */
  ownerAbove: boolean | null;
  /** Kinds by the words of the list. */
  kinds: Readonly<Record<string, UnitKind>>;
  /** Plans by group: kind and number of axles. */
  plans: Readonly<Record<string, string>>;
  /** The shop’s date, ISO 8601: nothing was done after it. */
  today: string;
}

/** A row as a unit. */
export interface ListedUnit {
  /** Its line in the file. */
  line: number;
  owner: string;
  name: string;
  kind: UnitKind;
  plate: string;
  distance: Quantity | null;
  hours: Quantity | null;
  remarks: string;
  /** When works were done last, on all of its wheel ends. */
  told: { work: ListedWork; date: string }[];
  plan: Layout;
  /** Cells that could not be read and are left open, in words. */
  open: string[];
}

/** What has to be said before the rows it is about are units. */
export type ListQuestion =
  | { about: 'column'; field: 'unit' | 'owner' | 'owner-above' | 'distance'; words: string }
  | {
      about: 'numbers';
      field: 'distance' | 'hours';
      example: string;
      /** Whether it is also asked what the figures count. */
      unit: 'asked' | 'known';
    }
  | { about: 'dates'; field: LastField; example: string }
  | { about: 'kind'; words: string; rows: number }
  | {
      about: 'plan';
      group: string;
      kind: UnitKind;
      axles: number | null;
      plans: readonly Layout[];
      rows: number;
    };

/** A row that is no unit as it stands. */
export interface BadRow {
  line: number;
  name: string;
  reason: string;
}

export interface FleetList {
  units: ListedUnit[];
  questions: ListQuestion[];
  bad: BadRow[];
}

/** A row of a list and its line in the file, which begins with 1. */
export interface ListRow {
  line: number;
  cells: readonly string[];
}

export const groupOf = (kind: UnitKind, axles: number | null): string => `${kind} ${axles ?? 'any'}`;
const lastFieldOf = (work: ListedWork): LastField => `last-${work}`;

/** The words of a row that tell its kind, as they are asked about. */
const kindWordsOf = (row: Pick<Record<ListField, string>, 'kind' | 'make' | 'model'>): string =>
  (row.kind || [row.make, row.model].filter(Boolean).join(' ')).replace(/\s+/g, ' ').toLowerCase();

type Row = Record<'unit' | 'plate' | 'owner' | 'kind' | 'make' | 'model' | 'axles' | 'remarks', string> & {
  line: number;
  cell: (field: ListField) => string;
};

const isEmpty = ({ cells }: ListRow) => cells.every((c) => c.trim() === '');
const keyOf = (text: string) => text.replace(/[\s-]/g, '').toLowerCase();

/** Reads the cells of a list by what its columns are; a ditto mark is the cell above it. */
function rowsBy(rows: readonly ListRow[], { columns, owner, ownerAbove }: ListAnswers): Row[] {
  const at = (field: ListField) => columns.indexOf(field);
  const above = new Map<ListField, string>();
  return rows
    .filter((row) => !isEmpty(row))
    .map(({ line, cells }) => {
      const cell = (field: ListField): string => {
        const said = at(field) < 0 ? '' : (cells[at(field)] ?? '').trim();
        const meant = isDitto(said) ? (above.get(field) ?? '') : said;
        if (meant !== '') above.set(field, meant);
        return meant;
      };
      const both = splitNames(cell('unit-plate') || cell('plate-unit'));
      const [number, plate] = at('plate-unit') < 0 ? both : [both[1], both[0]];
      const ownerOfAbove = ownerAbove === true ? (above.get('owner') ?? '') : '';
      return {
        ...{ line, cell, unit: cell('unit') || number, plate: cell('plate') || plate },
        owner: cell('owner') || ownerOfAbove || owner.trim(),
        ...{ kind: cell('kind'), make: cell('make'), model: cell('model') },
        axles: isNothingKnown(cell('axles')) ? '' : cell('axles'),
        remarks: columns
          .flatMap((field, i) => (field === 'remarks' ? [(cells[i] ?? '').trim()] : []))
          .filter(Boolean)
          .join('; '),
      };
    });
}

export type StyleQuestion = Extract<ListQuestion, { about: 'numbers' | 'dates' }>;

/** Whether odometers stand in the list without what they count. */
const countsBare = (rows: readonly ListRow[], { columns }: Pick<ListAnswers, 'columns'>): boolean =>
  rows.some(({ cells }) => {
    const cell = cells[columns.indexOf('distance')] ?? '';
    return /\d/.test(cell) && !/\b(km|kms|mi|miles?)\b|\dkm|\dmi/i.test(cell);
  });

/** Columns whose figures or days could be read in two ways, each with a cell that could, answered or not. */
export function openStyles(
  rows: readonly ListRow[],
  { columns, distanceUnit }: Pick<ListAnswers, 'columns' | 'distanceUnit'>,
): StyleQuestion[] {
  const unit = distanceUnit === null && countsBare(rows, { columns }) ? 'asked' : 'known';
  const seen = <S>(field: ListField, styleIn: (cells: string[]) => StyleSeen<S>): string | null => {
    const at = columns.indexOf(field);
    if (at < 0) return null;
    const { style, example } = styleIn(rows.map((row) => (row.cells[at] ?? '').trim()));
    return style === null ? example : null;
  };
  return [
    ...(['distance', 'hours'] as const).flatMap((field): StyleQuestion[] => {
      const example = seen(field, numberStyleIn);
      if (example === null) return [];
      return [{ about: 'numbers', field, example, unit: field === 'distance' ? unit : 'known' }];
    }),
    ...listedWorks.map(lastFieldOf).flatMap((field): StyleQuestion[] => {
      const example = seen(field, dateOrderIn);
      return example === null ? [] : [{ about: 'dates', field, example }];
    }),
  ];
}

/** What the columns leave open, each asked once. */
function columnQuestions(rows: readonly ListRow[], answers: ListAnswers): ListQuestion[] {
  const at = (field: ListField) => answers.columns.indexOf(field);
  const questions: ListQuestion[] = [];
  const ask = (field: Extract<ListQuestion, { about: 'column' }>['field'], words: string) =>
    questions.push({ about: 'column', field, words });
  if ((['unit', 'plate', 'unit-plate', 'plate-unit'] as const).every((field) => at(field) < 0))
    ask('unit', 'Which column has the number or name of the unit, or its plate?');
  if (at('owner') < 0 && answers.owner.trim() === '') ask('owner', 'Which owner?');
  const blank = rows.filter((row) => !isEmpty(row) && (row.cells[at('owner')] ?? '').trim() === '').length;
  if (at('owner') >= 0 && blank > 0 && answers.ownerAbove === null)
    ask('owner-above', 'Some rows name no owner. Do they belong to the owner above them?');
  const styles = openStyles(rows, answers).filter(({ field }) => !answers.styles[field]);
  // What the figures count is asked with how they are parted, where both are open.
  const asked = styles.some(({ field }) => field === 'distance');
  if (countsBare(rows, answers) && answers.distanceUnit === null && !asked)
    ask('distance', 'Does the odometer count km or miles?');
  questions.push(...styles);
  return questions;
}

/** Reads cells of one column in its style; what cannot be read is left open, and said. */
function openReader(rows: readonly ListRow[], { columns, styles, distanceUnit, today }: ListAnswers) {
  const cells = (field: ListField) => rows.map(({ cells: c }) => (c[columns.indexOf(field)] ?? '').trim());
  const styleOf = {
    distance: styles.distance ?? numberStyleIn(cells('distance')).style,
    hours: styles.hours ?? numberStyleIn(cells('hours')).style,
  };
  const orders = new Map(
    listedWorks.map(lastFieldOf).map((field) => [field, styles[field] ?? dateOrderIn(cells(field)).style]),
  );
  const units = { distance: ['km', 'mi'], hours: ['h'] } as const;
  const titles = { distance: 'odometer', hours: 'hour meter' };
  return {
    meter(row: Row, field: 'distance' | 'hours', open: string[]): Quantity | null {
      const cell = row.cell(field);
      if (cell === '' || isNothingKnown(cell)) return null;
      const assumed = field === 'hours' ? 'h' : (distanceUnit ?? undefined);
      const read = readMeter(cell, units[field], assumed, styleOf[field]);
      if (!read) open.push(`${titles[field]}: “${cell}” is no reading`);
      return read;
    },
    told(row: Row, open: string[]): ListedUnit['told'] {
      return listedWorks.flatMap((work) => {
        const cell = row.cell(lastFieldOf(work));
        if (cell === '' || isNothingKnown(cell)) return [];
        const date = readDate(cell, orders.get(lastFieldOf(work)) ?? null);
        if (date !== null && date <= today) return [{ work, date }];
        open.push(date === null ? `date: “${cell}” is no day` : `date: “${cell}” is still to come`);
        return [];
      });
    },
  };
}

const TOTAL = /^((grand|sub)[\s-]?)?totals?\s*:?\s*(\d.*)?$/i;
/** A total has its word and a sum or two; a unit of that name has more. */
const CELLS_OF_A_TOTAL = 3;

/** Why a row is no unit, whatever else is answered; null where it can be one. */
function whyNot(row: Row, answers: ListAnswers, filled: number): string | null {
  if (filled <= CELLS_OF_A_TOTAL && TOTAL.test(row.unit || row.plate)) return 'a total, and no unit';
  if (row.unit === '' && row.plate === '') return 'neither number nor plate';
  const wanted = answers.columns.filter((c) => c !== null).length;
  if (filled === 1 && wanted > 2 && !/\d/.test(row.unit))
    return 'only one cell is filled: a heading or a note';
  if (row.owner === '' && answers.columns.includes('owner') && answers.ownerAbove !== null) return 'no owner';
  return null;
}

/**
 * Reads a fleet list with whatever columns, a unit a row. Nothing is made up: what a row does not tell is asked, once
 * for all rows alike; a meter or a day that cannot be read is left open; and a row that cannot be is named with its reason.
 * @param rows without the heads
 */
export function readFleetList(rows: readonly ListRow[], answers: ListAnswers): FleetList {
  const questions = columnQuestions(rows, answers);
  const reader = openReader(rows, answers);
  const list: FleetList = { units: [], questions, bad: [] };
  const kinds = new Map<string, number>();
  const plans = new Map<string, Extract<ListQuestion, { about: 'plan' }>>();
  const waiting = questions.length > 0;
  /** Lines that are in, or wait for an answer, by what nobody may have twice. */
  const taken = new Map<string, number>();
  const filledAt = new Map(rows.map((r) => [r.line, r.cells.filter((c) => c.trim() !== '').length]));
  for (const row of rowsBy(rows, answers)) {
    const { line } = row;
    const name = row.unit || row.plate;
    const reject = (reason: string) => list.bad.push({ line, name: name || '(no name)', reason });
    const why = whyNot(row, answers, filledAt.get(line)!);
    if (why !== null) {
      reject(why);
      continue;
    }
    if (row.owner === '') continue;
    const keys = [
      { key: `name ${row.owner}\n${name}`.toLowerCase(), words: 'this number' },
      ...(row.plate ? [{ key: `plate ${keyOf(row.plate)}`, words: 'this plate' }] : []),
    ];
    const twice = keys.find(({ key }) => taken.has(key));
    if (twice) {
      reject(`line ${taken.get(twice.key)} has ${twice.words} already`);
      continue;
    }
    const take = () => keys.forEach(({ key }) => taken.set(key, line));
    const words = kindWordsOf(row);
    const kind = answers.kinds[words];
    if (!kind) {
      kinds.set(words, (kinds.get(words) ?? 0) + 1);
      take();
      continue;
    }
    const axles = axlesIn(row.axles, kind);
    if (row.axles !== '' && axles === null) {
      reject(`axles: “${row.axles}” is no number of axles`);
      continue;
    }
    take();
    const group = groupOf(kind, axles);
    const possible = plansFor(kind, axles);
    const plan = possible.find((p) => p.id === answers.plans[group]) ?? onlyPlan(possible);
    if (!plan) {
      const known = plans.get(group) ?? { about: 'plan', group, kind, axles, plans: possible, rows: 0 };
      plans.set(group, { ...known, rows: known.rows + 1 });
      continue;
    }
    if (waiting) continue;
    const open: string[] = [];
    const [distance, hours] = [reader.meter(row, 'distance', open), reader.meter(row, 'hours', open)];
    list.units.push({
      ...{ line, owner: row.owner, name, kind, plate: row.plate, remarks: row.remarks, plan, open },
      ...{ distance, hours, told: reader.told(row, open) },
    });
  }
  for (const [words, count] of kinds) questions.push({ about: 'kind', words, rows: count });
  questions.push(...plans.values());
  return list;
}

/** Every word of kinds in a list, with what it probably means. */
export function kindsIn(
  rows: readonly ListRow[],
  answers: ListAnswers,
): { words: string; rows: number; guess: UnitKind | null }[] {
  const counts = new Map<string, number>();
  for (const row of rowsBy(rows, answers)) {
    if (whyNot(row, answers, Infinity) !== null) continue;
    const words = kindWordsOf(row);
    counts.set(words, (counts.get(words) ?? 0) + 1);
  }
  return [...counts].map(([words, count]) => ({ words, rows: count, guess: kindIn(words) }));
}
