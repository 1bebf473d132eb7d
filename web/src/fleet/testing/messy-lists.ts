import type { UnitKind } from '@lanternwright/core/axle-plan';
import type { DateOrder, ListAnswers, NumberStyle } from '@lanternwright/core/fleet-list';
import { workbook } from '../../testing/workbook.ts';

/** A unit as its office knows it. */
export interface TrueUnit {
  name: string;
  plate: string;
  owner: string;
  kind: UnitKind;
  axles: number;
  /** Null where the list holds no figure for it. */
  km: number | null;
  repacked: string | null;
  remarks: string;
}

/** A list as an office keeps it, what stands in it, and what the office answers when it is asked. */
export interface MessyList {
  office: string;
  file: File;
  units: TrueUnit[];
  says: {
    owner?: string;
    distanceUnit?: 'km' | 'mi';
    numbers?: NumberStyle;
    dates?: DateOrder;
    ownerAbove?: boolean;
    /** What it calls the kinds that no guess fits. */
    kinds?: ListAnswers['kinds'];
  };
}

const UNITS = 100;
const KINDS: readonly [UnitKind, axles: readonly number[]][] = [
  ['tractor', [2, 3]],
  ['semi-trailer', [3]],
  ['rigid', [4]],
  ['van', [2]],
  ['caravan', [1, 2]],
  ['work-machine', [2]],
  ['crawler', [2]],
];

/** Numbers that look drawn and are the same each time. @source Numerical Recipes' linear congruential generator */
function drawing(seed: number) {
  let state = seed;
  return (below: number) => {
    state = (state * 1_664_525 + 1_013_904_223) % 4_294_967_296;
    return Math.floor((state / 4_294_967_296) * below);
  };
}

const two = (n: number) => String(n).padStart(2, '0');

function fleet(seed: number, owners: readonly string[], kinds = KINDS): TrueUnit[] {
  const draw = drawing(seed);
  return Array.from({ length: UNITS }, (_, i) => {
    const [kind, axles] = kinds[draw(kinds.length)]!;
    return {
      name: `${kind[0]!.toUpperCase()}${100 + i}`,
      plate: `${String.fromCharCode(65 + draw(26))}K ${1000 + i} ${String.fromCharCode(65 + draw(26))}`,
      owner: owners[Math.floor((i * owners.length) / UNITS)]!,
      kind,
      axles: axles[draw(axles.length)]!,
      km: draw(10) === 0 ? null : 20_000 + draw(900_000),
      repacked: draw(4) === 0 ? null : `20${23 + draw(3)}-${two(1 + draw(12))}-${two(1 + draw(12))}`,
      remarks: draw(6) === 0 ? 'Spare wheel, keys in the office' : '',
    };
  });
}

const words: Partial<Record<UnitKind, string>> = {
  tractor: 'Tractor unit',
  'semi-trailer': 'Curtainsider',
  rigid: 'Rigid tipper',
  van: 'Panel van',
  caravan: 'Caravan',
  'work-machine': 'Wheel loader',
  crawler: 'Tracked dozer',
};
const called = ({ kind }: TrueUnit) => words[kind]!;
const parts = (iso: string | null) => (iso ?? '').split('-') as [string, string, string];
const grouped = (n: number | null, mark: string, none = '') =>
  n === null ? none : String(n).replace(/\B(?=(\d{3})+$)/g, mark);
const dayFirst = (iso: string | null, mark: string) => (iso ? parts(iso).reverse().join(mark) : '');
const monthFirst = (iso: string | null) =>
  iso ? [parts(iso)[1], parts(iso)[2], parts(iso)[0]].join('/') : '';
const MONTHS = ['Jan', 'Feb', 'Mar', 'Apr', 'May', 'Jun', 'Jul', 'Aug', 'Sep', 'Oct', 'Nov', 'Dec'];
const byName = (iso: string | null) =>
  iso ? `${Number(parts(iso)[2])} ${MONTHS[Number(parts(iso)[1]) - 1]} ${parts(iso)[0]}` : '';

const quoted = (cell: string, mark: string) =>
  cell.includes(mark) || cell.includes('"') ? `"${cell.replaceAll('"', '""')}"` : cell;
const table = (rows: readonly (readonly string[])[], mark = ',') =>
  rows.map((row) => row.map((cell) => quoted(cell, mark)).join(mark)).join('\r\n');

const utf16 = (text: string) => {
  const bytes = new Uint8Array(2 + text.length * 2);
  bytes.set([0xff, 0xfe]);
  for (const [i, char] of [...text].entries())
    bytes.set([char.charCodeAt(0) & 0xff, char.charCodeAt(0) >> 8], 2 + i * 2);
  return bytes;
};
/** Letters of Western Europe stand at the same place in Windows-1252 as in Unicode. */
const windows1252 = (text: string) => Uint8Array.from(text, (char) => char.charCodeAt(0));

const csv = (name: string, content: string | Uint8Array<ArrayBuffer>) =>
  new File([content], name, { type: 'text/csv' });

/** A dozen offices and their lists of a hundred units. */
export const messyLists: readonly (() => MessyList)[] = [
  () => {
    const units = fleet(1, ['Tern & Hollow Haulage']);
    const rows = units.map((u) => [
      u.name,
      u.plate,
      called(u),
      String(u.axles),
      grouped(u.km, ','),
      monthFirst(u.repacked),
      u.remarks,
    ]);
    const head = ['Unit No.', 'License Plate', 'Type', 'Axles', 'Mileage', 'Last repack', 'Notes'];
    const above = [['Fleet list, second quarter'], ['printed 04/02/2026', '', 'page 1'], []];
    return {
      ...{
        office: 'A title above, owner and units not said',
        units,
        file: csv('fleet.csv', table([...above, head, ...rows])),
      },
      says: {
        owner: 'Tern & Hollow Haulage',
        distanceUnit: 'km',
        numbers: 'comma-groups',
        dates: 'month-first',
      },
    };
  },
  () => {
    const units = fleet(2, ['Hafen Spedition', 'Käthe Möwe Reisen']);
    const rows = units.map((u) => [
      u.name,
      u.plate,
      u.owner,
      called(u),
      String(u.axles),
      grouped(u.km, '.', 'n/a'),
      dayFirst(u.repacked, '.'),
    ]);
    const head = ['Fleet no', 'Reg', 'Customer', 'Type', 'Axles', 'km', 'Bearings repacked'];
    return {
      ...{
        office: 'UTF-16, tabs, points between thousands',
        units,
        file: csv('fleet.txt', utf16(table([head, ...rows], '\t'))),
      },
      says: { distanceUnit: 'km', numbers: 'point-groups' },
    };
  },
  () => {
    const units = fleet(3, ['Transportes Peñalba', 'Autocares Núñez']);
    const rows = units.map((u) => [
      u.owner,
      u.name,
      u.plate,
      called(u),
      `${u.axles} axles`,
      u.km === null ? '?' : `${grouped(u.km, ' ')} km`,
      dayFirst(u.repacked, '/'),
      u.remarks,
    ]);
    const head = [
      'Company',
      'Unit',
      'Plate',
      'Kind',
      'No. of axles',
      'Odometer',
      'Last bearing repack',
      'Remarks',
    ];
    return {
      ...{
        office: 'Windows-1252, semicolons, day first',
        units,
        file: csv('flota.csv', windows1252(table([head, ...rows], ';'))),
      },
      says: { dates: 'day-first' },
    };
  },
  () => {
    const units = fleet(4, ['Marrow Valley Coaches']);
    const rows = units.map((u) => [
      u.name,
      u.plate,
      u.owner,
      called(u),
      u.axles,
      u.km ?? '',
      u.repacked ?? '',
      u.remarks,
    ]);
    const head = [
      'Asset number',
      'Registration',
      'Operator',
      'Category',
      'Axle count',
      'Odometer (km)',
      'Last repack',
      'Comments',
    ];
    const file = workbook({
      'Read me': [['Ask the office before you change this']],
      Fleet: [['As of March'], head, ...rows],
      Old: [['gone']],
    });
    return { office: 'A workbook of three sheets', units, file: new File([file], 'fleet.xlsx'), says: {} };
  },
  () => {
    const units = fleet(5, ['Kestrel Freight']);
    const rows = units.map((u) => [
      `${u.name} / ${u.plate}`,
      called(u),
      String(u.axles),
      grouped(u.km, "'"),
      byName(u.repacked),
      u.remarks,
    ]);
    const head = ['Unit', 'Type', 'Axles', 'Odometer km', 'Repack', 'Notes'];
    return {
      ...{ office: 'Number and plate in one cell', units, file: csv('list.csv', table([head, ...rows])) },
      says: { owner: 'Kestrel Freight' },
    };
  },
  () => {
    const units = fleet(6, ['Kestrel Freight', 'Tern & Hollow Haulage']);
    const rows = units.map((u) => [
      `${u.plate} (${u.name})`,
      u.owner,
      called(u),
      String(u.axles),
      u.km === null ? '' : `ca. ${u.km}`,
      dayFirst(u.repacked, '-'),
    ]);
    const head = ['Reg (fleet no.)', 'Owner', 'Vehicle type', 'Axles', 'Current km', 'Last repack'];
    return {
      ...{
        office: 'Plate first, the number in brackets',
        units,
        file: csv('list.csv', table([head, ...rows])),
      },
      says: { dates: 'day-first' },
    };
  },
  () => {
    const units = fleet(7, ['Dunlin Plant Hire']);
    const makes: Partial<Record<UnitKind, [string, string]>> = {
      tractor: ['Harrow', 'HX 400'],
      'semi-trailer': ['Stow', 'S3'],
      rigid: ['Harrow', 'R8'],
      van: ['Pelican', 'Dart'],
      caravan: ['Wren', 'Nest'],
      'work-machine': ['Badger', '950'],
      crawler: ['Badger', 'T6'],
    };
    const rows = units.map((u) => [
      u.name,
      ...makes[u.kind]!,
      '2019',
      u.plate,
      String(u.axles),
      u.km === null ? 'broken' : String(u.km),
      u.remarks,
    ]);
    const head = ['No', 'Make', 'Model', 'Yr', 'Tag', 'Axles', 'Kilometers', 'Memo'];
    const kinds = Object.fromEntries(
      Object.entries(makes).map(([kind, [make, model]]) => [
        `${make} ${model}`.toLowerCase(),
        kind as UnitKind,
      ]),
    );
    for (const u of units) u.repacked = null;
    return {
      ...{ office: 'No kinds, makes and models', units, file: csv('plant.csv', table([head, ...rows])) },
      says: { owner: 'Dunlin Plant Hire', kinds },
    };
  },
  () => {
    const units = fleet(8, [
      'Tern & Hollow Haulage',
      'Kestrel Freight',
      'Marrow Valley Coaches',
      'Dunlin Plant Hire',
    ]);
    const head = ['Owner', 'Unit', 'Plate', 'Type', 'Axles', 'Odometer (km)', 'Last repack'];
    const rows = units.flatMap((u, i) => {
      const before = units[i - 1];
      const row = [
        before?.owner === u.owner ? '' : u.owner,
        u.name,
        u.plate,
        before && called(before) === called(u) ? '"' : called(u),
        String(u.axles),
        u.km === null ? '-' : String(u.km),
        u.repacked ?? '',
      ];
      return i % 25 === 24 ? [row, ['Total', '', '', '', '', '25'], [], head] : [row];
    });
    return {
      ...{
        office: 'Owners once, ditto marks, totals, heads again',
        units,
        file: csv('list.csv', table([head, ...rows])),
      },
      says: { ownerAbove: true },
    };
  },
  () => {
    const kinds: typeof KINDS = [
      ['tractor', [3]],
      ['semi-trailer', [1, 2, 3]],
      ['rigid', [4]],
    ];
    const units = fleet(9, ['Kestrel Freight'], kinds);
    const axles = (u: TrueUnit) =>
      u.kind === 'tractor'
        ? '6x4'
        : u.kind === 'rigid'
          ? '8x4*4'
          : ['', 'single axle', 'tandem', 'tri-axle'][u.axles]!;
    const rows = units.map((u) => [u.name, u.plate, called(u), axles(u), grouped(u.km, ','), u.remarks]);
    const head = ['Truck', 'Plate #', 'Body', 'Axle config', 'Odometer (km)', 'Notes'];
    for (const u of units) u.repacked = null;
    return {
      ...{ office: 'Axles by wheels and by words', units, file: csv('list.csv', table([head, ...rows])) },
      says: { owner: 'Kestrel Freight', numbers: 'comma-groups' },
    };
  },
  () => {
    const units = fleet(10, ['Tern & Hollow Haulage']);
    const odd = (i: number) => ['see book', 'ask driver', '12,34,5'][i % 3]!;
    units.forEach((u, i) => i % 9 === 0 && (u.km = null));
    const rows = units.map((u, i) => [
      u.name,
      u.plate,
      called(u),
      String(u.axles),
      u.km === null ? odd(i) : `${u.km} km`,
      i % 11 === 0 ? 'long ago' : byName(u.repacked),
    ]);
    units.forEach((u, i) => i % 11 === 0 && (u.repacked = null));
    const head = ['Unit', 'Plate', 'Type', 'Axles', 'Odometer', 'Last repack'];
    return {
      ...{ office: 'Meters and days that are none', units, file: csv('list.csv', table([head, ...rows])) },
      says: { owner: 'Tern & Hollow Haulage' },
    };
  },
  () => {
    const units = fleet(11, ['Marrow Valley Coaches']);
    const monthOnly = (iso: string | null) =>
      iso ? `${MONTHS[Number(parts(iso)[1]) - 1]} ${parts(iso)[0]}` : '';
    const rows = units.map((u, i) => [
      u.plate,
      called(u),
      String(u.axles),
      grouped(u.km, ','),
      i % 2 ? monthOnly(u.repacked) : dayFirst(u.repacked, '/'),
    ]);
    units.forEach((u, i) => {
      u.name = u.plate;
      if (i % 2 && u.repacked) u.repacked = `${u.repacked.slice(0, 8)}01`;
    });
    const head = ['Licence plate', 'Type', 'Axles', 'Odometer (km)', 'Repacked'];
    return {
      ...{
        office: 'Plates alone, some months without a day',
        units,
        file: csv('list.csv', table([head, ...rows])),
      },
      says: { owner: 'Marrow Valley Coaches', numbers: 'comma-groups', dates: 'day-first' },
    };
  },
  () => {
    const kinds: typeof KINDS = [
      ['semi-trailer', [3, 4, 5]],
      ['rigid', [5]],
      ['van', [2]],
    ];
    const units = fleet(12, ['Kestrel Freight', 'Dunlin Plant Hire'], kinds);
    const rows = units.map((u) => [
      u.owner,
      u.name,
      u.plate,
      called(u),
      String(u.axles),
      u.km === null ? '' : String(u.km),
      dayFirst(u.repacked, '.').replace('.20', '.'),
      u.remarks,
    ]);
    // Slips of a hand: no kind of axle, no name, a number twice.
    rows[40]![4] = 'several';
    rows[41]!.splice(1, 2, '', '');
    rows[43]![1] = rows[42]![1]!;
    const head = ['Client', 'Asset', 'Tag', 'Class', 'Axles', 'km', 'Repacked', 'Remarks'];
    return {
      ...{
        office: 'More axles than usual, and slips of a hand',
        units,
        file: csv('list.csv', table([head, ...rows])),
      },
      says: {},
    };
  },
];
