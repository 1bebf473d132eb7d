import type { Begin } from '@lanternwright/contract/shop';
import type { Person } from '@lanternwright/contract/people';
import type { Database } from '../database/connect.ts';
import { migrateIn, underMigrationLock } from '../database/migrate.ts';
import { HttpProblem } from '../http/problem.ts';
import type { PeopleService } from '../people/service.ts';
import type { SettingsService } from './settings.ts';

/**
 * Ends a demo for good, in one transaction: all of it goes into a schema of its own, where it can be looked at and
 * thrown away by whoever looks after the database, and an empty shop stands in its place. Nobody is signed in any more.
 */
export function beginOwnShop(db: Database, people: PeopleService, settings: SettingsService) {
  return async ({ code, shop, ...person }: Begin): Promise<Person> => {
    people.mustKnowFirstCode(code);
    const before = settings.current();
    const first = await underMigrationLock(db, async () => {
      const [demo] = await db.sequelize.query(
        `select 1 from setting where name = 'demo' and value = 'true' for update`,
      );
      if (demo.length === 0) throw new HttpProblem(403, 'Not allowed', 'This shop is your own already');
      const aside = `demo_${new Date().toISOString().replace(/\D/g, '').slice(0, 14)}`;
      await db.sequelize.query(`alter schema public rename to ${aside}; create schema public`);
      await migrateIn(db);
      const added = await people.first(person);
      await settings.store({ ...before, name: shop });
      return added;
    });
    await settings.load();
    return first;
  };
}
