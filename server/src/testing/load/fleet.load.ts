import { createHash } from 'node:crypto';
import { Readable } from 'node:stream';
import { pipeline } from 'node:stream/promises';
import pg from 'pg';
import { from as copyFrom } from 'pg-copy-streams';
import { afterAll, beforeAll, expect, it } from 'vitest';
import { NEEDING_A_PAGE, standingStates, UNITS_A_PAGE } from '@lanternwright/contract/fleet';
import { fillFleet } from '../../../../bench/fleet.mjs';
import { findUnits } from '../../fleet/find.ts';
import { countsSql, partsOf, places, STANDING, unitsSql } from '../../fleet/fleet-page.ts';
import { NEEDING, NEEDING_UNITS } from '../../fleet/overview.ts';
import { wordsFound } from '../../fleet/find-words.ts';
import { UNIT_PAGE } from '../../fleet/unit-page.ts';
import { bookedWhere } from '../../plan/bookings.ts';
import { DUE, DUE_COUNTS, FLOOR } from '../../plan/floor.ts';
import { bareClients, measure, say } from './measure.ts';
import { openLoadShop, type LoadShop } from './shop.ts';
import { must, openWork } from './technician.ts';
import { pause } from './worker.ts';

const SECONDS = Number(process.env['SECONDS'] ?? 5);
const UNITS = Number(process.env['UNITS'] ?? 20_000);
const READINGS = Number(process.env['READINGS'] ?? 2_000_000);
const CLIENTS = 4;

let shop: LoadShop;
let bare: pg.Client[];
let owner: pg.Client;
let fleet: Awaited<ReturnType<typeof fillFleet>>;
beforeAll(async () => {
  shop = await openLoadShop({ servers: 1, technicians: CLIENTS });
  await Promise.all(shop.technicians.map((c) => openWork(c)));
  // PostgreSQL does not COPY into a table whose rows it keeps apart: the superuser fills it.
  const { port, password } = shop.postgres;
  owner = new pg.Client({
    ...{ host: '127.0.0.1', port, user: 'postgres', password, database: 'lanternwright' },
  });
  await owner.connect();
  const before = performance.now();
  fleet = await fillFleet(owner, { units: UNITS, readings: READINGS });
  await owner.query('vacuum analyze');
  console.log(
    `${UNITS} units, ${fleet.wheelEnds} wheel ends, ${READINGS} readings written in ${((performance.now() - before) / 1000).toFixed(0)} s`,
  );
  bare = await bareClients(shop.postgres.url, CLIENTS);
}, 600_000);
afterAll(async () => {
  await Promise.all([owner, ...bare].map((c) => c.end()));
  await shop.close();
});

async function seconds(work: () => Promise<unknown>): Promise<number> {
  const before = performance.now();
  await work();
  return (performance.now() - before) / 1000;
}

type Statement = [sql: string, values: unknown[]];

it('reads a large fleet', async () => {
  let n = 0;
  const unit = () => fleet.units[(n += 7_919) % fleet.units.length]!;
  const anOwner = () => fleet.owners[n++ % fleet.owners.length]!;
  const word = () => `${(n += 7_919) % 1_000}`;
  const page = () => n++ % 300;
  /** A page as it is asked for, and its statements one after the other on a bare connection. */
  const read = async (what: string, path: () => string, statements: () => Statement[]) =>
    say(
      what,
      await measure(shop.technicians, SECONDS, (caller) => must(caller, 'GET', path())),
      await measure(bare, SECONDS, async (client) => {
        for (const [text, values] of statements())
          await client.query({ name: createHash('md5').update(text).digest('hex'), text, values });
      }),
    );
  const counts = async (where: string, values: unknown[]) =>
    (await bare[0]!.query<{ id: string; units: number }>(countsSql(where), values)).rows;
  const all = await counts('true', []);
  const standing: Statement = [STANDING, [standingStates]];
  const unitsOf = (where: string, values: unknown[], of: typeof all, from: number): Statement => {
    const { owners, skips, takes } = partsOf(of, from, UNITS_A_PAGE);
    const parts = [owners, skips, takes].map((part) => `$${values.push(part)}`);
    return [unitsSql(where, parts), values];
  };
  const anyones = ['2026-11-26', true, []];
  const { needing } = (await bare[0]!.query<{ needing: [string, number][] }>(NEEDING, anyones)).rows[0]!;
  await read(
    'fleet, what needs something',
    () => `/api/fleet/overview?page=${(page() % 20) + 1}`,
    () => {
      const from = (page() % 20) * NEEDING_A_PAGE;
      const shown = needing.slice(from, from + NEEDING_A_PAGE);
      return [
        [NEEDING, anyones],
        [NEEDING_UNITS, [shown.map(([id]) => id), shown.map(([, followUps]) => followUps), '2026-11-26']],
      ];
    },
  );
  await read(
    'fleet, any page',
    () => `/api/fleet/units?page=${page() + 1}`,
    () => [[countsSql('true'), []], standing, unitsOf('true', [], all, page() * UNITS_A_PAGE)],
  );
  const ofOwner = 'u.owner_id = $1 ::uuid';
  const one = await counts(ofOwner, [fleet.owners[0]]);
  await read(
    'fleet of an owner',
    () => `/api/fleet/units?owner=${anOwner()}`,
    () => [[countsSql(ofOwner), [fleet.owners[0]]], standing, unitsOf(ofOwner, [fleet.owners[0]], one, 0)],
  );
  await read(
    'fleet by words',
    () => `/api/fleet/units?search=unit+${word()}`,
    () => {
      const { values, bound } = places();
      const where = wordsFound(`unit ${word()}`, bound);
      return [[countsSql(where), [...values]], standing, unitsOf(where, values, all, 0)];
    },
  );
  await read(
    'find',
    () => `/api/find?text=unit+${word()}`,
    () => [findUnits(`unit ${word()}`)],
  );
  await read(
    'unit',
    () => `/api/fleet/units/${unit()}`,
    () => [[UNIT_PAGE, [unit()]]],
  );
  const day = ['2026-11-26T00:00:00Z', '2026-11-27T00:00:00Z'];
  const booked = bookedWhere('b.during && tstzrange($1, $2)');
  await read(
    'floor',
    () => '/api/plan/floor',
    () => [[FLOOR, [...day, 50, null]]],
  );
  await read(
    'what is due',
    () => `/api/plan/due?page=${page() + 1}`,
    () => [
      [DUE, [true, null, page() * 50, '2026-11-26', 60]],
      [DUE_COUNTS, [true, null, '2026-11-26']],
    ],
  );
  // A seal that fits every sheet: what is due asks for it everywhere.
  await owner.query(
    `insert into part select gen_random_uuid(), jsonb_build_object('number', '47-2210', 'dims', '{}' ::jsonb, 'leadDays', 5,
         'fits', (select jsonb_agg(distinct jsonb_build_object('sheetId', a.sheet ->> 'sheetId', 'line', 'part:hub-seal'))
           from axle a)),
       1, now(), 'bench', 'seal', 'Hub seal', null, null, null, 0, 0, 0`,
  );
  say(
    'shortages of parts',
    await measure(shop.technicians, SECONDS, (caller) => must(caller, 'GET', '/api/stores/shortages')),
  );
  const [monday, sunday] = ['2026-11-23T00:00:00Z', '2026-11-30T00:00:00Z'];
  await read(
    'bookings of a week',
    () => `/api/plan/bookings?from=${monday}&until=${sunday}`,
    () => [[booked, [monday, sunday]]],
  );
}, 600_000);

const FILE_UNITS = Math.min(UNITS, 20_000);
const LINES = Number(process.env['LINES'] ?? 1_000_000);

it('takes a file of many readings', async () => {
  const day = (ago: number) => new Date(Date.now() - ago * 86_400_000).toISOString().slice(0, 10);
  const each = Math.ceil(LINES / FILE_UNITS);
  const days = Array.from({ length: each }, (_, n) => day(each - n));
  await owner.query('truncate meter_reading');
  const rows: (string | number | object)[][] = [];
  for (let i = 0; i < each; i++)
    for (let u = 0; u < FILE_UNITS; u++) {
      const km = 100_000 + i * 97;
      rows.push([fleet.units[u]!, i, days[i]!, { value: km, unit: 'km', si: km * 1000 }, km, 'file', km]);
    }
  const columns = 'unit_id, nth, date, distance, km, source, total_km';
  const copied = await seconds(() =>
    pipeline(
      Readable.from(
        rows.map((r) => `${r.map((v) => (typeof v === 'object' ? JSON.stringify(v) : v)).join('\t')}\n`),
      ),
      owner.query(copyFrom(`copy meter_reading (${columns}) from stdin`)),
    ),
  );
  await owner.query('truncate meter_reading');
  const names = (await owner.query<{ id: string; name: string }>('select id, name from unit')).rows;
  const nameOf = new Map(names.map((u) => [u.id, u.name]));
  const csv = [
    'unit,date,km',
    ...rows.map(([unit, , date, , km]) => `${nameOf.get(unit as string)},${date as string},${km as number}`),
  ].join('\n');
  const { base, cookie } = shop.supervisor;
  const path = '/api/exchange/meters';
  let id = '';
  const until = async (state: string) => {
    for (;;) {
      const file = await must<{ state: string; reason: string | null }>(
        shop.supervisor,
        'GET',
        `${path}/${id}`,
      );
      if (file.state === state) return;
      if (file.state === 'failed' || file.state === 'refused') throw new Error(file.reason ?? file.state);
      await pause(200);
    }
  };
  const read = await seconds(async () => {
    const headers = { cookie, 'content-type': 'text/csv' };
    const answer = await fetch(base + path, { method: 'POST', headers, body: csv });
    expect(answer.status).toBe(200);
    ({ id } = (await answer.json()) as { id: string });
    await until('read');
  });
  const taken = await seconds(async () => {
    expect((await fetch(`${base}${path}/${id}/take`, { method: 'POST', headers: { cookie } })).status).toBe(
      200,
    );
    await until('taken');
  });
  expect((await owner.query('select count(*)::int as n from meter_reading')).rows).toEqual([
    { n: rows.length },
  ]);
  console.log(
    `${rows.length} readings from a file: read in ${read.toFixed(1)} s, taken in ${taken.toFixed(1)} s; ` +
      `${(taken / copied).toFixed(1)} of bare COPY (${copied.toFixed(1)} s), with reading ${((read + taken) / copied).toFixed(1)}`,
  );
}, 900_000);
