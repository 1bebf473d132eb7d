import Papa from 'papaparse';
import type { z } from 'zod';
import { newUnitSchema, type NewUnit } from '@lanternwright/contract/fleet';
import type { Sheet, TorqueFigure } from '@lanternwright/core/procedure';
import { parseQuantity, type Quantity, type Unit } from '@lanternwright/core/quantity';
import { worksOfNone } from '@lanternwright/core/record';
import { works, workSchema } from '@lanternwright/core/stack';

/**
 * The fleet file: one line per axle, the unit's own columns repeated. The columns after `sheet` may
 * stay empty; filled, they replace what the family sheet says. Quantities carry their unit. `last_done` says what was
 * done on all of its wheel ends, and when: “seal 2025-03-12; repack 2024-06-01”.
 */
const columns = [
  'owner',
  'unit',
  'kind',
  'plate',
  'distance',
  'hours',
  'axle',
  'role',
  'wheels',
  'brake',
  'sheet',
  'title',
  'thread',
  'lock',
  'nut',
  'band',
  'seat_torque',
  'set_torque',
  'back_off_turns',
  'jam_torque',
  'wheel_torque',
  'lubricant',
  'remarks',
  'last_done',
] as const;
type Column = (typeof columns)[number];
type Line = Record<Column, string>;

const lengths: Unit[] = ['in', 'mm', 'thou', 'um'];
const torques: Unit[] = ['lbf-ft', 'Nm', 'lbf-in'];

const write = (q: Quantity) => `${q.value} ${q.unit}`;
const writeRange = (r: { min: Quantity; max: Quantity } | null) =>
  r === null
    ? ''
    : r.min.value === r.max.value && r.min.unit === r.max.unit
      ? write(r.min)
      : `${write(r.min)} to ${write(r.max)}`;

function writeThread(thread: Sheet['thread']): string {
  if (!thread) return '';
  return 'pitchMm' in thread ? `${thread.pitchMm} mm` : `${thread.threadsPerInch} per inch`;
}

function writeLock(lock: Sheet['lock']): string {
  if (!lock) return '';
  if (lock.kind === 'stepless') return 'stepless';
  if (lock.kind === 'castellated') return `${lock.slots} slots, holes ${lock.holeAxesDeg.join(' ')}`;
  return `${lock.positionsPerTurn} positions${lock.reversible ? ', reversible' : ''}`;
}

function readQuantity(text: string, units: Unit[], column: Column): Quantity {
  const parsed = parseQuantity(text, units);
  if (!parsed.ok) throw new Error(`${column}: ${parsed.message}`);
  return parsed.quantity;
}

function readRange(text: string, units: Unit[], column: Column): { min: Quantity; max: Quantity } {
  const [low = '', high = low] = text.split(/\s+to\s+/);
  return { min: readQuantity(low, units, column), max: readQuantity(high, units, column) };
}

function readThread(text: string): Sheet['thread'] {
  const perInch = /^([\d.]+) per inch$/.exec(text);
  if (perInch) return { threadsPerInch: Number(perInch[1]) };
  const pitch = parseQuantity(text, ['mm']);
  if (!pitch.ok) throw new Error('thread: write it as “12 per inch” or “1.5 mm”');
  return { pitchMm: pitch.quantity.value };
}

function readLock(text: string): Sheet['lock'] {
  if (text === 'stepless') return { kind: 'stepless' };
  const slots = /^(\d+) slots, holes ([-\d. ]+)$/.exec(text);
  if (slots)
    return {
      kind: 'castellated',
      slots: Number(slots[1]),
      holeAxesDeg: slots[2]!.trim().split(/\s+/).map(Number),
    };
  const positions = /^(\d+) positions(, reversible)?$/.exec(text);
  if (positions)
    return {
      kind: 'indexed',
      positionsPerTurn: Number(positions[1]),
      reversible: positions[2] !== undefined,
    };
  throw new Error('lock: write it as “6 slots, holes 0 90”, “12 positions, reversible” or “stepless”');
}

const shop = { mark: 'shop', source: 'Fleet file' } as const;

/** A figure from the file, or the sheet's own where the file says nothing or the same. */
function readFigure<F extends { min: Quantity; max: Quantity }>(
  own: F | null,
  text: string,
  units: Unit[],
  column: Column,
) {
  if (text === '' || text === writeRange(own)) return own;
  return { ...readRange(text, units, column), ...shop };
}

/** Sheets of the shop by their id. */
export type Sheets = ReadonlyMap<string, Sheet>;

function readSheet(line: Line, sheets: Sheets): Sheet {
  const own = sheets.get(line.sheet);
  if (!own) throw new Error(`sheet: there is no sheet “${line.sheet}”`);
  const torque = (figure: TorqueFigure | null, column: Column) =>
    readFigure(figure, line[column], torques, column);
  return {
    ...own,
    title: line.title || own.title,
    thread: line.thread ? readThread(line.thread) : own.thread,
    lock: line.lock ? readLock(line.lock) : own.lock,
    nut: line.nut || own.nut,
    band: readFigure(own.band, line.band, lengths, 'band'),
    seatTorque: torque(own.seatTorque, 'seat_torque'),
    setTorque: torque(own.setTorque, 'set_torque'),
    jamTorque: torque(own.jamTorque, 'jam_torque'),
    wheelTorque: torque(own.wheelTorque, 'wheel_torque'),
    backOff:
      line.back_off_turns === '' || Number(line.back_off_turns) === own.backOff?.turns
        ? own.backOff
        : { turns: Number(line.back_off_turns), ...shop },
    lubricant: line.lubricant ? { ...own.lubricant, name: line.lubricant } : own.lubricant,
  };
}

function readLastDone(text: string): NewUnit['told'] {
  return text
    .split(';')
    .map((part) => part.trim())
    .filter(Boolean)
    .map((part) => {
      const [, work = '', date = ''] = /^(\S+)\s+(\d{4}-\d{2}-\d{2})$/.exec(part) ?? [];
      const known = workSchema.safeParse(work);
      if (!known.success) throw new Error(`last_done: write “${part}” as “seal 2025-03-12”`);
      return { date, works: [known.data] };
    });
}

/** A unit of the fleet as the file writes it. */
export type ExportedUnit = NewUnit & { km: number | null; hours: number | null };

/**
 * Writes units as a fleet file that `readFleetCsv` takes back.
 * @param as a whole file, its head, or more rows for one that has a head already
 */
export function writeFleetCsv(
  units: readonly ExportedUnit[],
  as: 'with-head' | 'rows-only' = 'with-head',
): string {
  const rows = units.flatMap((u) =>
    u.axles.map(({ role, wheels, brake, sheet }, i): Line => ({
      owner: u.owner,
      unit: u.name,
      kind: u.kind,
      plate: u.plate,
      distance: u.km === null ? '' : `${u.km} km`,
      hours: u.hours === null ? '' : `${u.hours} h`,
      axle: String(i + 1),
      role,
      wheels,
      brake,
      sheet: sheet.sheetId,
      title: sheet.title,
      thread: writeThread(sheet.thread),
      lock: writeLock(sheet.lock),
      nut: sheet.nut,
      band: writeRange(sheet.band),
      seat_torque: writeRange(sheet.seatTorque),
      set_torque: writeRange(sheet.setTorque),
      back_off_turns: sheet.backOff ? String(sheet.backOff.turns) : '',
      jam_torque: writeRange(sheet.jamTorque),
      wheel_torque: writeRange(sheet.wheelTorque),
      lubricant: sheet.lubricant.name,
      remarks: u.remarks,
      last_done: u.told.map(({ date, works }) => works.map((w) => `${w} ${date}`).join('; ')).join('; '),
    })),
  );
  const header = as === 'with-head';
  if (rows.length === 0) return header ? Papa.unparse([[...columns]]) + '\r\n' : '';
  return Papa.unparse(rows, { columns: [...columns], header, escapeFormulae: true }) + '\r\n';
}

export interface FleetFile {
  good: { lines: number[]; unit: NewUnit }[];
  bad: { line: number; name: string; reason: string }[];
}

interface NumberedLine {
  at: number;
  line: Line;
}

/**
 * Reads a fleet file. A unit is good when all of its lines are; every bad line is named with its
 * reason (line 1 is the header).
 * @throws Error when the file as a whole cannot be read
 */
export function readFleetCsv(csv: string, sheets: Sheets): FleetFile {
  const parsed = Papa.parse<Record<string, string>>(csv.replace(/^\uFEFF/, ''), {
    header: true,
    skipEmptyLines: 'greedy',
    transformHeader: (h) => h.trim().toLowerCase(),
  });
  const missing = (['owner', 'unit', 'kind', 'axle', 'role', 'sheet'] as const).filter(
    (c) => !parsed.meta.fields?.includes(c),
  );
  if (missing.length > 0) throw new Error(`The file has no column ${missing.join(', ')}`);
  const broken = parsed.errors.find((e) => e.type === 'Quotes');
  if (broken) throw new Error(`Near line ${(broken.row ?? 0) + 1}: ${broken.message}`);
  const groups = new Map<string, NumberedLine[]>();
  parsed.data.forEach((row, i) => {
    const line = Object.fromEntries(columns.map((c) => [c, unescapeFormula((row[c] ?? '').trim())])) as Line;
    const key = `${line.owner.toLowerCase()}\n${line.unit.toLowerCase()}`;
    const group = groups.get(key);
    if (group) group.push({ at: i + 2, line });
    else groups.set(key, [{ at: i + 2, line }]);
  });
  const file: FleetFile = { good: [], bad: [] };
  for (const group of groups.values()) readUnit(group, file, sheets);
  return file;
}

/** The export guards text that a spreadsheet would run as a formula with a quote; take it off again. */
function unescapeFormula(text: string): string {
  return /^'[=+\-@]/.test(text) ? text.slice(1) : text;
}

/** As many as a unit can have. */
const MOST_AXLES = 9;

/** What is wrong with a field, in words; a choice that does not exist is told what there is. */
function describeIssue(issue: z.core.$ZodIssue): string {
  return issue.code === 'invalid_value'
    ? `must be one of ${issue.values.map(String).join(', ')}`
    : issue.message;
}

function readUnit(group: NumberedLine[], file: FleetFile, sheets: Sheets): void {
  const first = group[0]!.line;
  const bad: FleetFile['bad'] = [];
  const reject = (at: number, reason: string) =>
    bad.push({ line: at, name: first.unit || '(no name)', reason });
  if (group.length > MOST_AXLES) {
    reject(
      group[0]!.at,
      `axle: the unit has ${group.length} lines, and no unit has over ${MOST_AXLES} axles`,
    );
    file.bad.push(...bad);
    return;
  }
  const axles = group.map(({ at, line }, i) => {
    if (Number(line.axle) !== i + 1) reject(at, `axle: expected axle ${i + 1}, found “${line.axle}”`);
    try {
      return {
        role: line.role,
        wheels: line.wheels || 'single',
        brake: line.brake || 'drum',
        sheet: readSheet(line, sheets),
      };
    } catch (error) {
      reject(at, error instanceof Error ? error.message : String(error));
      return null;
    }
  });
  if (bad.length === 0) {
    try {
      const meter = {
        ...(first.distance ? { distance: readQuantity(first.distance, ['km', 'mi'], 'distance') } : {}),
        ...(first.hours ? { hours: readQuantity(first.hours, ['h'], 'hours') } : {}),
      };
      const unit = newUnitSchema.safeParse({
        owner: first.owner,
        name: first.unit,
        kind: first.kind,
        plate: first.plate,
        meter,
        axles,
        remarks: first.remarks,
        told: readLastDone(first.last_done),
      });
      if (unit.success) {
        const { told } = unit.data;
        const [odd] = worksOfNone(
          unit.data.axles,
          told.flatMap((t) => t.works),
        );
        if (odd) throw new Error(`last_done: none of its wheel ends has a part for “${works[odd]}”`);
        file.good.push({ lines: group.map((g) => g.at), unit: unit.data });
        return;
      }
      for (const issue of unit.error.issues) {
        const axle = issue.path[0] === 'axles' ? Number(issue.path[1] ?? 0) : 0;
        reject(
          group[axle]?.at ?? group[0]!.at,
          `${String(issue.path.at(-1) ?? 'unit')}: ${describeIssue(issue)}`,
        );
      }
    } catch (error) {
      reject(group[0]!.at, error instanceof Error ? error.message : String(error));
    }
  }
  file.bad.push(...bad);
}
