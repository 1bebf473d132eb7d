import { formatPlay } from '../end-play/index.ts';
import { formatTurn } from '../nut/index.ts';
import {
  convert,
  formatFor,
  formatValue,
  unitDefinition,
  unitFor,
  type Reader,
  type ReaderUnits,
  type Unit,
} from '../quantity/index.ts';
import { works } from '../stack/index.ts';
import type {
  BandFigure,
  HeatFigure,
  IntervalFigure,
  Mark,
  Marked,
  RetorqueFigure,
  TorqueFigure,
} from './figure.ts';
import { backOffLeavesMm } from './back-off.ts';
import { formatHubFill } from './hub-fill.ts';
import { openSchools, describeSchool, schoolNames, schools } from './schools.ts';
import { bandInMm, type Sheet, type TorqueKey } from './sheet.ts';

const CONFIRM = ': confirm against the maker’s sheet';

/** Where a figure comes from; a recalled one asks to be confirmed. */
export function describeMark({ mark, source }: { mark: Mark; source: string }): string {
  return needsConfirming(mark) ? `${source}${CONFIRM}` : source;
}

/** A recalled figure, or one seen on a single vehicle, asks to be confirmed. */
export function needsConfirming(mark: Mark): boolean {
  return mark === 'from-memory' || mark === 'seen-once';
}

/** How well thread, lock places, studs or lubricant of a sheet are known. */
export function markOf({ marks }: Sheet, what: Marked): { mark: Mark; source: string } {
  return marks[what] ?? { mark: 'from-memory', source: 'Not marked' };
}

function formatRange(
  { min, max }: { min: TorqueFigure['min']; max: TorqueFigure['max'] },
  unit: Unit,
): string {
  const value = (q: TorqueFigure['min']) => formatValue(convert(q.value, q.unit, unit), unit);
  const text = min.si === max.si ? value(max) : `${value(min)} to ${value(max)}`;
  return `${text} ${unitDefinition(unit).label}`;
}

/** A torque in the reader's unit, with the other beside. */
export function formatTorque(figure: Pick<TorqueFigure, 'min' | 'max'>, reader: Reader): string {
  const own = unitFor(figure.max, reader);
  return `${formatRange(figure, own)} (${formatRange(figure, own === 'Nm' ? 'lbf-ft' : 'Nm')})`;
}

function describeBand(band: BandFigure, unit: 'in' | 'mm'): string {
  const text = (q: BandFigure['min']) =>
    unit === 'in' ? convert(q.value, q.unit, 'in').toFixed(3) : convert(q.value, q.unit, 'mm').toFixed(3);
  return `${text(band.min)} to ${text(band.max)} ${unit}`;
}

/** A figure from the least to the most, in the reader's unit alone: `18.00 to 36.00 N`. */
export function formatLimits(figure: Pick<TorqueFigure, 'min' | 'max'>, reader: Reader): string {
  return formatRange(figure, unitFor(figure.max, reader));
}

function formatThread(thread: Sheet['thread']): string {
  if (!thread) return 'not named';
  return 'pitchMm' in thread ? `${thread.pitchMm} mm pitch` : `${thread.threadsPerInch} per inch`;
}

function describeLock(lock: Sheet['lock']): string {
  if (!lock) return 'not named';
  if (lock.kind === 'stepless') return 'any angle';
  if (lock.kind === 'castellated')
    return `${lock.slots} slots, ${lock.holeAxesDeg.length === 1 ? 'one hole' : `${lock.holeAxesDeg.length} holes`}`;
  return `${lock.positionsPerTurn} places${lock.reversible ? ', washer turns over' : ''}`;
}

function describeRetorque({ from, by, hours, days }: RetorqueFigure, reader: Reader): string {
  const run = hours ? `, or ${formatFor(hours, reader)} by the hour meter` : '';
  return `${formatFor(from, reader)} to ${formatFor(by, reader)}${run}, ${days} days at the latest`;
}

function describeHeat({ lookOverAirK, lookOverOtherK, notReleasedOverAirK }: HeatFigure): string {
  return `look again over ${lookOverAirK} K above the air or ${lookOverOtherK} K above the other side, not released over ${notReleasedOverAirK} K`;
}

/** How often, in words: `every 160,000 km or 12 months`. */
function describeInterval({ distance, months, hours }: IntervalFigure, reader: Reader): string {
  const limits = [
    distance && formatFor(distance, reader),
    months && (months === 1 ? '1 month' : `${months} months`),
    hours && formatFor(hours, reader),
  ];
  return `every ${limits.filter(Boolean).join(' or ')}`;
}

export interface SheetLine {
  label: string;
  value: string;
  source?: string;
  /** It is recalled, seen once or not marked: the maker's sheet decides. */
  confirm?: boolean;
}

const sourced = ({ mark, source }: { mark: Mark; source: string }) => ({
  source,
  confirm: needsConfirming(mark),
});

/** The line of a figure from least to most; none where the sheet has none. */
const limits = (
  label: string,
  figure: (Pick<TorqueFigure, 'min' | 'max'> & { mark: Mark; source: string }) | null,
  reader: Reader,
): SheetLine[] => (figure ? [{ label, value: formatLimits(figure, reader), ...sourced(figure) }] : []);

/** A line with where it comes from: `16 per inch. Usual for this nut, recalled: confirm against the maker’s sheet`. */
export function describeLine({ value, source, confirm }: SheetLine): string {
  return source ? `${value}. ${source}${confirm ? CONFIRM : ''}` : value;
}

/** Where figures come from, each source once with what it is of; and what waits to be confirmed. */
export function sheetSources(lines: readonly SheetLine[]): string[] {
  const bySource = new Map<string, string[]>();
  for (const { label, source } of lines)
    if (source) bySource.set(source, [...(bySource.get(source) ?? []), label.toLowerCase()]);
  const open = lines.filter((l) => l.confirm).map((l) => l.label.toLowerCase());
  return [
    ...[...bySource].map(([source, labels]) => `${source}: ${labels.join(', ')}.`),
    ...(open.length > 0 ? [`Confirm against the maker’s sheet: ${open.join(', ')}.`] : []),
  ];
}

/** The torques a sheet can carry, by what they are called. */
export const torques: readonly [TorqueKey, string][] = [
  ['seatTorque', 'Seat'],
  ['setTorque', 'Set'],
  ['jamTorque', 'Jam nut'],
  ['wheelTorque', 'Wheel nuts'],
  ['studPilotedTorque', 'Wheel nuts, stud-piloted'],
  ['nutTorque', 'Axle nut or pin bolt'],
  ['boltTorque', 'Its own bolts'],
  ['flangeTorque', 'Flange nuts or cap bolts'],
  ['caliperTorque', 'Caliper bolts'],
  ['bracketTorque', 'Bracket bolts'],
  ['spindleTorque', 'Spindle nuts'],
  ['capTorque', 'Swivel caps'],
  ['jointTorque', 'Steering joints'],
  ['coverTorque', 'Axle cover'],
];

/** Which way to the next lock place, in words. */
export const nextPlaces = { on: 'on, never back', back: 'back, never on' } as const;

/** What the last back-off can leave with the rollers seated: elastic set and a jam nut take up the rest. */
function backOffLine(sheet: Sheet, reader: ReaderUnits): SheetLine[] {
  const mm = backOffLeavesMm(sheet);
  if (mm === null || !sheet.band) return [];
  const over = mm > bandInMm(sheet.band).maxMm ? ': measure' : '';
  return [{ label: 'It can leave', value: `${formatPlay(mm, reader.length)} at most${over}` }];
}

/** What holds for a wheel end, line by line; figures the sheet does not have are left out. */
export function sheetLines(sheet: Sheet, reader: ReaderUnits): SheetLine[] {
  return [
    ...(sheet.band
      ? [{ label: 'Band', value: describeBand(sheet.band, reader.length), ...sourced(sheet.band) }]
      : []),
    ...(sheet.nut ? [{ label: 'Nut', value: sheet.nut }] : []),
    ...(sheet.thread
      ? [{ label: 'Thread', value: formatThread(sheet.thread), ...sourced(markOf(sheet, 'thread')) }]
      : []),
    ...(sheet.lock
      ? [{ label: 'Locks in', value: describeLock(sheet.lock), ...sourced(markOf(sheet, 'lock')) }]
      : []),
    ...torques.flatMap(([key, label]) => {
      const figure = sheet[key];
      return figure ? [{ label, value: formatTorque(figure, reader), ...sourced(figure) }] : [];
    }),
    ...(sheet.backOff
      ? [{ label: 'Back off', value: formatTurn(sheet.backOff.turns), ...sourced(sheet.backOff) }]
      : []),
    ...backOffLine(sheet, reader),
    ...(sheet.nextPlace ? [{ label: 'Next lock place', value: nextPlaces[sheet.nextPlace] }] : []),
    ...limits('Rolling torque, new bearings', sheet.rollingNew, reader),
    ...limits('Rolling torque, run-in bearings', sheet.rollingRunIn, reader),
    ...limits('Drag', sheet.drag, reader),
    ...limits('Pull at the steering arm', sheet.swivelPull, reader),
    ...limits('Shaft movement', sheet.shaftMovement, reader),
    ...(sheet.studs
      ? [{ label: 'Wheel studs', value: String(sheet.studs), ...sourced(markOf(sheet, 'studs')) }]
      : []),
    { label: 'Lubricant', value: sheet.lubricant.name, ...sourced(markOf(sheet, 'lubricant')) },
    ...(sheet.hub
      ? [{ label: 'Hub takes', value: formatHubFill(sheet, reader), ...sourced(sheet.hub) }]
      : []),
    ...schoolNames
      .filter((name) => sheet.schools[name] !== openSchools[name])
      .map((name) => ({ label: schools[name].title, value: describeSchool(name, sheet.schools) })),
    ...(sheet.retorque
      ? [{ label: 'Retorque', value: describeRetorque(sheet.retorque, reader), ...sourced(sheet.retorque) }]
      : []),
    ...(sheet.intervals ?? []).map((i) => ({
      label: works[i.work],
      value: describeInterval(i, reader),
      ...sourced(i),
    })),
    ...(sheet.heat ? [{ label: 'Hub heat', value: describeHeat(sheet.heat), ...sourced(sheet.heat) }] : []),
  ];
}
