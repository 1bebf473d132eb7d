import { beforeEach, describe, expect, it } from 'vitest';
import {
  headRowIn,
  readFleetList,
  type ListAnswers,
  type ListedUnit,
  type ListQuestion,
} from '@lanternwright/core/fleet-list';
import { firstAnswers } from './list-answers.ts';
import { likelySheet, readListFile, tableOf } from './list-file.ts';
import { messyLists, type MessyList, type TrueUnit } from './testing/messy-lists.ts';

beforeEach(() => localStorage.clear());

/** The column that a question is about. */
const columnOf = (q: ListQuestion): string =>
  q.about === 'kind' ? 'kind' : q.about === 'plan' ? 'axles' : q.field.replace('owner-above', 'owner');

/** What an office answers. */
function answered(answers: ListAnswers, q: ListQuestion, { says }: MessyList): ListAnswers {
  switch (q.about) {
    case 'kind':
      return { ...answers, kinds: { ...answers.kinds, [q.words]: says.kinds![q.words]! } };
    case 'plan':
      return { ...answers, plans: { ...answers.plans, [q.group]: q.plans[0]!.id } };
    case 'numbers': {
      const distanceUnit = q.unit === 'asked' ? says.distanceUnit! : answers.distanceUnit;
      return { ...answers, distanceUnit, styles: { ...answers.styles, [q.field]: says.numbers! } };
    }
    case 'dates':
      return { ...answers, styles: { ...answers.styles, [q.field]: says.dates! } };
    case 'column':
      return q.field === 'owner'
        ? { ...answers, owner: says.owner! }
        : q.field === 'owner-above'
          ? { ...answers, ownerAbove: says.ownerAbove! }
          : { ...answers, distanceUnit: says.distanceUnit! };
  }
}

/** Reads a list as somebody does who answers each question once. */
async function bringIn(list: MessyList): Promise<ListedUnit[]> {
  const file = await readListFile(list.file);
  const sheet = likelySheet(file);
  const table = tableOf(file, sheet, headRowIn(file.sheets[sheet]!.cells));
  let answers = { ...firstAnswers(table), today: '2026-11-30' };
  const asked: string[] = [];
  for (;;) {
    const { questions, units } = readFleetList(table.rows, answers);
    if (questions.length === 0) return units;
    const columns = [...new Set(questions.map(columnOf))];
    expect(asked.filter((column) => columns.includes(column))).toEqual([]);
    asked.push(...columns);
    answers = questions.reduce((a, q) => answered(a, q, list), answers);
  }
}

const asTrue = (u: ListedUnit): TrueUnit => ({
  ...{ name: u.name, plate: u.plate, owner: u.owner, kind: u.kind, axles: u.plan.axles.length },
  ...{ km: u.distance?.value ?? null, repacked: u.told[0]?.date ?? null, remarks: u.remarks },
});

describe('a dozen lists of a hundred units', () => {
  it.each(messyLists.map((list) => list()))('$office', async (list) => {
    const units = await bringIn(list);
    const inOffice = new Map(list.units.map((u) => [u.name, u]));
    const noRemarks = list.units.every((u) => !units.some((r) => r.name === u.name && r.remarks));
    const right = units.filter((u) => {
      const known = inOffice.get(u.name);
      return (
        known && JSON.stringify(asTrue(u)) === JSON.stringify(noRemarks ? { ...known, remarks: '' } : known)
      );
    });
    expect(right.length).toBeGreaterThanOrEqual(95);
    // What is not right is not in: nothing comes in wrong.
    expect(units.length).toBe(right.length);
  });
});
