import type { Layout, UnitKind } from '../axle-plan/index.ts';
import { parseQuantity, type Quantity } from '../quantity/index.ts';
import type { ListField } from './columns.ts';
import { axlesIn, kindIn, plansFor } from './kinds.ts';

/** What the supervisor said of a list. */
export interface ListAnswers {
  /** What each column is. */
  columns: readonly (ListField | null)[];
  /** In what a bare odometer figure counts; null where nobody has said. */
  distanceUnit: 'km' | 'mi' | null;
  /** Whose they are, where no column says it. */
  owner: string;
  /** Kinds by the words of the list. */
  kinds: Readonly<Record<string, UnitKind>>;
  /** Plans by group: kind and number of axles. */
  plans: Readonly<Record<string, string>>;
}

/** A row as a unit; line 1 is the head. */
export interface ListedUnit {
  line: number;
  owner: string;
  name: string;
  kind: UnitKind;
  plate: string;
  distance: Quantity | null;
  hours: Quantity | null;
  plan: Layout;
}

/** What has to be said before the rows it is about are units. */
export type ListQuestion =
  | { about: 'column'; field: 'unit' | 'owner' | 'distance'; words: string }
  | { about: 'kind'; words: string; rows: number }
  | {
      about: 'plan';
      group: string;
      kind: UnitKind;
      axles: number | null;
      plans: readonly Layout[];
      rows: number;
    };

export interface FleetList {
  units: ListedUnit[];
  questions: ListQuestion[];
  bad: { line: number; name: string; reason: string }[];
}

export const groupOf = (kind: UnitKind, axles: number | null): string => `${kind} ${axles ?? 'any'}`;

/** The words of a row that tell its kind, as they are asked about. */
const kindWordsOf = (row: Record<ListField, string>): string =>
  (row.kind || [row.make, row.model].filter(Boolean).join(' ')).replace(/\s+/g, ' ').toLowerCase();

/**
 * Reads a fleet list with whatever columns, a unit a row. Nothing is made up: what a row does not tell is asked, once
 * for all rows alike, and a row that cannot be is named with its reason.
 * @param rows without the head
 */
export function readFleetList(rows: readonly (readonly string[])[], answers: ListAnswers): FleetList {
  const at = (field: ListField) => answers.columns.indexOf(field);
  const questions: ListQuestion[] = [];
  const ask = (field: 'unit' | 'owner' | 'distance', words: string) =>
    questions.push({ about: 'column', field, words });
  if (at('unit') < 0 && at('plate') < 0)
    ask('unit', 'Which column has the number or name of the unit, or its plate?');
  if (at('owner') < 0 && answers.owner.trim() === '') ask('owner', 'Which owner?');
  if (at('distance') >= 0 && answers.distanceUnit === null)
    ask('distance', 'Does the odometer count km or miles?');

  const list: FleetList = { units: [], questions, bad: [] };
  const kinds = new Map<string, number>();
  const plans = new Map<string, Extract<ListQuestion, { about: 'plan' }>>();
  const seen = { name: new Map<string, number>(), plate: new Map<string, number>() };
  for (const [i, cells] of rows.entries()) {
    const line = i + 2;
    const cell = (field: ListField) => (at(field) < 0 ? '' : (cells[at(field)] ?? '').trim());
    const row = {
      ...{ unit: cell('unit'), plate: cell('plate'), owner: cell('owner') || answers.owner.trim() },
      ...{ kind: cell('kind'), make: cell('make'), model: cell('model'), year: cell('year') },
      ...{ axles: cell('axles'), distance: cell('distance'), hours: cell('hours') },
    };
    if (cells.every((c) => c.trim() === '')) continue;
    const name = row.unit || row.plate;
    const reject = (reason: string) => list.bad.push({ line, name: name || '(no name)', reason });
    if (name === '') {
      reject('neither number nor plate');
      continue;
    }
    if (row.owner === '') {
      if (at('owner') >= 0) reject('no owner');
      continue;
    }
    const twice = [
      ['name', `${row.owner}\n${name}`, 'this number'] as const,
      ['plate', row.plate.replace(/[\s-]/g, ''), 'this plate'] as const,
    ].find(([by, key]) => key !== '' && seen[by].has(key.toLowerCase()));
    if (twice) {
      const [by, key, words] = twice;
      reject(`line ${seen[by].get(key.toLowerCase())} has ${words} already`);
      continue;
    }
    seen.name.set(`${row.owner}\n${name}`.toLowerCase(), line);
    if (row.plate) seen.plate.set(row.plate.replace(/[\s-]/g, '').toLowerCase(), line);

    const distance =
      row.distance && parseQuantity(row.distance, ['km', 'mi'], answers.distanceUnit ?? undefined);
    const hours = row.hours && parseQuantity(row.hours, ['h'], 'h');
    if (distance && !distance.ok && answers.distanceUnit !== null) {
      reject(`odometer: ${distance.message}`);
      continue;
    }
    if (hours && !hours.ok) {
      reject(`hour meter: ${hours.message}`);
      continue;
    }
    const words = kindWordsOf(row);
    const kind = answers.kinds[words];
    if (!kind) {
      kinds.set(words, (kinds.get(words) ?? 0) + 1);
      continue;
    }
    const axles = axlesIn(row.axles);
    if (row.axles !== '' && axles === null) {
      reject(`axles: “${row.axles}” is no number of axles`);
      continue;
    }
    const group = groupOf(kind, axles);
    const possible = plansFor(kind, axles);
    if (possible.length === 0) {
      reject(`no usual plan of this kind has ${axles} axles: add it by hand`);
      continue;
    }
    const plan =
      possible.find((p) => p.id === answers.plans[group]) ?? (possible.length === 1 ? possible[0] : null);
    if (!plan) {
      const known = plans.get(group) ?? { about: 'plan', group, kind, axles, plans: possible, rows: 0 };
      plans.set(group, { ...known, rows: known.rows + 1 });
      continue;
    }
    if (questions.some((q) => q.about === 'column')) continue;
    list.units.push({
      ...{ line, owner: row.owner, name, kind, plate: row.plate, plan },
      distance: distance && distance.ok ? distance.quantity : null,
      hours: hours && hours.ok ? hours.quantity : null,
    });
  }
  for (const [words, count] of kinds) questions.push({ about: 'kind', words, rows: count });
  questions.push(...plans.values());
  return list;
}

/** Every word of kinds in a list, with what it probably means. */
export function kindsIn(
  rows: readonly (readonly string[])[],
  columns: ListAnswers['columns'],
): { words: string; rows: number; guess: UnitKind | null }[] {
  const counts = new Map<string, number>();
  const cell = (cells: readonly string[], field: ListField) => (cells[columns.indexOf(field)] ?? '').trim();
  for (const cells of rows) {
    if (cells.every((c) => c.trim() === '')) continue;
    const row = { kind: cell(cells, 'kind'), make: cell(cells, 'make'), model: cell(cells, 'model') };
    const words = kindWordsOf(row as Record<ListField, string>);
    counts.set(words, (counts.get(words) ?? 0) + 1);
  }
  return [...counts].map(([words, count]) => ({ words, rows: count, guess: kindIn(words) }));
}
