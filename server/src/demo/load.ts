import { randomUUID } from 'node:crypto';
import { firstAxleId, numbered } from '@lanternwright/core/axle-plan';
import { entryOf, type Entry, type Recorder, type StreamKind } from '@lanternwright/core/record';
import type { Database } from '../database/connect.ts';
import { inTransaction } from '../database/in-transaction.ts';
import { appendMany } from '../record/append.ts';
import { rebuildProjections } from '../record/rebuild.ts';
import type { Clock } from '../shop/clock.ts';
import type { PeopleService } from '../people/service.ts';
import { generateDemo, type DemoUnit } from './generate.ts';
import { demoOthers, demoPeople, demoShop } from './scenario.ts';

function first(stream: StreamKind, streamId: string, at: string, by: Recorder, body: object): Entry {
  return { id: randomUUID(), stream, streamId, version: 1, at, by, body };
}

/** A unit as it was added before its first reading, and its meters as they were read since. */
function unitEntries(unit: DemoUnit, owner: { id: string; name: string }, by: Recorder): Entry[] {
  const { id, name, kind: unitKind, plate, meters } = unit;
  const axles = numbered(unit.axles).map((axle) => ({ ...axle, id: firstAxleId(id, axle.number) }));
  const morningOf = (date: string) => `${date}T07:00:00.000Z`;
  return [
    first('unit', id, morningOf(meters[0]!.date), by, {
      kind: 'unit-added',
      unit: { owner, name, unitKind, plate, axles },
    }),
    ...meters.map(({ date, km, hours }, i) => ({
      ...first('meter', id, morningOf(date), by, {
        kind: 'meter-read',
        read: { date, distance: null, km, hours, source: 'by-hand' },
      }),
      version: i + 1,
    })),
  ];
}

/**
 * Loads the demo shop once, into a database that has neither people nor units. Demo people get a
 * password nobody knows: they are signed in as from the list.
 * @param days of the shop's past; four years if left out
 * @returns whether anything was loaded
 */
export async function loadDemo(
  { db, people, clock }: { db: Database; people: PeopleService; clock: Clock },
  days?: number,
): Promise<boolean> {
  return inTransaction(db, async (transaction) => {
    // All or nothing: a start that is cut off leaves no people without a shop. A second server waits here.
    await db.sequelize.query('lock table person in share row exclusive mode', { transaction });
    if ((await db.person.count({ transaction })) > 0 || (await db.unit.count({ transaction })) > 0)
      return false;
    const actors = [];
    for (const person of demoPeople) {
      const made = { ...person, password: randomUUID() };
      const { id, name, role } = await people.addWithPassword(made, 'up');
      actors.push({ id, name, role });
    }
    const demo = generateDemo(actors, clock.today(), { days });
    const owners = new Map([...new Set(demo.units.map((u) => u.owner))].map((name) => [name, randomUUID()]));
    const by = actors[0]!;
    await appendMany(db, [
      ...demo.units.flatMap((unit) =>
        unitEntries(unit, { id: owners.get(unit.owner)!, name: unit.owner }, by),
      ),
      ...demo.crib
        .on(clock.today(), 'lapsed')
        .map((tool) => first('tool', tool.id, clock.now().toISOString(), by, { kind: 'tool-kept', tool })),
      ...demo.jobs.flatMap((j) => j.events.map(entryOf)),
    ]);
    await rebuildProjections(db);
    await db.sequelize.query(`select setval(pg_get_serial_sequence('job', 'number'), max(number)) from job`);
    for (const { owners: names, ...person } of demoOthers)
      await people.addWithPassword(
        { ...person, owners: names.map((name) => owners.get(name)!), password: randomUUID() },
        'up',
      );
    await db.setting.upsert({ name: 'demo', value: true }, { transaction });
    await db.setting.upsert({ name: 'shop', value: demoShop }, { transaction });
    return true;
  });
}
