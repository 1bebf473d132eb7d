import type { Begin } from '@lanternwright/contract/shop';
import type { Person } from '@lanternwright/contract/people';
import type { Config } from '../config.ts';
import { underMigrationLock } from '../database/migrate.ts';
import { migrateHere, withOwner } from '../database/owner.ts';
import { HttpProblem } from '../http/problem.ts';
import { rightsService } from '../people/rights.ts';
import { peopleService, type PeopleService } from '../people/service.ts';
import type { SealsService } from '../record/seals.ts';
import type { Clock } from './clock.ts';
import { settingsService, type SettingsService } from './settings.ts';

interface Parts {
  people: PeopleService;
  settings: SettingsService;
  clock: Clock;
  seals: SealsService;
}

/**
 * Ends a demo for good, in one transaction of the role that owns the tables: all of it goes into a schema of its own,
 * where it can be looked at and thrown away by whoever looks after the database, and an empty shop stands in its place.
 * Nobody is signed in any more.
 */
export function beginOwnShop(config: Config, { people, settings, clock, seals }: Parts) {
  return async ({ code, shop, ...person }: Begin): Promise<Person> => {
    people.mustKnowFirstCode(code);
    const first = await withOwner(config, (db) =>
      underMigrationLock(db, async () => {
        const [demo] = await db.sequelize.query(
          `select 1 from setting where name = 'demo' and value = 'true' for update`,
        );
        if (demo.length === 0) throw new HttpProblem(403, 'Not allowed', 'This shop is your own already');
        const aside = `demo_${new Date().toISOString().replace(/\D/g, '').slice(0, 14)}`;
        await db.sequelize.query(`alter schema public rename to ${aside}; create schema public`);
        await migrateHere(db, config.databaseUrl);
        const added = await peopleService(db, rightsService(db, settings), clock, config).first(person);
        // Nothing that was made up for the demo stays: neither address nor bays.
        const own = settingsService(db, config.shopZone);
        await own.store({ ...own.current(), name: shop });
        return added;
      }),
    );
    await settings.load();
    await seals.sealEnd(true);
    return first;
  };
}
