import { randomUUID } from 'node:crypto';
import argon2 from 'argon2';
import { UniqueConstraintError } from 'sequelize';
import type { NewPerson, Person } from '@lanternwright/contract/people';
import type { Database } from '../database/connect.ts';
import { HttpProblem, notFound, refused } from '../http/problem.ts';
import type { PersonRow } from './model.ts';

function toPerson({ id, name, login, role }: PersonRow): Person {
  return { id, name, login, role };
}

/** Spent when the login is unknown, so that an answer takes as long as for a known one. */
const decoy = argon2.hash(randomUUID());

/** Everything about who works here and how they sign in. */
export function peopleService(db: Database) {
  async function isDemo(): Promise<boolean> {
    return (await db.setting.findByPk('demo'))?.value === true;
  }

  async function add(person: NewPerson): Promise<Person> {
    try {
      const row = await db.person.create({
        id: randomUUID(),
        name: person.name,
        login: person.login,
        role: person.role,
        passwordHash: await argon2.hash(person.password),
      });
      return toPerson(row);
    } catch (error) {
      if (error instanceof UniqueConstraintError) throw refused(`The name ${person.login} is taken`, 'login');
      throw error;
    }
  }

  return {
    add,
    isDemo,

    async byId(id: string): Promise<Person | null> {
      const row = await db.person.findByPk(id);
      return row ? toPerson(row) : null;
    },

    async list(): Promise<Person[]> {
      return (await db.person.findAll({ order: ['name'] })).map(toPerson);
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
      const row = await db.person.findByPk(personId);
      if (!row) throw notFound('person');
      return toPerson(row);
    },

    /** The first person of an empty shop; a second caller is refused. */
    async first(person: Omit<NewPerson, 'role'>): Promise<Person> {
      if ((await db.person.count()) > 0)
        throw new HttpProblem(403, 'Not allowed', 'This shop has its people; ask a supervisor to add you');
      return add({ ...person, role: 'supervisor' });
    },
  };
}
export type PeopleService = ReturnType<typeof peopleService>;
