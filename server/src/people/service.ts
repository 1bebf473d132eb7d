import { createHash, randomUUID, timingSafeEqual } from 'node:crypto';
import argon2 from 'argon2';
import { UniqueConstraintError, type Transaction } from 'sequelize';
import type { FirstPerson, NewPerson, Person } from '@lanternwright/contract/people';
import type { Config } from '../config.ts';
import type { Database } from '../database/connect.ts';
import { HttpProblem, notFound, refused } from '../http/problem.ts';
import type { PersonRow } from './model.ts';

function toPerson({ id, name, login, role }: PersonRow): Person {
  return { id, name, login, role };
}

/** Spent when the login is unknown, so that an answer takes as long as for a known one. */
const decoy = argon2.hash(randomUUID());

/** Compares in a time that tells nothing. */
function sameCode(typed: string, code: string): boolean {
  const hash = (text: string) => createHash('sha256').update(text.replace(/\D/g, '')).digest();
  return timingSafeEqual(hash(typed), hash(code));
}

/** Everything about who works here and how they sign in. */
export function peopleService(db: Database, { demo, firstCode }: Pick<Config, 'demo' | 'firstCode'>) {
  /** A shop with demo data, started as one. */
  async function isDemo(): Promise<boolean> {
    return demo && (await db.setting.findByPk('demo'))?.value === true;
  }

  async function add(
    person: NewPerson,
    { made = 'real', transaction }: { made?: 'real' | 'up'; transaction?: Transaction } = {},
  ): Promise<Person> {
    try {
      const row = await db.person.create(
        {
          id: randomUUID(),
          name: person.name,
          login: person.login,
          role: person.role,
          passwordHash: await argon2.hash(person.password),
          demo: made === 'up',
        },
        { transaction },
      );
      return toPerson(row);
    } catch (error) {
      if (error instanceof UniqueConstraintError) throw refused(`The name ${person.login} is taken`, 'login');
      throw error;
    }
  }

  return {
    add,

    async byId(id: string): Promise<Person | null> {
      const row = await db.person.findByPk(id);
      return row ? toPerson(row) : null;
    },

    async list(): Promise<Person[]> {
      return (await db.person.findAll({ order: ['name'] })).map(toPerson);
    },

    /** Who can be signed in as without a password: nobody, but for the made-up people of a demo. */
    async demoPeople(): Promise<Person[]> {
      if (!(await isDemo())) return [];
      return (await db.person.findAll({ where: { demo: true }, order: ['name'] })).map(toPerson);
    },

    async isEmpty(): Promise<boolean> {
      return (await db.person.count()) === 0;
    },

    async withPassword(login: string, password: string): Promise<Person> {
      const row = await db.person.findOne({ where: { login } });
      const fits = await argon2.verify(row?.passwordHash ?? (await decoy), password);
      if (!row || !fits) throw new HttpProblem(401, 'Not signed in', 'Name or password is wrong');
      return toPerson(row);
    },

    async asDemo(personId: string): Promise<Person> {
      if (!(await isDemo()))
        throw new HttpProblem(
          403,
          'Not allowed',
          'Only a shop with demo data lets people in without a password',
        );
      const row = await db.person.findOne({ where: { id: personId, demo: true } });
      if (!row) throw notFound('person');
      return toPerson(row);
    },

    /**
     * The first person of an empty shop, who knows the code that the start printed; everybody after is refused.
     * @throws HttpProblem 403
     */
    async first({ code, ...person }: FirstPerson): Promise<Person> {
      if (!firstCode || !sameCode(code, firstCode))
        throw new HttpProblem(
          403,
          'Not allowed',
          'The code is another one: it stands where the server was started',
        );
      return db.sequelize.transaction(async (transaction) => {
        // Two at once stand in line here.
        await db.sequelize.query('lock table person in share row exclusive mode', { transaction });
        if ((await db.person.count({ transaction })) > 0)
          throw new HttpProblem(403, 'Not allowed', 'This shop has its people; ask a supervisor to add you');
        return add({ ...person, role: 'supervisor' }, { transaction });
      });
    },
  };
}
export type PeopleService = ReturnType<typeof peopleService>;
