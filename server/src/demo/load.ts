import { randomUUID } from 'node:crypto';
import type { Transaction } from 'sequelize';
import { firstAxleId, numbered, positionsOf } from '@lanternwright/core/axle-plan';
import { intervalsOf } from '@lanternwright/core/due';
import { addDays } from '@lanternwright/core/interval';
import { stackOfSheet } from '@lanternwright/core/procedure';
import { worksOf } from '@lanternwright/core/stack';
import { entryOf, type Entry, type Recorder, type StreamKind } from '@lanternwright/core/record';
import type { Actor } from '@lanternwright/core/traveller';
import type { Database } from '../database/connect.ts';
import { inTransaction } from '../database/in-transaction.ts';
import { appendMany } from '../record/append.ts';
import { rebuildProjections } from '../record/rebuild.ts';
import type { Clock } from '../shop/clock.ts';
import type { PeopleService } from '../people/service.ts';
import { demoIntervals } from './intervals.ts';
import { generateDemo, type Demo, type DemoUnit } from './generate.ts';
import { demoOrders, demoStore } from './parts.ts';
import { demoOthers, demoPeople, demoRates, demoShop } from './scenario.ts';

function first(stream: StreamKind, streamId: string, at: string, by: Recorder, body: object): Entry {
  return { id: randomUUID(), stream, streamId, version: 1, at, by, body };
}

/** A unit as it was added before its first reading, and its meters as they were read since. */
function unitEntries(
  unit: DemoUnit,
  owner: { id: string; name: string },
  by: Recorder,
  today: string,
): Entry[] {
  const { id, name, kind: unitKind, plate, meters, isScheduled } = unit;
  const intervals = demoIntervals[unitKind];
  const axles = numbered(unit.axles).map((axle) => ({
    ...axle,
    id: firstAxleId(id, axle.number),
    sheet: intervals ? { ...axle.sheet, intervals: [...intervals] } : axle.sheet,
  }));
  const morningOf = (date: string) => `${date}T07:00:00.000Z`;
  const [{ date: firstDay }] = meters as [DemoUnit['meters'][number]];
  // What their owners remembered of the time before; of one unit in twelve nobody knew.
  const chance = Number.parseInt(id.slice(0, 4), 16);
  const told =
    isScheduled || chance % 12 === 0
      ? []
      : axles.flatMap((axle, a) => {
          const works = intervalsOf(axle, unitKind).map((i) => i.work);
          const can = worksOf(stackOfSheet(axle.sheet, axle) ?? []);
          const done = works.filter((w) => can.includes(w));
          const days = (chance + 97 * a) % 330;
          const date = intervals ? addDays(firstDay, -days - 1) : addDays(today, -days - 1);
          return done.length === 0
            ? []
            : positionsOf([axle]).map((position) => ({ axleId: axle.id, position, date, works: done }));
        });
  return [
    first('unit', id, morningOf(firstDay), by, {
      kind: 'unit-added',
      unit: { owner, name, unitKind, plate, axles },
    }),
    ...told.map((t, i) => ({
      ...first('unit', id, morningOf(firstDay), by, { kind: 'service-told', ...t }),
      version: i + 2,
    })),
    ...meters.map(({ date, km, hours }, i) => ({
      ...first('meter', id, morningOf(date), by, {
        kind: 'meter-read',
        read: { date, distance: null, km, hours, source: 'by-hand' },
      }),
      version: i + 1,
    })),
  ];
}

const HOUR_MS = 3_600_000;

/** What units are booked for that have no job yet. */
const firstAxle = ['1L', '1R'].map((position) => ({ position, work: 'check' }));

/** The newest jobs stand in the bays since a while; one unit comes tomorrow. */
function bookingEntries({ jobs, units }: Demo, actors: readonly Actor[], clock: Clock): Entry[] {
  const now = clock.now().getTime();
  const at = (hours: number) =>
    new Date(Math.round((now + hours * HOUR_MS) / HOUR_MS) * HOUR_MS).toISOString();
  const hands = actors.filter((a) => a.role === 'technician');
  const todays = jobs.slice(-3);
  const there = todays.map(({ unitId, id }, i) => ({
    ...{ unitId, jobId: id, bayId: demoShop.bays[i]!.id, from: at(-3 - i), until: at(3 + i), note: '' },
    people: hands[i] ? [hands[i].id] : [],
  }));
  const next = units.find((u) => todays.every((j) => j.unitId !== u.id))!;
  const tomorrow = {
    ...{ unitId: next.id, jobId: null, bayId: demoShop.bays[3]!.id, from: at(19), until: at(24), note: '' },
    ...{ people: [], works: firstAxle },
  };
  const saidAt = clock.now().toISOString();
  const booked = (booking: object) =>
    first('booking', randomUUID(), saidAt, actors[0]!, { kind: 'booked', booking });
  return [
    ...there.flatMap((booking) => {
      const entry = booked(booking);
      const came = { kind: 'booking-came', at: booking.from };
      return [entry, { ...entry, id: randomUUID(), version: 2, body: came }];
    }),
    ...[tomorrow, ...nextWeek(units, hands, now)].map(booked),
  ];
}

/** What is booked for next week already: Monday to Friday, in the bays, by this machine's clock as the demo's is. */
function nextWeek(units: Demo['units'], hands: readonly Actor[], now: number) {
  const today = new Date(now);
  const day = today.getDate() - ((today.getDay() + 6) % 7) + 7;
  const at = (nth: number, hour: number) =>
    new Date(today.getFullYear(), today.getMonth(), day + nth, hour).toISOString();
  return units.slice(20, 27).map(({ id }, i) => ({
    ...{ unitId: id, jobId: null, bayId: demoShop.bays[i % 4]!.id, note: '', tools: [], works: firstAxle },
    ...{ from: at(i % 5, 8 + (i % 3)), until: at((i % 5) + (i === 2 ? 1 : 0), i === 2 ? 10 : 12 + (i % 4)) },
    people: hands[i % 3] ? [hands[i % 3]!.id] : [],
  }));
}

function storeEntries(demo: Demo, actors: readonly Actor[], clock: Clock): Entry[] {
  return demoStore(demo, actors[0]!, clock.now()).flatMap(({ partId, bodies }) =>
    bodies.map(({ at, by, body }, i) => ({ ...first('stock', partId, at, by, body), version: i + 1 })),
  );
}

/** Orders that were sent nine days ago, so that one of them can be late. */
function orderEntries(actors: readonly Actor[], clock: Clock): Entry[] {
  const sentAt = new Date(clock.now().getTime() - 9 * 24 * HOUR_MS).toISOString();
  return demoOrders(clock.today()).flatMap(({ orderId, bodies }) =>
    bodies.map((body, i) => ({ ...first('order', orderId, sentAt, actors[0]!, body), version: i + 1 })),
  );
}

/** Whether a shop has neither people nor units: only then a demo is made in it. */
export async function needsDemo(db: Database, transaction?: Transaction): Promise<boolean> {
  const of = transaction ? { transaction } : {};
  return (await db.person.count(of)) === 0 && (await db.unit.count(of)) === 0;
}

/** How far it is when the four years are made, and when they are stored: of a hundred, as it was measured. */
const MADE = 58;
const STORED = 75;

/**
 * Loads the demo shop once, into a database that has neither people nor units. Demo people get a
 * password nobody knows: they are signed in as from the list.
 * @param days of the shop's past; four years if left out
 * @param tell is told how far it is, from 0 to 100, once it is known that there is something to load
 * @returns whether anything was loaded
 */
export async function loadDemo(
  { db, people, clock }: { db: Database; people: PeopleService; clock: Clock },
  days?: number,
  tell: (percent: number) => void = () => undefined,
): Promise<boolean> {
  return inTransaction(db, async (transaction) => {
    // All or nothing: a start that is cut off leaves no people without a shop. A second server waits here.
    await db.sequelize.query('lock table person in share row exclusive mode', { transaction });
    if (!(await needsDemo(db, transaction))) return false;
    tell(0);
    const actors = [];
    for (const person of demoPeople) {
      const made = { ...person, password: randomUUID() };
      const { id, name, role } = await people.addWithPassword(made, 'up');
      actors.push({ id, name, role });
    }
    const demo = generateDemo(actors, clock.today(), { days, tell: (share) => tell(share * MADE) });
    const owners = new Map([...new Set(demo.units.map((u) => u.owner))].map((name) => [name, randomUUID()]));
    const by = actors[0]!;
    const entries = [
      ...demo.units.flatMap((unit) =>
        unitEntries(unit, { id: owners.get(unit.owner)!, name: unit.owner }, by, clock.today()),
      ),
      ...demo.crib
        .on(clock.today(), 'lapsed')
        .map((tool) => first('tool', tool.id, clock.now().toISOString(), by, { kind: 'tool-kept', tool })),
      ...demo.jobs.flatMap((j) => j.events.map(entryOf)),
      ...bookingEntries(demo, actors, clock),
      ...storeEntries(demo, actors, clock),
      ...orderEntries(actors, clock),
    ];
    await appendMany(db, entries, (share) => tell(MADE + share * (STORED - MADE)));
    const { aside } = await rebuildProjections(db);
    if (aside.length > 0)
      throw new Error(`The demo cannot be read back: ${JSON.stringify(aside.slice(0, 3))}`);
    const at = clock.now();
    await db.photo.bulkCreate(
      demo.photos.map(({ id, jobId, jpeg, sha256 }) => ({ id, jobId, jpeg, sha256, at })),
    );
    await db.sequelize.query(`select setval(pg_get_serial_sequence('job', 'number'), max(number)) from job`);
    for (const { owners: names, ...person } of demoOthers)
      await people.addWithPassword(
        { ...person, owners: names.map((name) => owners.get(name)!), password: randomUUID() },
        'up',
      );
    await db.setting.upsert({ name: 'demo', value: true }, { transaction });
    await db.setting.upsert({ name: 'shop', value: demoShop }, { transaction });
    await db.setting.upsert({ name: 'rates', value: demoRates }, { transaction });
    return true;
  });
}
