import { quantity } from '../quantity/index.ts';
import { torqueFigure, type BandFigure, type Hub, type TorqueFigure, type TurnFigure } from './figure.ts';
import { openSchools } from './schools.ts';
import { constructions, type Family, type Sheet } from './sheet.ts';

const rp = 'TMC RP 618';
const practice = 'Common practice';
const recalled = `${rp}, recalled`;

const heavyBand: BandFigure = {
  min: quantity(0.001, 'in'),
  max: quantity(0.005, 'in'),
  mark: 'published',
  source: rp,
};
const ftLb = (min: number, max: number, mark: TorqueFigure['mark'], source: string): TorqueFigure =>
  torqueFigure([min, max], 'lbf-ft', mark, source);
const turns = (value: number, mark: TurnFigure['mark'], source: string): TurnFigure => ({
  turns: value,
  mark,
  source,
});

/** Hub-piloted M22 wheels only; every other wheel asks for its maker's figure. */
const heavyWheel = ftLb(450, 500, 'from-memory', 'TMC RP 222 for hub-piloted M22, recalled');

const oil = { kind: 'oil', name: 'Wheel-end oil, as the hub asks' } as const;
const gearOil = { kind: 'oil', name: 'Axle oil, as the maker asks' } as const;
const grease = { kind: 'grease', name: 'Lithium complex NLGI 2, GC-LB' } as const;

/** What a family sheet can say of a thread, a lock and studs: the usual, to be held against this nut. */
const marks: Sheet['marks'] = {
  thread: { mark: 'from-memory', source: 'Usual for this nut, recalled' },
  lock: { mark: 'from-memory', source: 'Usual for this nut, recalled' },
  studs: { mark: 'from-memory', source: 'Usual for this wheel, recalled' },
  lubricant: { mark: 'common-practice', source: practice },
};

const noBolts = {
  nextPlace: null,
  drag: null,
  studPilotedTorque: null,
  nutTorque: null,
  boltTorque: null,
  flangeTorque: null,
  caliperTorque: null,
  bracketTorque: null,
  spindleTorque: null,
  capTorque: null,
  jointTorque: null,
  coverTorque: null,
  rollingNew: null,
  rollingRunIn: null,
  swivelPull: null,
  shaftMovement: null,
  stack: null,
} as const;

/** Sizes of a common heavy drive or trailer hub, of a steer hub and of a light trailer's; a shop measures its own. */
const heavyHub: Hub = {
  bearings: [
    { boreMm: 82.5, outsideMm: 139.7, widthMm: 36.5, massKg: 2.1 },
    { boreMm: 66.7, outsideMm: 122.2, widthMm: 38.1, massKg: 1.8 },
  ],
  cavityMl: 1100,
  cavityFillPercent: 50,
  mark: 'from-memory',
  source: 'Recalled for a common drive or trailer hub',
};
const steerHub: Hub = {
  bearings: [
    { boreMm: 66.7, outsideMm: 122.2, widthMm: 38.1, massKg: 1.8 },
    { boreMm: 44.5, outsideMm: 93.3, widthMm: 30.2, massKg: 0.9 },
  ],
  cavityMl: 450,
  cavityFillPercent: 50,
  mark: 'from-memory',
  source: 'Recalled for a common steer hub',
};
const lightHub: Hub = {
  bearings: [
    { boreMm: 35, outsideMm: 65, widthMm: 17, massKg: 0.24 },
    { boreMm: 25, outsideMm: 50, widthMm: 15, massKg: 0.14 },
  ],
  cavityMl: 110,
  cavityFillPercent: 30,
  mark: 'from-memory',
  source: 'Recalled for a common hub',
};

const heavy = {
  revision: 1,
  band: heavyBand,
  verifyBy: 'dial',
  seatTorque: ftLb(200, 200, 'published', rp),
  setTorque: ftLb(50, 50, 'published', rp),
  wheelTorque: heavyWheel,
  jamTorque: null,
  lubricant: oil,
  ...noBolts,
  studs: 10,
  hub: heavyHub,
  schools: { ...openSchools, lockCheck: 'second-person' },
  retorque: null,
  intervals: null,
  heat: null,
  marks,
} as const;

const dowelLock = { kind: 'indexed', positionsPerTurn: 12, reversible: true } as const;
const tangLock = { kind: 'indexed', positionsPerTurn: 8, reversible: true } as const;

/** A sheet with nothing in it but its title, to be filled in. */
function blank(sheetId: string, family: Family, procedureId: string, lubricant: Sheet['lubricant']): Sheet {
  return {
    sheetId,
    revision: 1,
    title: constructions[family],
    family,
    procedureId,
    thread: null,
    lock: null,
    nut: '',
    band: null,
    verifyBy: 'none',
    seatTorque: null,
    setTorque: null,
    backOff: null,
    jamTorque: null,
    wheelTorque: null,
    ...noBolts,
    studs: null,
    lubricant,
    hub: null,
    schools: openSchools,
    retorque: null,
    intervals: null,
    heat: null,
    marks,
  };
}

/** Seen on one vehicle: offered, and asked to be confirmed against the maker's. */
const seenOnce = (min: number, max: number, on: string) => ftLb(min, max, 'seen-once', `Seen on ${on}`);
const eightStuds = { wheelTorque: seenOnce(135, 140, 'one eight-stud light truck'), studs: 8 };
const stepless = { kind: 'stepless' } as const;
const lightBand: BandFigure = { ...heavyBand, mark: 'common-practice', source: practice };

/**
 * Family sheets the product starts with. Every figure carries its mark; a recalled one is shown with
 * "confirm against the maker's sheet".
 */
export const familySheets: readonly Sheet[] = [
  {
    ...heavy,
    sheetId: 'a-drive-dowel',
    title: 'Drive axle, two nuts, dowel washer',
    family: 'A',
    procedureId: 'a-two-nuts',
    thread: { threadsPerInch: 12 },
    lock: dowelLock,
    nut: 'Two nuts, dowel washer',
    backOff: turns(-0.25, 'published', rp),
    jamTorque: ftLb(300, 400, 'published', rp),
  },
  {
    ...heavy,
    sheetId: 'a-drive-tang',
    title: 'Drive axle, two nuts, tang washer',
    family: 'A',
    procedureId: 'a-two-nuts',
    thread: { threadsPerInch: 16 },
    lock: tangLock,
    nut: 'Two nuts, tang washer',
    backOff: turns(-0.25, 'published', rp),
    jamTorque: ftLb(200, 275, 'from-memory', recalled),
  },
  {
    ...heavy,
    sheetId: 'a-trailer',
    title: 'Trailer axle, two nuts',
    family: 'A',
    procedureId: 'a-two-nuts',
    thread: { threadsPerInch: 12 },
    lock: dowelLock,
    nut: 'Two nuts, 2 5/8 in and over across flats',
    backOff: turns(-0.25, 'published', rp),
    jamTorque: ftLb(300, 400, 'from-memory', recalled),
  },
  {
    ...heavy,
    hub: steerHub,
    sheetId: 'a-steer-double',
    title: 'Steer axle, two nuts',
    family: 'A',
    procedureId: 'a-two-nuts',
    thread: { threadsPerInch: 14 },
    lock: tangLock,
    nut: 'Two nuts, under 2 5/8 in across flats',
    backOff: turns(-0.5, 'from-memory', recalled),
    jamTorque: ftLb(200, 300, 'from-memory', recalled),
  },
  {
    ...heavy,
    hub: steerHub,
    sheetId: 'd-steer-18',
    title: 'Steer axle, single nut and cotter, 18 threads',
    family: 'D',
    procedureId: 'd-steer-single-nut',
    thread: { threadsPerInch: 18 },
    lock: { kind: 'castellated', slots: 6, holeAxesDeg: [0, 90] },
    nut: 'Six slots, two crossed holes',
    backOff: turns(-0.25, 'from-memory', recalled),
  },
  {
    ...heavy,
    hub: steerHub,
    sheetId: 'd-steer-12',
    title: 'Steer axle, single nut and cotter, 12 threads',
    family: 'D',
    procedureId: 'd-steer-single-nut',
    thread: { threadsPerInch: 12 },
    lock: { kind: 'castellated', slots: 6, holeAxesDeg: [0, 90] },
    nut: 'Six slots, two crossed holes',
    backOff: turns(-1 / 6, 'from-memory', recalled),
  },
  {
    ...blank('d-towed', 'D', 'd-towed', grease),
    title: 'Towed caravan or light trailer',
    thread: { threadsPerInch: 14 },
    lock: { kind: 'castellated', slots: 6, holeAxesDeg: [0, 90] },
    nut: 'Six slots, two crossed holes',
    band: lightBand,
    verifyBy: 'dial-or-feel',
    seatTorque: ftLb(50, 50, 'common-practice', practice),
    studs: 5,
    hub: lightHub,
  },
  {
    ...blank('d-farm-front', 'D', 'd-farm-front', grease),
    title: 'Farm tractor front hub',
    thread: { pitchMm: 1.5 },
    lock: { kind: 'castellated', slots: 6, holeAxesDeg: [0] },
    nut: 'Six slots, one hole',
    band: lightBand,
    verifyBy: 'dial-or-feel',
    studs: 6,
  },
  {
    ...heavy,
    sheetId: 'b-drive',
    title: 'Drive axle, one-piece nut with lock ring',
    family: 'B',
    procedureId: 'b-lock-ring',
    thread: { threadsPerInch: 12 },
    lock: stepless,
    nut: 'One-piece nut, lock ring and key',
    seatTorque: ftLb(200, 200, 'common-practice', practice),
    setTorque: ftLb(100, 100, 'common-practice', practice),
    backOff: turns(-0.125, 'seen-once', 'Seen on one drive axle'),
  },
  {
    ...heavy,
    sheetId: 'b-other',
    title: 'Steer or trailer axle, one-piece nut: enter the nut maker’s back-off',
    family: 'B',
    procedureId: 'b-lock-ring',
    thread: { threadsPerInch: 12 },
    lock: stepless,
    nut: 'One-piece nut, lock ring and key',
    seatTorque: ftLb(200, 200, 'common-practice', practice),
    setTorque: ftLb(100, 100, 'common-practice', practice),
    backOff: null,
  },
  {
    ...heavy,
    sheetId: 'c-preset',
    title: 'Pre-set hub with a bearing spacer',
    family: 'C',
    procedureId: 'c-preset',
    thread: null,
    lock: null,
    nut: 'One nut, spacer between the bearings',
    band: {
      min: quantity(0, 'in'),
      max: quantity(0.006, 'in'),
      mark: 'from-memory',
      source: 'Hub sheet, recalled',
    },
    seatTorque: null,
    setTorque: seenOnce(300, 300, 'one pre-set hub'),
    backOff: null,
  },
  {
    ...blank('e-keyed-washer', 'E', 'e-keyed-washer', grease),
    title: 'Older bus or van, staked nut and keyed washer',
    thread: { pitchMm: 1.5 },
    lock: stepless,
    nut: 'Staked nut, keyed washer',
    band: lightBand,
    verifyBy: 'dial-or-feel',
    caliperTorque: seenOnce(118, 118, 'one bus'),
    jointTorque: seenOnce(80, 80, 'one bus'),
    studs: 8,
  },
  {
    ...blank('e-torque', 'E', 'e-torque', grease),
    title: 'Medium-duty front hub, staked nut set by torque',
    thread: { pitchMm: 1.5 },
    lock: stepless,
    nut: 'Staked nut, two notches',
    band: lightBand,
    verifyBy: 'dial-or-feel',
    seatTorque: seenOnce(77, 77, 'one medium-duty front hub'),
    backOff: turns(-0.25, 'seen-once', 'Seen on one medium-duty front hub'),
    caliperTorque: seenOnce(118, 118, 'one bus'),
    studs: 8,
  },
  {
    ...blank('f-unitised', 'F', 'f-unitised', grease),
    nut: 'Axle nut and four hub bolts',
    verifyBy: 'dial-or-feel',
    ...eightStuds,
  },
  {
    ...blank('f-compact', 'F', 'f-compact', grease),
    title: 'Compact trailer hub, sealed for its life',
    nut: 'One axle nut, its lock',
    verifyBy: 'dial-or-feel',
    wheelTorque: heavyWheel,
    studs: 10,
  },
  {
    ...blank('f-drum', 'F', 'f-drum', grease),
    title: 'Caravan rubber axle, drum and bearing in one',
    nut: 'Flange nut, used once',
    verifyBy: 'dial-or-feel',
    studs: 5,
  },
  { ...blank('g-c-clip', 'G', 'g-c-clip', oil), nut: 'C-clip and cross pin', ...eightStuds },
  {
    ...blank('h-lock-nuts', 'H', 'h-lock-nuts', grease),
    nut: 'Two lock nuts or a lock plate',
    verifyBy: 'drag',
  },
  {
    ...blank('j-shaft-seal', 'J', 'j-shaft-seal', grease),
    nut: 'Three grub screws',
  },
  { ...blank('k-spindle-needle', 'K', 'k-spindle-needle', grease), verifyBy: 'drag' },
  {
    ...blank('l-swivel', 'L', 'l-swivel', grease),
    verifyBy: 'drag',
  },
  {
    ...blank('m-swaged-studs', 'M', 'm-swaged-studs', grease),
    nut: 'Two nuts with a pin',
    verifyBy: 'dial-or-feel',
  },
  {
    ...blank('n-planetary', 'N', 'n-planetary', gearOil),
    title: 'Hub with reduction, preloaded by its nut',
    nut: 'Slotted nut, set to a rolling torque',
  },
  {
    ...blank('n-shims', 'N', 'n-shims', gearOil),
    title: 'Hub with reduction, preloaded by shims',
    nut: 'Retainer plate over shims',
  },
];

/** A family sheet by its id, or undefined. */
export function familySheet(sheetId: string): Sheet | undefined {
  return familySheets.find((s) => s.sheetId === sheetId);
}
