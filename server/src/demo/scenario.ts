import type { UnitKind } from '@lanternwright/core/axle-plan';
import { quantity } from '@lanternwright/core/quantity';
import type { Tool } from '@lanternwright/core/tool';

const haulage = 'Tern & Hollow Haulage';
const buses = 'Marrow Valley Buses';
const motorhomes = 'Drift & Heather Motorhomes';
const growers = 'Dunlin Growers’ Co-op';
const board = 'Saltmarsh Drainage Board';
const recovery = 'Marrowbank Recovery';

/** Marrowbank Shared Works: invented owners, units and people. */
export const demoPeople = [
  { name: 'I. Okonedo', login: 'okonedo', role: 'supervisor' },
  { name: 'R. Thistlewood', login: 'thistlewood', role: 'supervisor' },
  { name: 'D. Achterberg', login: 'achterberg', role: 'technician' },
  { name: 'M. Pellow', login: 'pellow', role: 'technician' },
  { name: 'S. Varga', login: 'varga', role: 'technician' },
  { name: 'J. Brennock', login: 'brennock', role: 'technician' },
] as const;

/** People of the demo who record nothing in its past. */
export const demoOthers = [
  { name: 'Q. Farrow', login: 'farrow', role: 'storekeeper', owners: [] },
  { name: 'E. Tern', login: 'tern', role: 'owner-contact', owners: [haulage] },
  { name: 'L. Osei', login: 'osei', role: 'trainee', owners: [] },
] as const;

/** What is set for the demo shop; its zone is that of the machine. */
export const demoShop = {
  name: 'Marrowbank Shared Works',
  address: '4 Old Gasworks Lane\nMarrowbank',
  currency: 'GBP',
  bays: ['Bay 1', 'Bay 2', 'Bay 3', 'Bay 4', 'Yard'].map((name, i) => ({ id: `bay-${i + 1}`, name })),
  week: Array.from({ length: 7 }, (_, day) =>
    day > 4
      ? []
      : [
          { from: '07:30', until: '12:00' },
          { from: '12:30', until: '16:30' },
        ],
  ),
  holidays: [
    { date: '2026-12-25', name: 'Christmas Day' },
    { date: '2026-12-26', name: 'St Stephen’s Day' },
    { date: '2027-01-01', name: 'New Year’s Day' },
  ],
} as const;

/** Invented, as every price here is. */
export const demoRates = {
  hour: { currency: 'GBP', minor: 7_800 },
  suppliesPercent: 5,
  taxes: [{ name: 'VAT', percent: 20, on: ['labour', 'parts', 'supplies'] }],
  taxNumber: 'MSW 000 0000 00',
  validDays: 30,
} as const;

/** One line of an owner's fleet. Distances in km a year; `start` is the odometer four years ago. */
export interface FleetLine {
  owner: string;
  name: string;
  first: number;
  count: number;
  kind: UnitKind;
  layout: string;
  kmAYear: [number, number];
  hoursAYear?: [number, number];
  start: [number, number];
  /** Days between services of one axle. */
  serviceDays: [number, number];
  /** Days before today on which the first axle of each came in, and no other: in the place of chance. */
  daysAgo?: readonly number[];
}

/** The drainage board's crawlers. */
const creek: Omit<FleetLine, 'first' | 'serviceDays'> = {
  owner: board,
  name: 'Creek',
  count: 1,
  kind: 'crawler',
  layout: 'crawler-2',
  kmAYear: [0, 0],
  hoursAYear: [300, 600],
  start: [300, 1_500],
};

export const fleetLines: readonly FleetLine[] = [
  {
    owner: haulage,
    name: 'Tern',
    first: 401,
    count: 18,
    kind: 'tractor',
    layout: 'tractor-3',
    kmAYear: [90_000, 130_000],
    start: [40_000, 420_000],
    serviceDays: [330, 520],
  },
  {
    owner: haulage,
    name: 'Hollow',
    first: 61,
    count: 16,
    kind: 'semi-trailer',
    layout: 'semi-3',
    kmAYear: [70_000, 110_000],
    start: [0, 300_000],
    serviceDays: [420, 600],
  },
  {
    owner: haulage,
    name: 'Hollow',
    first: 81,
    count: 4,
    kind: 'semi-trailer',
    layout: 'semi-2',
    kmAYear: [60_000, 90_000],
    start: [0, 300_000],
    serviceDays: [420, 600],
  },
  {
    owner: buses,
    name: 'Valley',
    first: 12,
    count: 20,
    kind: 'bus',
    layout: 'bus-2',
    kmAYear: [45_000, 70_000],
    start: [60_000, 500_000],
    serviceDays: [340, 500],
  },
  {
    owner: motorhomes,
    name: 'Drift',
    first: 1,
    count: 12,
    kind: 'motorhome',
    layout: 'tractor-2',
    kmAYear: [14_000, 28_000],
    start: [5_000, 90_000],
    serviceDays: [480, 760],
  },
  {
    owner: motorhomes,
    name: 'Drift',
    first: 21,
    count: 2,
    kind: 'motorhome',
    layout: 'motorhome-3',
    kmAYear: [14_000, 24_000],
    start: [5_000, 60_000],
    serviceDays: [480, 760],
  },
  {
    owner: motorhomes,
    name: 'Heather',
    first: 1,
    count: 9,
    kind: 'caravan',
    layout: 'towed-2',
    kmAYear: [4_000, 9_000],
    start: [0, 30_000],
    serviceDays: [350, 420],
  },
  {
    owner: motorhomes,
    name: 'Heather',
    first: 31,
    count: 3,
    kind: 'caravan',
    layout: 'towed-1',
    kmAYear: [3_000, 7_000],
    start: [0, 20_000],
    serviceDays: [350, 420],
  },
  {
    owner: growers,
    name: 'Harrow',
    first: 1,
    count: 8,
    kind: 'farm-tractor',
    layout: 'farm-2',
    kmAYear: [0, 0],
    hoursAYear: [500, 900],
    start: [1_200, 6_000],
    serviceDays: [540, 800],
  },
  {
    owner: growers,
    name: 'Seed cart',
    first: 1,
    count: 3,
    kind: 'implement',
    layout: 'implement-1',
    kmAYear: [1_500, 3_000],
    start: [0, 9_000],
    serviceDays: [480, 700],
  },
  {
    owner: growers,
    name: 'Flat',
    first: 1,
    count: 4,
    kind: 'flatbed',
    layout: 'towed-2',
    kmAYear: [5_000, 12_000],
    start: [0, 40_000],
    serviceDays: [360, 520],
  },
  {
    owner: board,
    name: 'Sluice',
    first: 1,
    count: 4,
    kind: 'work-machine',
    layout: 'machine-2',
    kmAYear: [2_000, 5_000],
    hoursAYear: [700, 1_200],
    start: [2_000, 20_000],
    serviceDays: [500, 760],
  },
  {
    owner: board,
    name: 'Marsh',
    first: 1,
    count: 2,
    kind: 'rigid',
    layout: 'rigid-4',
    kmAYear: [25_000, 40_000],
    start: [80_000, 240_000],
    serviceDays: [400, 600],
  },
  {
    ...{ ...creek, first: 1, serviceDays: [330, 365] },
    // Its seals are due once a year: the next time five weeks from now, two weeks after they have to be ordered.
    daysAgo: [695, 330],
  },
  { ...creek, first: 2, serviceDays: [9_999, 9_999] },
  {
    owner: recovery,
    name: 'Beacon',
    first: 1,
    count: 2,
    kind: 'rigid',
    layout: 'tractor-3',
    kmAYear: [30_000, 50_000],
    start: [120_000, 300_000],
    serviceDays: [420, 600],
  },
  {
    owner: recovery,
    name: 'Beacon',
    first: 7,
    count: 1,
    kind: 'rigid',
    layout: 'rigid-5',
    kmAYear: [20_000, 30_000],
    start: [120_000, 300_000],
    serviceDays: [420, 600],
  },
  {
    owner: recovery,
    name: 'Beacon van',
    first: 1,
    count: 2,
    kind: 'van',
    layout: 'van-2',
    kmAYear: [20_000, 35_000],
    start: [20_000, 120_000],
    serviceDays: [9_999, 9_999],
  },
  {
    owner: board,
    name: 'Spoil',
    first: 1,
    count: 2,
    kind: 'work-machine',
    layout: 'dumper-2',
    kmAYear: [0, 0],
    hoursAYear: [600, 1_000],
    start: [1_500, 6_000],
    serviceDays: [9_999, 9_999],
  },
  {
    owner: growers,
    name: 'Harrow',
    first: 21,
    count: 1,
    kind: 'farm-tractor',
    layout: 'farm-driven',
    kmAYear: [0, 0],
    hoursAYear: [500, 900],
    start: [1_200, 6_000],
    serviceDays: [9_999, 9_999],
  },
  {
    owner: motorhomes,
    name: 'Heather',
    first: 51,
    count: 1,
    kind: 'caravan',
    layout: 'towed-rubber',
    kmAYear: [3_000, 7_000],
    start: [0, 20_000],
    serviceDays: [9_999, 9_999],
  },
  {
    owner: haulage,
    name: 'Hollow',
    first: 95,
    count: 1,
    kind: 'semi-trailer',
    layout: 'semi-compact',
    kmAYear: [70_000, 110_000],
    start: [0, 300_000],
    serviceDays: [9_999, 9_999],
  },
];

/** What was noticed, by whom, the symptoms, and the work that followed. */
export const complaints = [
  ['Seal weep on the inside of the tyre', 'driver', ['oil-on-tyre'], 'seal'],
  ['Annual hub service', 'planned', [], 'repack'],
  ['Brakes renewed, hubs looked at', 'planned', [], 'brakes'],
  ['Movement felt at 12 and 6', 'driver', ['movement'], 'bearings'],
  ['Hub warmer than the other side after the road', 'driver', ['hub-warmer'], 'bearings'],
  ['Wheel-speed lamp comes and goes', 'driver', ['lamp'], 'seal'],
] as const;

const wrench = (
  code: string,
  title: string,
  [min, max]: [number, number],
  drive: '3/8' | '1/2' | '3/4',
  lengthMm?: number,
) =>
  ({
    kind: 'torque-wrench',
    ...{ code, title, drive },
    ...{ min: quantity(min, 'lbf-ft'), max: quantity(max, 'lbf-ft') },
    ...(lengthMm ? { length: quantity(lengthMm, 'mm') } : {}),
  }) as const;
const dial = (code: string, title: string, value: number, unit: 'in' | 'mm') =>
  ({ kind: 'dial-indicator', code, title, graduation: quantity(value, unit) }) as const;

const adapter = (code: string, title: string, lengthMm: number, drive: '1/2' | '3/4') =>
  ({ kind: 'adapter', code, title, length: quantity(lengthMm, 'mm'), drive }) as const;

const socket = (code: string, title: string, size: number, points: 6 | 8, drive: '3/4' | '1') =>
  ({ kind: 'socket', code, title, size: quantity(size, 'in'), points, drive }) as const;

type OwnTool = Tool extends infer T ? (T extends Tool ? Omit<T, 'id' | 'calibratedUntil'> : never) : never;

/** Tools of the works, with the month and day on which each one’s yearly calibration ends. */
export const demoTools: readonly { tool: OwnTool; endsOn: string; lapsed?: true }[] = [
  { tool: wrench('TW-01', 'Half-inch click wrench', [40, 250], '1/2', 520), endsOn: '05-31' },
  { tool: wrench('TW-02', 'Three-eighths click wrench', [10, 80], '3/8', 310), endsOn: '05-31' },
  { tool: wrench('TW-03', 'Three-quarter wrench, long bar', [100, 600], '3/4', 1020), endsOn: '03-15' },
  { tool: wrench('TW-04', 'Half-inch wrench, dial', [30, 250], '1/2'), endsOn: '10-31', lapsed: true },
  { tool: wrench('TW-05', 'Wheel-nut wrench', [150, 750], '3/4'), endsOn: '08-20' },
  { tool: dial('DI-04', 'Dial on a magnetic base', 0.001, 'in'), endsOn: '07-31' },
  { tool: dial('DI-06', 'Metric dial, long stem', 0.01, 'mm'), endsOn: '07-31' },
  { tool: { kind: 'pull-scale', code: 'PS-01', title: 'Spring scale, 100 N' }, endsOn: '01-20' },
  { tool: { kind: 'thermometer', code: 'TH-02', title: 'Hub thermometer' }, endsOn: '02-28' },
  { tool: socket('SK-01', 'Bearing nut, steer and trailer', 2.625, 6, '3/4'), endsOn: '01-01' },
  { tool: socket('SK-02', 'Bearing nut, drive', 3.25, 8, '3/4'), endsOn: '01-01' },
  { tool: socket('SK-03', 'Wheel nut', 1.3125, 6, '1'), endsOn: '01-01' },
  { tool: adapter('AD-01', 'Open end, caliper bracket', 76, '1/2'), endsOn: '01-01' },
  { tool: adapter('AD-02', 'Open end, large', 120, '3/4'), endsOn: '01-01' },
];
