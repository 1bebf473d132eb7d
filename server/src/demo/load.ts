import { randomUUID } from 'node:crypto';
import { fold } from '@lanternwright/core/traveller';
import type { Database } from '../database/connect.ts';
import { inTransaction } from '../database/in-transaction.ts';
import { rebuild } from '../jobs/projection.ts';
import { storeAll } from '../jobs/record.ts';
import type { Clock } from '../shop/clock.ts';
import type { PeopleService } from '../people/service.ts';
import { generateDemo } from './generate.ts';
import { demoOthers, demoPeople, demoShop } from './scenario.ts';

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
    await db.owner.bulkCreate(
      [...owners].map(([name, id]) => ({ id, name })),
      { transaction },
    );
    await db.unit.bulkCreate(
      demo.units.map(({ id, owner, name, kind, plate }) => ({
        id,
        ownerId: owners.get(owner)!,
        name,
        kind,
        plate,
      })),
      { transaction },
    );
    await db.axle.bulkCreate(
      demo.units.flatMap((u) => u.axles.map((axle, i) => ({ unitId: u.id, number: i + 1, ...axle }))),
      { transaction },
    );
    await db.meterReading.bulkCreate(
      demo.units.flatMap((u) => u.meters.map((m) => ({ unitId: u.id, ...m, distance: null }))),
      { transaction },
    );
    await db.job.bulkCreate(
      demo.jobs.map(({ id, unitId, title, openedAt }) => ({
        id,
        unitId,
        title,
        version: 0,
        openedAt: new Date(openedAt),
        closedAt: null,
        wheelEnds: [],
      })),
      { transaction },
    );
    await storeAll(
      db,
      demo.jobs.flatMap((j) => j.events),
      transaction,
    );
    await rebuild(
      db,
      demo.jobs.map((j) => fold(j.events)),
      transaction,
    );
    await db.tool.bulkCreate(
      demo.crib.on(clock.today(), 'lapsed').map((tool) => ({
        id: tool.id,
        code: tool.code,
        tool,
        changedAt: clock.now(),
        changedBy: demoPeople[0].name,
        retiredAt: null,
      })),
      { transaction },
    );
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
