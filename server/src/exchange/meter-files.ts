import { randomUUID } from 'node:crypto';
import { QueryTypes } from 'sequelize';
import Papa from 'papaparse';
import type { MeterFile, MeterReport } from '@lanternwright/contract/exchange';
import { dateOfDay, dayNumber } from '@lanternwright/core/interval';
import type { BroughtReads, Recorder } from '@lanternwright/core/record';
import type { Database } from '../database/connect.ts';
import { inTransaction } from '../database/in-transaction.ts';
import { isoTime } from '../database/sql-time.ts';
import { HttpProblem, notFound } from '../http/problem.ts';
import type { Viewer } from '../http/viewer.ts';
import type { BringMeters, Brought, ForUnit } from '../fleet/bring-meters.ts';
import type { WorkPool } from '../pool/pool.ts';
import type { Clock } from '../shop/clock.ts';
import { csvCell } from './csv-cell.ts';
import type { BadLine, MeterFileRead } from './meter-csv.ts';
import { unitsByName } from './units-by-name.ts';

const SHOWN_BAD = 50;
/** Most lines about strangers that are named one by one. */
const MOST_BAD = 10_000;
const TELL_MS = 500;
/** Being read or taken without a word for so long went with its server. */
const LOST_MS = 60_000;

type Good = Extract<MeterFileRead, { ok: true }>;

interface Neighbours {
  pool: WorkPool;
  bring: BringMeters;
  /** Has a file read or taken in the background, in the open transaction. */
  enqueue: (id: string) => Promise<void>;
}

interface Row extends Omit<MeterFile, 'reason' | 'report'> {
  report: (Partial<MeterReport> & { reason?: string }) | null;
  sentBy: Recorder;
  touchedAt: string;
}

const ROW = `
  select f.id, f.name, ${isoTime('f.sent_at')} as "sentAt", f.state, f.done, f.report,
    json_build_object('id', p.id, 'name', p.name, 'role', p.role) as "sentBy", ${isoTime('f.touched_at')} as "touchedAt"
  from meter_file f join person p on p.id = f.sent_by where f.id = $1`;

/** Good lines as what is brought to each unit, and lines about units that the shop does not have. */
function byUnit(
  read: Good,
  units: readonly (string | { reason: string })[],
): { brought: ForUnit[]; strangers: BadLine[]; strangerCount: number } {
  const order = Array.from(read.of.keys()).sort((a, b) => read.day[a]! - read.day[b]! || a - b);
  const brought = new Map<string, BroughtReads['reads']>();
  const strangers: BadLine[] = [];
  let strangerCount = 0;
  const dates = new Map<number, string>();
  const dateOf = (day: number) => {
    const known = dates.get(day);
    if (known) return known;
    const date = dateOfDay(day);
    dates.set(day, date);
    return date;
  };
  const figure = (value: number) => (Number.isNaN(value) ? null : value);
  for (const i of order) {
    const unit = units[read.of[i]!]!;
    if (typeof unit !== 'string') {
      strangerCount += 1;
      const { unit: name, plate } = read.named[read.of[i]!]!;
      if (strangers.length < MOST_BAD)
        strangers.push({ line: read.line[i]!, text: name || plate, reason: unit.reason });
      continue;
    }
    const line: BroughtReads['reads'][number] = [
      dateOf(read.day[i]!),
      figure(read.distance[i]!),
      figure(read.hours[i]!),
    ];
    const reads = brought.get(unit);
    if (reads) reads.push(line);
    else brought.set(unit, [line]);
  }
  return {
    brought: [...brought]
      .sort(([a], [b]) => (a < b ? -1 : 1))
      .map(([unitId, reads]) => ({ unitId, distanceIn: read.distanceIn, reads })),
    strangers,
    strangerCount,
  };
}

/** Files of meter readings: sent, read in the background, looked at, and taken in whole or not at all. */
export function meterFilesService(db: Database, { pool, bring, enqueue }: Neighbours, clock: Clock) {
  async function row(id: string): Promise<Row> {
    const [found] = await db.sequelize.query<Row>(ROW, { type: QueryTypes.SELECT, bind: [id] });
    if (!found) throw notFound('file');
    return found;
  }

  async function tell(id: string, set: string, ...bind: unknown[]): Promise<boolean> {
    const rows = await db.sequelize.query(
      `update meter_file set ${set}, touched_at = now() where id = $1 and state in ('reading', 'taking') returning id`,
      { type: QueryTypes.SELECT, bind: [id, ...bind] },
    );
    return rows.length > 0;
  }

  /** Reads the file on a thread, and finds the units that it is about. */
  async function read(id: string, person: string, left: AbortSignal) {
    const [file] = await db.sequelize.query<{ csv: string | null }>(
      'select csv from meter_file where id = $1',
      {
        type: QueryTypes.SELECT,
        bind: [id],
      },
    );
    if (!file?.csv) throw notFound('file');
    const answer = await pool.run(
      'meter-file',
      { csv: file.csv, today: dayNumber(clock.today()) },
      { person, takes: 'long', left },
    );
    if (!answer.ok)
      throw new HttpProblem(422, 'No file of readings', `The file cannot be read: ${answer.reason}.`);
    const units = await unitsByName(db, answer.named);
    const { brought, strangers, strangerCount } = byUnit(answer, units);
    const bad = [...answer.bad, ...strangers].sort((a, b) => a.line - b.line);
    return { read: answer, brought, bad, badCount: answer.badCount + strangerCount };
  }

  function reportOf(
    { read: { distanceIn }, brought, bad, badCount }: Awaited<ReturnType<typeof read>>,
    { kept, doubtful, known }: Brought,
  ): MeterReport {
    const days = brought.flatMap(({ reads }) => [reads[0]![0], reads.at(-1)![0]]).sort();
    return {
      ...{ kept, doubtful, known, units: brought.length, distanceIn, badCount, bad: bad.slice(0, SHOWN_BAD) },
      from: days[0] ?? null,
      until: days.at(-1) ?? null,
    };
  }

  /** Work on a file that somebody may put away meanwhile. How far it is, is told beside it, so that others see it. */
  async function working(id: string, { sentBy, state }: Row): Promise<void> {
    const left = new AbortController();
    let done = 0;
    const telling = setInterval(() => {
      tell(id, 'done = $2', done).then(
        (wanted) => wanted || left.abort(),
        () => left.abort(),
      );
    }, TELL_MS);
    const onProgress = (part: number) => {
      left.signal.throwIfAborted();
      done = 0.3 + part * 0.6;
    };
    try {
      const file = await read(id, sentBy.id, left.signal);
      onProgress(0);
      if (state === 'reading') {
        const report = reportOf(file, await bring.look(file.brought, { source: 'file', onProgress }));
        await tell(id, `state = 'read', done = 1, report = $2 ::jsonb`, JSON.stringify(report));
        return;
      }
      const asked = { by: sentBy, at: clock.now().toISOString() };
      await inTransaction(db, async () => {
        const came = await bring.take(file.brought, 'meter-file', asked, { source: 'file', onProgress });
        const report = JSON.stringify(reportOf(file, came));
        if (!(await tell(id, `state = 'taken', done = 1, csv = null, report = $2 ::jsonb`, report)))
          throw new HttpProblem(409, 'Put away', 'The file was put away: nothing of it was kept.');
      });
    } finally {
      clearInterval(telling);
    }
  }

  return {
    async send(csv: string, name: string, { person }: Viewer): Promise<{ id: string }> {
      const id = randomUUID();
      await inTransaction(db, async () => {
        await db.sequelize.query(
          `insert into meter_file (id, name, sent_by, sent_at, csv, state) values ($1, $2, $3, $4, $5, 'reading')`,
          { bind: [id, name, person.id, clock.now().toISOString(), csv] },
        );
        await db.sequelize.query(`delete from meter_file where sent_at < now() - interval '3 days'`);
        await enqueue(id);
      });
      return { id };
    },

    async one(id: string): Promise<MeterFile> {
      const { name, sentAt, state, done, report, touchedAt } = await row(id);
      const lost =
        (state === 'reading' || state === 'taking') && Date.now() - Date.parse(touchedAt) > LOST_MS;
      const reason = lost ? 'The server that worked on it is gone: send it again.' : (report?.reason ?? null);
      const whole = report && report.reason === undefined ? (report as MeterReport) : null;
      return { id, name, sentAt, state: lost ? 'failed' : state, done, report: whole, reason };
    },

    async bad(id: string, { person }: Viewer): Promise<string> {
      const { bad } = await read(id, person.id, new AbortController().signal);
      return `${Papa.unparse(
        {
          fields: ['line', 'what', 'why'],
          data: bad.map((b) => [b.line, csvCell(b.text), csvCell(b.reason)]),
        },
        { newline: '\r\n' },
      )}\r\n`;
    },

    /** @throws HttpProblem 409 where it is not waiting to be taken */
    async take(id: string): Promise<{ id: string }> {
      await row(id);
      await inTransaction(db, async () => {
        const taken = await db.sequelize.query(
          `update meter_file set state = 'taking', done = 0, touched_at = now() where id = $1 and state = 'read' returning id`,
          { type: QueryTypes.SELECT, bind: [id] },
        );
        if (taken.length === 0)
          throw new HttpProblem(409, 'Not now', 'This file is not waiting to be brought in.');
        await enqueue(id);
      });
      return { id };
    },

    async drop(id: string): Promise<{ id: string }> {
      await row(id);
      await db.sequelize.query(`delete from meter_file where id = $1 and state <> 'taken'`, { bind: [id] });
      return { id };
    },

    /** Reads or takes a file; called by the queue. */
    async run(id: string): Promise<void> {
      const [found] = await db.sequelize.query<Row>(ROW, { type: QueryTypes.SELECT, bind: [id] });
      if (!found || (found.state !== 'reading' && found.state !== 'taking')) return;
      try {
        await working(id, found);
      } catch (error) {
        if (error instanceof Error && error.name === 'AbortError') return;
        const reason =
          error instanceof HttpProblem ? error.message : 'It could not be read to its end. Nothing was kept.';
        const state = error instanceof HttpProblem && error.status === 422 ? 'refused' : 'failed';
        await tell(id, `state = '${state}', report = $2 ::jsonb`, JSON.stringify({ reason }));
        if (!(error instanceof HttpProblem)) throw error;
      }
    },
  };
}
export type MeterFilesService = ReturnType<typeof meterFilesService>;
