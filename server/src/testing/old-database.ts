import { randomUUID } from 'node:crypto';
import { readdir, readFile } from 'node:fs/promises';
import { layouts } from '@lanternwright/core/axle-plan';
import { canonicalJson } from '@lanternwright/core/record';
import type { StoredEvent } from '@lanternwright/core/traveller';
import type { Database } from '../database/connect.ts';
import { GENESIS, sha256 } from '../record/link.ts';

/** Jobs as the first build stored them. */
const file = new URL('../../../core/src/traveller/testing/first-build.json', import.meta.url);
const stored = JSON.parse(await readFile(file, 'utf8')) as { events: StoredEvent[] }[];

/** The jobs were written down apart and have the same ids: each gets its own here, wherever they are named. */
const jobs = stored.map((job) => {
  const ids = [job.events[0]!.jobId, ...job.events.map((e) => e.id)];
  const text = ids.reduce((t, id) => t.replaceAll(id, randomUUID()), JSON.stringify(job));
  return JSON.parse(text) as { events: StoredEvent[] };
});

/**
 * A database as the version before the record of the shop left it: schema 0009, jobs in a chain of their own.
 * @returns the hash of every record by its id
 */
export async function oldDatabase(db: Database): Promise<Map<string, string>> {
  const folder = new URL('../../migrations/', import.meta.url);
  const steps = (await readdir(folder)).filter((f) => f.endsWith('.up.sql') && f < '0010').sort();
  await db.sequelize.query('create table migration (name text primary key, at timestamptz default now())');
  for (const step of steps) {
    await db.sequelize.query(await readFile(new URL(step, folder), 'utf8'));
    await db.sequelize.query(`insert into migration (name) values ('${step.replace('.up.sql', '')}')`);
  }
  const run = (sql: string, replacements: Record<string, unknown>) =>
    db.sequelize.query(sql, { replacements });
  const owner = randomUUID();
  await run(`insert into owner values (:owner, 'Tern & Hollow')`, { owner });
  await run(
    `insert into person (id, name, login, role, password_hash) values (:id, 'I. Okonedo', 'okonedo', 'supervisor', 'x')`,
    { id: randomUUID() },
  );
  await run(`insert into tool values (:id, 'TW-01', :tool, now(), 'I. Okonedo', null)`, {
    id: '00000000-0000-4000-8000-000000000001',
    tool: JSON.stringify({
      id: '00000000-0000-4000-8000-000000000001',
      kind: 'pull-scale',
      code: 'TW-01',
      title: 'Scale',
      calibratedUntil: null,
    }),
  });
  const units = [...new Set(jobs.map((j) => (j.events[0]!.body as { unitId: string }).unitId))];
  for (const [i, unit] of units.entries()) {
    await run(`insert into unit values (:unit, :owner, :name, 'tractor')`, {
      unit,
      owner,
      name: `Tern ${i}`,
    });
    for (const [n, axle] of layouts.find((l) => l.id === 'tractor-3')!.axles.entries())
      await run(`insert into axle values (:unit, :number, :role, :wheels, :brake, :sheet)`, {
        ...{ unit, number: n + 1, role: axle.role, wheels: axle.wheels, brake: axle.brake },
        sheet: JSON.stringify(axle.sheet),
      });
    await run(`insert into meter_reading (unit_id, date, km) values (:unit, '2026-01-02', 5000)`, { unit });
  }
  const hashes = new Map<string, string>();
  let [seq, prevHash] = [0, GENESIS];
  for (const { events } of jobs) {
    const opened = events[0]!.body as { unitId: string; title: string };
    const { jobId } = events[0]!;
    await run(
      `insert into job (id, unit_id, title, version, opened_at) values (:jobId, :unit, :title, :version, :at)`,
      { jobId, unit: opened.unitId, title: opened.title, version: events.length, at: events[0]!.at },
    );
    for (const { id, version, at, by, body } of events) {
      seq += 1;
      const hash = sha256(canonicalJson({ seq, id, jobId, version, at, by, body, prevHash }));
      await run(
        `insert into job_event values (:seq, :id, :jobId, :version, :at, :by, :body, :prevHash, :hash)`,
        {
          ...{ seq, id, jobId, version, at, prevHash, hash },
          by: JSON.stringify(by),
          body: JSON.stringify(body),
        },
      );
      hashes.set(id, hash);
      prevHash = hash;
    }
  }
  return hashes;
}
