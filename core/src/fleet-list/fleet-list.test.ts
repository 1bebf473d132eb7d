import fc from 'fast-check';
import { describe, expect, it } from 'vitest';
import { unitKinds, type UnitKind } from '../axle-plan/index.ts';
import {
  distanceUnitIn,
  guessColumns,
  headRowIn,
  holdsBoth,
  kindsIn,
  listedWorks,
  listFields,
  readDate,
  readFleetList,
  readMeter,
  type ListAnswers,
} from './index.ts';

const head = ['Fleet No.', 'Make', 'Model', 'Yr', 'Licence plate', 'Odometer (km)', 'Type', 'Axles', 'Notes'];
const rows = [
  ['T1', 'Harrow', 'HX 400', '2019', 'TH 11', '611,240', 'Tractor unit', '4x2', ''],
  ['T2', 'Harrow', 'HX 500', '2020', 'TH 12', '402 118', 'Tractor unit', '6x4', 'spare'],
  ['S1', '', '', '2015', 'SE 1', '', 'Curtainsider', '3', ''],
  ['B1', 'Valley', 'Coach', '2012', 'VA 1', 'n/a', 'Coach', '2', ''],
];
const answers = (more: Partial<ListAnswers> = {}): ListAnswers => ({
  columns: guessColumns(head),
  distanceUnit: 'km',
  styles: { distance: 'comma-groups' },
  owner: 'Tern & Hollow Haulage',
  ownerAbove: null,
  today: '2026-11-30',
  kinds: { 'tractor unit': 'tractor', curtainsider: 'semi-trailer', coach: 'bus' },
  plans: { 'bus 2': 'bus-2' },
  ...more,
});
const lines = (list: readonly (readonly string[])[]) => list.map((cells, i) => ({ line: i + 2, cells }));
const read = (more: Partial<ListAnswers> = {}, list: readonly (readonly string[])[] = rows) =>
  readFleetList(lines(list), answers(more));

describe('the columns of a list', () => {
  it('are guessed by their heads, each field once', () => {
    expect(guessColumns(head)).toEqual([
      ...['unit', 'make', 'model', 'year', 'plate', 'distance', 'kind', 'axles', 'remarks'],
    ]);
    expect(guessColumns(['Name', 'Unit number', 'Company', 'Mileage', 'Hrs'])).toEqual([
      ...[null, 'unit', 'owner', 'distance', 'hours'],
    ]);
    expect(guessColumns(['', 'Colour'])).toEqual([null, null]);
    expect(guessColumns(['Unit / Plate', 'Number', 'Last repack (date)', 'Notes', 'Comments'])).toEqual([
      ...['unit-plate', null, 'last-repack', 'remarks', 'remarks'],
    ]);
    expect(guessColumns(['Reg. (fleet no.)', 'Company'])).toEqual(['plate-unit', 'owner']);
  });

  it('stand in the row that names most of what is wanted', () => {
    const above = [['Tern & Hollow Haulage'], ['Fleet list', 'printed 12/03/2026'], [''], head, ...rows];
    expect(headRowIn(above)).toBe(3);
    expect(
      headRowIn([
        ['', ''],
        ['A', 'B'],
        ['1', '2'],
      ]),
    ).toBe(1);
    expect(headRowIn([['', '']])).toBe(-1);
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
        words.map((w, i) => ({ line: i + 2, cells: [w, String(i)] })),
        answers({ columns: ['kind', 'unit'] }),
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
  it('has its plan by kind and axles, its meter in the style of its column', () => {
    const { units, questions, bad } = read();
    expect(units.map((u) => [u.line, u.name, u.kind, u.plan.id, u.distance?.value ?? null])).toEqual([
      [2, 'T1', 'tractor', 'tractor-2', 611_240],
      [3, 'T2', 'tractor', 'tractor-3', 402_118],
      [4, 'S1', 'semi-trailer', 'semi-3', null],
      [5, 'B1', 'bus', 'bus-2', null],
    ]);
    expect(units.map((u) => u.remarks)).toEqual(['', 'spare', '', '']);
    expect([bad, questions]).toEqual([[], []]);
  });

  it('is asked for what it does not tell: owner, unit of the odometer, and the plan where there are several', () => {
    const asked = read({ owner: '', distanceUnit: null }).questions;
    expect(asked.map((q) => (q.about === 'column' ? q.field : q.about))).toEqual(['owner', 'distance']);
    const noAxles = answers().columns.map((c) => (c === 'axles' ? null : c));
    const plans = { 'tractor any': 'tractor-2', 'bus any': 'bus-2' };
    const { questions, units } = read({ columns: noAxles, plans });
    expect(units.map((u) => u.name)).toEqual(['T1', 'T2', 'B1']);
    expect(questions).toMatchObject([{ about: 'plan', group: 'semi-trailer any', rows: 1 }]);
    expect(read({ columns: answers().columns.map(() => null) }).questions[0]).toMatchObject({
      field: 'unit',
    });
  });

  it('is asked how a column parts its figures and days only where no cell says it, once for the column', () => {
    const columns = ['unit', 'kind', 'distance', 'last-repack'] as const;
    const row = (n: number, distance: string, date: string) => [`T${n}`, 'Coach', distance, date];
    const open = { columns, styles: {}, plans: { 'bus any': 'bus-2' } };
    const either = [row(1, '61,240', '03/04/2025'), row(2, '98,100', '')];
    expect(read(open, either).questions).toEqual([
      { about: 'numbers', field: 'distance', example: '61,240', unit: 'known' },
      { about: 'dates', field: 'last-repack', example: '03/04/2025' },
    ]);
    const sure = [...either, row(3, '1,061,240', '28/02/2025')];
    const told = (more: Partial<ListAnswers>, list = either) =>
      read({ ...open, ...more }, list).units.map((u) => [u.distance?.value, u.told[0]?.date]);
    expect(told({}, sure)).toEqual([
      [61_240, '2025-04-03'],
      [98_100, undefined],
      [1_061_240, '2025-02-28'],
    ]);
    expect(told({ styles: { distance: 'point-groups', 'last-repack': 'month-first' } })[0]).toEqual([
      61.24,
      '2025-03-04',
    ]);
  });

  it('keeps the unit where a meter or a day cannot be read, and says what is left open', () => {
    const columns = ['unit', 'kind', 'distance', 'last-seal'] as const;
    const list = [
      ['T1', 'Coach', 'see sheet', '31/02/2024'],
      ['T2', 'Coach', '98,100', '12/12/2026'],
      ['T3', 'Coach', '?', ''],
    ];
    const { units, bad } = read({ columns, plans: { 'bus any': 'bus-2' }, styles: {} }, [
      ...list,
      ['T4', 'Coach', '1,098,100', '28/02/2024'],
    ]);
    expect(bad).toEqual([]);
    expect(units.map((u) => u.open)).toEqual([
      ['odometer: “see sheet” is no reading', 'date: “31/02/2024” is no day'],
      ['date: “12/12/2026” is still to come'],
      [],
      [],
    ]);
  });

  it('takes the one above for a ditto mark, and for a missing owner where that was said', () => {
    const columns = ['owner', 'unit', 'kind'] as const;
    const list = [
      ['Tern', 'T1', 'Coach'],
      ['', 'T2', '"'],
      ['Hollow', 'T3', 'ditto'],
    ];
    const ask = (ownerAbove: boolean | null) =>
      read({ columns, owner: '', ownerAbove, plans: { 'bus any': 'bus-2' } }, list);
    expect(ask(null).questions).toMatchObject([{ field: 'owner-above' }]);
    expect(ask(true).units.map((u) => [u.name, u.owner, u.kind])).toEqual([
      ['T1', 'Tern', 'bus'],
      ['T2', 'Tern', 'bus'],
      ['T3', 'Hollow', 'bus'],
    ]);
    expect(ask(false).bad).toEqual([{ line: 3, name: 'T2', reason: 'no owner' }]);
  });

  it('parts number and plate of one cell', () => {
    const units = (column: 'unit-plate' | 'plate-unit') =>
      read({ columns: [column, 'kind'], plans: { 'bus any': 'bus-2' } }, [
        ['T1 / TH 11', 'Coach'],
        ['T2 (TH 12)', 'Coach'],
        ['T3', 'Coach'],
      ]).units.map((u) => [u.name, u.plate]);
    expect(units('unit-plate')).toEqual([
      ['T1', 'TH 11'],
      ['T2', 'TH 12'],
      ['T3', ''],
    ]);
    expect(units('plate-unit')[0]).toEqual(['TH 11', 'T1']);
    expect(holdsBoth(['T1 / TH 11', 'T2 (TH-12)', 'T3'])).toBe(true);
    expect(holdsBoth(['T1 - spare', 'T2', 'T3'])).toBe(false);
  });

  it('names what is there twice, of rows that are in, and what is no unit', () => {
    const twice = [
      ...rows.slice(0, 1),
      ['t1', '', '', '', 'TH 99', '', 'Tractor unit', '2', ''],
      ['T9', '', '', '', 'th-11', '', 'Tractor unit', '2', ''],
      ['T7', '', '', '', 'TH 70', '', 'Coach', 'many', ''],
      ['T7', '', '', '', 'TH 70', '', 'Coach', '2', ''],
      ['', '', '', '', '', '', 'Coach', '2', ''],
      ['TRAILERS', '', '', '', '', '', '', '', ''],
      ['Total', '', '', '', '', '611,240', '', '', ''],
      ['', '', '', '', '', '', '', '', ' '],
    ];
    const { bad, units } = read({}, twice);
    expect(units.map((u) => u.name)).toEqual(['T1', 'T7']);
    expect(bad.map((b) => `${b.line} ${b.reason}`)).toEqual([
      '3 line 2 has this number already',
      '4 line 2 has this plate already',
      '5 axles: “many” is no number of axles',
      '7 neither number nor plate',
      '8 only one cell is filled: a heading or a note',
      '9 a total, and no unit',
    ]);
  });

  it('asks for a plan like a usual one where none has so many axles, and takes none by itself', () => {
    const columns = ['unit', 'kind', 'axles'] as const;
    for (const kind of Object.keys(unitKinds) as UnitKind[])
      for (let axles = 1; axles <= 9; axles += 1) {
        const kinds = { it: kind };
        const [asked] = read({ columns, kinds }, [['T1', 'It', String(axles)]]).questions;
        if (!asked || asked.about !== 'plan') continue;
        expect(asked.plans.length).toBeGreaterThan(0);
        expect(asked.plans.every((p) => p.axles.length === axles)).toBe(true);
        const plans = { [asked.group]: asked.plans[0]!.id };
        const { units } = read({ columns, kinds, plans }, [['T1', 'It', String(axles)]]);
        expect(units[0]?.plan.axles).toHaveLength(axles);
      }
    const five = read({ columns, kinds: { it: 'semi-trailer' } }, [['S1', 'It', '5']]);
    expect(five.units).toEqual([]);
    expect(five.questions).toMatchObject([{ about: 'plan', group: 'semi-trailer 5', rows: 1 }]);
  });

  it('loses no row, whatever is in the cells: each is a unit, bad, empty, or asked about', () => {
    const columns = Object.keys(listFields) as (keyof typeof listFields)[];
    const cell = fc.oneof(
      fc.constantFrom('', 'T1', 'Coach', '3', '6x4', '12,5', '1,250', '"', '03/04/2025', 'T1 / TH 11'),
      fc.string({ maxLength: 6 }),
    );
    const row = fc.array(cell, { minLength: columns.length, maxLength: columns.length });
    const styles: ListAnswers['styles'] = {
      ...({ distance: 'comma-groups', hours: 'point-groups' } as const),
      ...Object.fromEntries(listedWorks.map((work) => [`last-${work}`, 'day-first'])),
    };
    fc.assert(
      fc.property(fc.array(row, { maxLength: 12 }), (list) => {
        const { units, questions, bad } = read({ columns, styles, ownerAbove: false }, list);
        const asked = questions.reduce((n, q) => n + ('rows' in q ? q.rows : 0), 0);
        const filled = list.filter((r) => r.some((c) => c.trim() !== '')).length;
        expect(units.length + bad.length + asked).toBe(filled);
        expect(units.every((u) => u.plan.kinds.includes(u.kind))).toBe(true);
      }),
    );
  });
});

describe('cells', () => {
  it('are read as meters in the style of their column', () => {
    const km = (cell: string, style: 'comma-groups' | 'point-groups' | null = null) =>
      readMeter(cell, ['km', 'mi'], 'km', style)?.value ?? null;
    expect(
      ['402 118', '611,240 km', '1.061.240', 'ca. 98 000', '120k', "1'200'000", '61240.5'].map((c) => km(c)),
    ).toEqual([402_118, null, 1_061_240, 98_000, 120_000, 1_200_000, 61_240.5]);
    expect([km('1,250', 'comma-groups'), km('1,250', 'point-groups'), km('12,34,5', 'comma-groups')]).toEqual(
      [...[1_250, 1.25, null]],
    );
    expect(readMeter('380,000 miles', ['km', 'mi'], 'km', 'comma-groups')).toMatchObject({
      value: 380_000,
      unit: 'mi',
    });
    expect(['-', 'km', '5 bananas', '12 h', '-40'].map((c) => km(c))).toEqual([null, null, null, null, null]);
  });

  it('are read as days; a month begins with its first, and a spreadsheet counts from 1899-12-30', () => {
    const days = ['2025-03-12', '12.3.25', '12 Mar 2025', 'Sept 2024', '03/2025', '45000', '12th March 2025'];
    expect(days.map((d) => readDate(d, null))).toEqual([
      ...['2025-03-12', '2025-03-12', '2025-03-12', '2024-09-01', '2025-03-01', '2023-03-15', '2025-03-12'],
    ]);
    expect(
      ['03/04/2025', '13/04/2025', '04/04/2025', '31/02/2025', 'soon'].map((d) => readDate(d, null)),
    ).toEqual([...[null, '2025-04-13', '2025-04-04', null, null]]);
  });

  it('give a figure back that was written in either style', () => {
    fc.assert(
      fc.property(fc.integer({ min: 0, max: 9_999_999 }), fc.boolean(), (value, comma) => {
        const written = value.toLocaleString(comma ? 'en-US' : 'de-DE');
        const style = comma ? 'comma-groups' : 'point-groups';
        expect(readMeter(written, ['km'], 'km', style)?.value).toBe(value);
      }),
    );
  });
});
