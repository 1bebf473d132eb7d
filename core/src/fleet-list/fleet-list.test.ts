import fc from 'fast-check';
import { describe, expect, it } from 'vitest';
import {
  distanceUnitIn,
  guessColumns,
  kindsIn,
  listFields,
  readFleetList,
  type ListAnswers,
} from './index.ts';

const head = ['Fleet No.', 'Make', 'Model', 'Yr', 'Licence plate', 'Odometer (km)', 'Type', 'Axles', 'Notes'];
const rows = [
  ['T1', 'Harrow', 'HX 400', '2019', 'TH 11', '611,240', 'Tractor unit', '4x2', ''],
  ['T2', 'Harrow', 'HX 500', '2020', 'TH 12', '402 118', 'Tractor unit', '6x4', 'spare'],
  ['S1', '', '', '2015', 'SE 1', '', 'Curtainsider', '3', ''],
  ['B1', 'Valley', 'Coach', '2012', 'VA 1', '1.200', 'Coach', '2', ''],
];
const answers = (more: Partial<ListAnswers> = {}): ListAnswers => ({
  columns: guessColumns(head),
  distanceUnit: 'km',
  owner: 'Tern & Hollow Haulage',
  kinds: { 'tractor unit': 'tractor', curtainsider: 'semi-trailer', coach: 'bus' },
  plans: {},
  ...more,
});
const read = (more: Partial<ListAnswers> = {}, list: string[][] = rows) => readFleetList(list, answers(more));

describe('the columns of a list', () => {
  it('are guessed by their heads, each field once', () => {
    expect(guessColumns(head)).toEqual([
      ...['unit', 'make', 'model', 'year', 'plate', 'distance', 'kind', 'axles'],
      null,
    ]);
    expect(guessColumns(['Name', 'Unit number', 'Company', 'Mileage', 'Hrs'])).toEqual([
      ...[null, 'unit', 'owner', 'distance', 'hours'],
    ]);
    expect(guessColumns(['', 'Colour'])).toEqual([null, null]);
  });

  it('say in what an odometer counts, or not', () => {
    expect(['Odometer (km)', 'Miles', 'odometer_km', 'KMS'].map(distanceUnitIn)).toEqual([
      'km',
      'mi',
      'km',
      'km',
    ]);
    expect(['Odometer', 'Mileage', 'km or miles'].map(distanceUnitIn)).toEqual([null, null, null]);
  });
});

describe('kinds', () => {
  it('are guessed by words, for whoever knows better to change', () => {
    const guesses = (...words: string[]) =>
      kindsIn(
        words.map((w) => [w]),
        ['kind'],
      ).map((k) => k.guess);
    expect(
      guesses(
        ...['Tractor unit', 'Semi tractor', 'Curtain-sider', 'Trailer', 'Flatbed trailer', 'Travel trailer'],
      ),
    ).toEqual(['tractor', 'tractor', 'semi-trailer', 'semi-trailer', 'flatbed', 'caravan']);
    expect(
      guesses('Farm tractor', 'Tracked dozer', 'Wheel loader', 'Coach', 'Light truck', 'Tipper'),
    ).toEqual([...['farm-tractor', 'crawler', 'work-machine', 'bus', 'van', 'rigid']]);
    expect(guesses('HX 400')).toEqual([null]);
  });

  it('are asked by make and model where no column tells them, once for all rows alike', () => {
    const list = [
      ['1', 'Harrow', 'HX'],
      ['2', 'Harrow', 'HX'],
      ['3', '', ''],
    ];
    const { questions } = read({ columns: ['unit', 'make', 'model'] }, list);
    expect(questions).toEqual([
      { about: 'kind', words: 'harrow hx', rows: 2 },
      { about: 'kind', words: '', rows: 1 },
    ]);
  });
});

describe('a list as units', () => {
  it('has its plan by kind and axles; a figure that could be two things is no reading', () => {
    const { units, questions, bad } = read();
    expect(units.map((u) => [u.line, u.name, u.kind, u.plan.id, u.distance?.value ?? null])).toEqual([
      [2, 'T1', 'tractor', 'tractor-2', 611_240],
      [3, 'T2', 'tractor', 'tractor-3', 402_118],
      [4, 'S1', 'semi-trailer', 'semi-3', null],
    ]);
    expect(bad).toEqual([
      { line: 5, name: 'B1', reason: 'odometer: "1.200" could be 1.2 km or 1200 km: type the one you mean' },
    ]);
    expect(questions).toEqual([]);
  });

  it('is asked for what it does not tell: owner, unit of the odometer, and the plan where there are several', () => {
    const asked = read({ owner: '', distanceUnit: null }).questions;
    expect(asked.map((q) => (q.about === 'column' ? q.field : q.about))).toEqual(['owner', 'distance']);
    const noAxles = answers().columns.map((c) => (c === 'axles' ? null : c));
    const { questions, units } = read({ columns: noAxles, plans: { 'tractor any': 'tractor-2' } });
    expect(units.map((u) => u.name)).toEqual(['T1', 'T2']);
    expect(questions).toMatchObject([{ about: 'plan', group: 'semi-trailer any', rows: 1 }]);
    expect(read({ columns: answers().columns.map(() => null) }).questions[0]).toMatchObject({
      field: 'unit',
    });
  });

  it('names what is there twice, by number and by plate, and what has no usual plan', () => {
    const twice = [
      ...rows.slice(0, 1),
      ['t1', '', '', '', 'TH 99', '', 'Tractor unit', '2', ''],
      ['T9', '', '', '', 'th-11', '', 'Tractor unit', '2', ''],
      ['T8', '', '', '', '', '', 'Coach', '7', ''],
      ['T7', '', '', '', '', '', 'Coach', 'many', ''],
      ['', '', '', '', '', '', 'Coach', '2', ''],
      ['', '', '', '', '', '', '', '', ' '],
    ];
    const { bad, units } = read({}, twice);
    expect(units).toHaveLength(1);
    expect(bad.map((b) => `${b.line} ${b.reason}`)).toEqual([
      '3 line 2 has this number already',
      '4 line 2 has this plate already',
      '5 no usual plan of this kind has 7 axles: add it by hand',
      '6 axles: “many” is no number of axles',
      '7 neither number nor plate',
    ]);
  });

  it('loses no row, whatever is in the cells: each is a unit, bad, empty, or asked about', () => {
    const columns = Object.keys(listFields) as (keyof typeof listFields)[];
    const cell = fc.oneof(
      fc.constantFrom('', 'T1', 'Coach', '3', '6x4', '12,5'),
      fc.string({ maxLength: 6 }),
    );
    fc.assert(
      fc.property(fc.array(fc.array(cell, { minLength: 10, maxLength: 10 }), { maxLength: 12 }), (list) => {
        const { units, questions, bad } = read({ columns }, list);
        const asked = questions.reduce((n, q) => n + (q.about === 'column' ? 0 : q.rows), 0);
        const filled = list.filter((r) => r.some((c) => c.trim() !== '')).length;
        expect(units.length + bad.length + asked).toBe(filled);
        expect(units.every((u) => u.plan.kinds.includes(u.kind))).toBe(true);
      }),
    );
  });
});
