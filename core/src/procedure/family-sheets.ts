import { quantity } from '../quantity/index.ts';
import { torqueFigure, type BandFigure, type TorqueFigure, type TurnFigure } from './figure.ts';
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
const ftLb = (
  min: number,
  max: number,
  mark: 'published' | 'common-practice' | 'from-memory',
  source: string,
): TorqueFigure => torqueFigure([min, max], 'lbf-ft', mark, source);
const turns = (value: number, mark: TurnFigure['mark'], source: string): TurnFigure => ({
  turns: value,
  mark,
  source,
});

const heavyWheel = ftLb(450, 450, 'common-practice', practice);
/** No figure for these is in the handbook: the shop must set its own before the wheel is on. */
const lightWheel = ftLb(80, 90, 'from-memory', 'Recalled for light trailers');
const tractorWheel = ftLb(150, 200, 'from-memory', 'Recalled for farm tractors');

const oil = { kind: 'oil', name: 'Wheel-end oil, as the hub asks' } as const;
const grease = { kind: 'grease', name: 'Lithium complex NLGI 2, GC-LB' } as const;

const heavy = {
  revision: 1,
  band: heavyBand,
  verifyBy: 'dial',
  seatTorque: ftLb(200, 200, 'published', rp),
  setTorque: ftLb(50, 50, 'published', rp),
  wheelTorque: heavyWheel,
  lubricant: oil,
} as const;

const dowelLock = { kind: 'indexed', positionsPerTurn: 12, reversible: true } as const;
const tangLock = { kind: 'indexed', positionsPerTurn: 8, reversible: true } as const;

/** Constructions that have a sheet but no procedure yet: the axle can be entered, a job cannot start on it. */
function sheetWithoutProcedure(
  family: Family,
  lubricant: Sheet['lubricant'],
  wheelTorque: TorqueFigure,
): Sheet {
  return {
    sheetId: `${family.toLowerCase()}-plain`,
    revision: 1,
    title: constructions[family],
    family,
    procedureId: null,
    thread: null,
    lock: null,
    nut: '',
    band: null,
    verifyBy: 'dial',
    seatTorque: null,
    setTorque: null,
    backOff: null,
    jamTorque: null,
    wheelTorque,
    lubricant,
  };
}

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
    sheetId: 'd-steer-18',
    title: 'Steer axle, single nut and cotter, 18 threads',
    family: 'D',
    procedureId: 'd-steer-single-nut',
    thread: { threadsPerInch: 18 },
    lock: { kind: 'castellated', slots: 6, holeAxesDeg: [0, 90] },
    nut: 'Six slots, two crossed holes',
    backOff: turns(-0.25, 'from-memory', recalled),
    jamTorque: null,
  },
  {
    ...heavy,
    sheetId: 'd-steer-12',
    title: 'Steer axle, single nut and cotter, 12 threads',
    family: 'D',
    procedureId: 'd-steer-single-nut',
    thread: { threadsPerInch: 12 },
    lock: { kind: 'castellated', slots: 6, holeAxesDeg: [0, 90] },
    nut: 'Six slots, two crossed holes',
    backOff: turns(-1 / 6, 'from-memory', recalled),
    jamTorque: null,
  },
  {
    sheetId: 'd-towed',
    revision: 1,
    title: 'Towed caravan or light trailer',
    family: 'D',
    procedureId: 'd-towed',
    thread: { threadsPerInch: 14 },
    lock: { kind: 'castellated', slots: 6, holeAxesDeg: [0, 90] },
    nut: 'Six slots, two crossed holes',
    band: { ...heavyBand, mark: 'common-practice', source: practice },
    verifyBy: 'dial-or-feel',
    seatTorque: ftLb(50, 50, 'common-practice', practice),
    setTorque: null,
    backOff: null,
    jamTorque: null,
    wheelTorque: lightWheel,
    lubricant: grease,
  },
  {
    sheetId: 'd-farm-front',
    revision: 1,
    title: 'Farm tractor front hub',
    family: 'D',
    procedureId: 'd-farm-front',
    thread: { pitchMm: 1.5 },
    lock: { kind: 'castellated', slots: 6, holeAxesDeg: [0] },
    nut: 'Six slots, one hole',
    band: { ...heavyBand, mark: 'common-practice', source: practice },
    verifyBy: 'dial-or-feel',
    seatTorque: null,
    setTorque: null,
    backOff: null,
    jamTorque: null,
    wheelTorque: tractorWheel,
    lubricant: grease,
  },
  sheetWithoutProcedure('B', oil, heavyWheel),
  sheetWithoutProcedure('C', oil, heavyWheel),
  sheetWithoutProcedure('E', grease, ftLb(135, 140, 'common-practice', practice)),
  sheetWithoutProcedure('F', grease, ftLb(135, 140, 'common-practice', practice)),
  sheetWithoutProcedure('G', oil, ftLb(135, 140, 'common-practice', practice)),
  sheetWithoutProcedure('H', grease, lightWheel),
  sheetWithoutProcedure('J', grease, lightWheel),
  sheetWithoutProcedure('K', grease, lightWheel),
  sheetWithoutProcedure('L', grease, lightWheel),
  sheetWithoutProcedure('M', grease, lightWheel),
];

/** A family sheet by its id, or undefined. */
export function familySheet(sheetId: string): Sheet | undefined {
  return familySheets.find((s) => s.sheetId === sheetId);
}
