import { randomUUID } from 'node:crypto';
import { UniqueConstraintError, type Transaction } from 'sequelize';
import { isWeakPin, may, type Role } from '@lanternwright/core/access';
import type { ReaderUnits } from '@lanternwright/core/quantity';
import { personAggregate, program, type PersonCommand, type Recorder } from '@lanternwright/core/record';
import type {
  FirstPerson,
  ListedPerson,
  Person,
  PersonalDetails,
  SignInCode,
} from '@lanternwright/contract/people';
import type { Config } from '../config.ts';
import type { Database } from '../database/connect.ts';
import { inTransaction } from '../database/in-transaction.ts';
import { HttpProblem, notFound, refused } from '../http/problem.ts';
import { change, type Asked } from '../record/append.ts';
import type { Clock } from '../shop/clock.ts';
import type { PersonRow } from './model.ts';
import type { RightsService } from './rights.ts';
import { digitsOf, isSecret, keepSecret, mustBeGood, newCode, sameCode } from './secrets.ts';

/** How long a code for a password of one's own holds. */
const CODE_MS = 3 * 24 * 3_600_000;

/** A person as somebody wants them. */
export interface WantedPerson {
  name: string;
  login: string;
  role: Role;
  owners?: readonly string[];
}

const toPerson = ({ id, name, login, role }: PersonRow): Person => ({ id, name, login, role });

const toListed = (row: PersonRow): ListedPerson => ({
  ...toPerson(row),
  owners: (row.owners ?? []).map(({ id, name }) => ({ id, name })),
  switchedOff: row.switchedOffAt != null,
  telephone: row.detail?.telephone ?? '',
  mail: row.detail?.mail ?? '',
  version: row.version,
  lastSignIn: row.lastSignIn?.toISOString() ?? null,
  codeUntil: row.codeHash && row.codeUntil ? row.codeUntil.toISOString() : null,
});

const include = (db: Database) => [
  { model: db.owner, as: 'owners' },
  { model: db.personalDetail, as: 'detail' },
];

const wrong = () => new HttpProblem(401, 'Not signed in', 'Name or password is wrong');

/** Everything about who works here and how they sign in. */
export function peopleService(
  db: Database,
  rights: RightsService,
  clock: Clock,
  { demo, firstCode }: Pick<Config, 'demo' | 'firstCode'>,
) {
  /** A shop with demo data, started as one. */
  async function isDemo(): Promise<boolean> {
    return demo && (await db.setting.findByPk('demo'))?.value === true;
  }

  /** One change of people at a time: who is the last supervisor is not decided twice at once. */
  async function alone<T>(work: (transaction: Transaction) => Promise<T>): Promise<T> {
    return inTransaction(db, async (transaction) => {
      await db.sequelize.query('lock table person in share row exclusive mode');
      return work(transaction);
    });
  }

  async function listed(id: string): Promise<ListedPerson> {
    const row = await db.person.findByPk(id, { include: include(db) });
    if (!row) throw notFound('person');
    return toListed(row);
  }

  /** @returns the owners' ids, each once @throws HttpProblem 422 for owners that do not go with the role */
  async function checkedOwners(role: Role, owners: readonly string[]): Promise<string[]> {
    if (role === 'owner-contact' && owners.length === 0)
      throw refused('Choose the owner they answer for', 'owners');
    if (role !== 'owner-contact' && owners.length > 0)
      throw refused('Only an owner’s contact answers for owners', 'owners');
    const ids = [...new Set(owners)];
    if ((await db.owner.count({ where: { id: ids } })) !== ids.length)
      throw refused('There is no such owner', 'owners');
    return ids;
  }

  /** Records a change of a person and writes their row as the record has it, in the open transaction. */
  async function recordOf(id: string, command: PersonCommand, asked: Asked): Promise<void> {
    const state = await change(db, personAggregate, id, command, asked);
    const { name, role, owners, version, switchedOffAt } = personAggregate.project(state);
    const off = switchedOffAt === null ? null : new Date(switchedOffAt);
    await db.person.update({ name, role, version, switchedOffAt: off }, { where: { id } });
    await db.personOwner.destroy({ where: { personId: id } });
    await db.personOwner.bulkCreate(owners.map((ownerId) => ({ personId: id, ownerId })));
  }

  /** @throws HttpProblem 422 where nobody would be left to run the shop */
  async function mustLeaveSupervisor(): Promise<void> {
    const left = await db.person.count({ where: { role: 'supervisor', switchedOffAt: null } });
    if (left === 0) throw refused('This is the last supervisor: make somebody else one first', 'role');
  }

  async function create(
    { name, login, role, owners = [] }: WantedPerson,
    { password, demo: madeUp = false, by }: { password?: string; demo?: boolean; by?: Recorder },
  ): Promise<PersonRow> {
    const passwordHash = password === undefined ? null : await keepSecret(password);
    const id = randomUUID();
    const at = clock.now().toISOString();
    try {
      return await inTransaction(db, async () => {
        const ids = await checkedOwners(role, owners);
        const row = await db.person.create({ id, name, login, role, passwordHash, demo: madeUp });
        const asked = { by: by ?? { id, name, role }, at };
        await recordOf(id, { kind: 'add', name, role, owners: ids }, asked);
        return row;
      });
    } catch (error) {
      if (error instanceof UniqueConstraintError) throw refused(`The name ${login} is taken`, 'login');
      throw error;
    }
  }

  /** Takes password and PIN away and gives a code for new ones. */
  async function giveCode(id: string): Promise<SignInCode> {
    const code = newCode();
    const codeUntil = new Date(clock.now().getTime() + CODE_MS);
    const codeHash = await keepSecret(digitsOf(code));
    await db.person.update({ passwordHash: null, pinHash: null, codeHash, codeUntil }, { where: { id } });
    return { person: await listed(id), code };
  }

  async function changed(id: string, work: () => Promise<void>): Promise<ListedPerson> {
    return alone(async () => {
      if (!(await db.person.findByPk(id, { attributes: ['id'] }))) throw notFound('person');
      await work();
      await mustLeaveSupervisor();
      await rights.announce(id);
      return listed(id);
    });
  }

  /** Notes that somebody came in. */
  async function cameIn(row: PersonRow): Promise<Person> {
    await db.person.update({ lastSignIn: clock.now() }, { where: { id: row.id } });
    return toPerson(row);
  }

  const inService = { switchedOffAt: null };

  return {
    /** Adds somebody with a password: the demo's people, the first supervisor. */
    addWithPassword: async (
      person: WantedPerson & { password: string },
      made: 'real' | 'up' = 'real',
    ): Promise<Person> =>
      toPerson(await create(person, { password: person.password, demo: made === 'up', by: program })),

    async list(): Promise<ListedPerson[]> {
      const rows = await db.person.findAll({
        include: include(db),
        order: [['switchedOffAt', 'DESC NULLS FIRST'], 'name'],
      });
      return rows.map(toListed);
    },

    /** Adds a person, who chooses a password with the code. @throws HttpProblem 422 when the login is taken */
    add: (person: WantedPerson, { by }: Asked): Promise<SignInCode> =>
      alone(async () => giveCode((await create(person, { by })).id)),

    /** @throws HttpProblem 409 when somebody changed them since */
    change: (
      id: string,
      { name, role, owners = [] }: Omit<WantedPerson, 'login'>,
      asked: Asked,
    ): Promise<ListedPerson> =>
      changed(id, async () => {
        const ids = await checkedOwners(role, owners);
        await recordOf(id, { kind: 'change', name, role, owners: ids }, asked);
      }),

    switchOff: (id: string, asked: Asked): Promise<ListedPerson> =>
      changed(id, async () => {
        await recordOf(id, { kind: 'switch-off' }, asked);
        await db.person.update({ codeHash: null }, { where: { id } });
        await rights.endSessions(id);
      }),

    newCode: (id: string, asked: Asked): Promise<SignInCode> =>
      alone(async () => {
        if (!(await db.person.findByPk(id, { attributes: ['id'] }))) throw notFound('person');
        await recordOf(id, { kind: 'give-code' }, asked);
        await rights.endSessions(id);
        await rights.announce(id);
        return giveCode(id);
      }),

    /** How they are reached, beside the record; that it was erased is in it. */
    details: (id: string, { telephone, mail }: PersonalDetails, asked: Asked): Promise<ListedPerson> =>
      changed(id, async () => {
        if (telephone || mail) await db.personalDetail.upsert({ personId: id, telephone, mail });
        else if ((await db.personalDetail.destroy({ where: { personId: id } })) > 0)
          await recordOf(id, { kind: 'erase-details' }, asked);
      }),

    /** Units they read figures in. What they like to read is no record of the shop. */
    async setUnits(id: string, units: ReaderUnits): Promise<void> {
      await db.person.update({ units }, { where: { id } });
    },

    /** Who can be signed in as without a password: nobody, but for the made-up people of a demo. */
    async demoPeople(): Promise<Person[]> {
      if (!(await isDemo())) return [];
      return (await db.person.findAll({ where: { demo: true, ...inService }, order: ['name'] })).map(
        toPerson,
      );
    },

    isDemo,

    async isEmpty(): Promise<boolean> {
      return (await db.person.findOne({ attributes: ['id'] })) === null;
    },

    async withPassword(login: string, password: string): Promise<Person> {
      const row = await db.person.findOne({ where: { login, ...inService } });
      if (!(await isSecret(password, row?.passwordHash)) || !row) throw wrong();
      return cameIn(row);
    },

    /** @throws HttpProblem 401 */
    async withPin(personId: string, pin: string): Promise<Person> {
      const row = await db.person.findOne({ where: { id: personId, ...inService } });
      if (!(await isSecret(pin, row?.pinHash)) || !row || !may(row.role, 'share-terminal'))
        throw new HttpProblem(401, 'Not signed in', 'The PIN is wrong');
      return cameIn(row);
    },

    /** Chooses a password with a code that a supervisor gave. @throws HttpProblem 401 or 422 */
    async withCode(login: string, code: string, password: string): Promise<Person> {
      const row = await db.person.findOne({ where: { login, ...inService } });
      const fits = await isSecret(digitsOf(code), row?.codeHash);
      if (!row?.codeUntil || !fits || row.codeUntil < clock.now())
        throw new HttpProblem(
          401,
          'Not signed in',
          'Name or code is wrong, or the code is too old: ask a supervisor',
        );
      mustBeGood(password, [row.name, row.login]);
      // Used once, also by two at the same time.
      const [used] = await db.person.update(
        { passwordHash: await keepSecret(password), codeHash: null, codeUntil: null },
        { where: { id: row.id, codeHash: row.codeHash } },
      );
      if (used === 0) throw new HttpProblem(401, 'Not signed in', 'The code was used already');
      return cameIn(row);
    },

    async peopleWithPin(): Promise<Pick<Person, 'id' | 'name'>[]> {
      const rows = await db.person.findAll({ where: inService, order: ['name'] });
      return rows
        .filter((r) => r.pinHash && may(r.role, 'share-terminal'))
        .map(({ id, name }) => ({ id, name }));
    },

    async hasPin(id: string): Promise<boolean> {
      return (await db.person.findByPk(id, { attributes: ['pinHash'] }))?.pinHash != null;
    },

    /** @param pin null to have none any more */
    async setPin(id: string, password: string, pin: string | null): Promise<void> {
      const row = await db.person.findByPk(id);
      if (!(await isSecret(password, row?.passwordHash)) || !row)
        throw refused('The password is wrong', 'password');
      if (pin !== null && isWeakPin(pin))
        throw refused('This PIN is one that is tried first: no run, no repeated digits, no year', 'pin');
      await row.update({ pinHash: pin === null ? null : await keepSecret(pin) });
    },

    async changePassword(id: string, current: string, password: string, sessionId: string): Promise<void> {
      const row = await db.person.findByPk(id);
      if (!(await isSecret(current, row?.passwordHash)) || !row)
        throw refused('This is not your password', 'current');
      mustBeGood(password, [row.name, row.login]);
      const passwordHash = await keepSecret(password);
      await inTransaction(db, async () => {
        await row.update({ passwordHash });
        await rights.endSessions(id, sessionId);
        await rights.announce(id);
      });
    },

    /** Somebody by their id, also one who is gone by now; null where nobody ever had it. */
    async named(id: string): Promise<Person | null> {
      const row = await db.person.findByPk(id);
      return row && toPerson(row);
    },

    async asDemo(personId: string): Promise<Person> {
      if (!(await isDemo()))
        throw new HttpProblem(
          403,
          'Not allowed',
          'Only a shop with demo data lets people in without a password',
        );
      const row = await db.person.findOne({ where: { id: personId, demo: true, ...inService } });
      if (!row) throw notFound('person');
      return cameIn(row);
    },

    /** @throws HttpProblem 403 for whom does not know the code that the start printed */
    mustKnowFirstCode(code: string): void {
      if (!firstCode || !sameCode(code, firstCode))
        throw new HttpProblem(
          403,
          'Not allowed',
          'The code is another one: it stands where the server was started',
        );
    },

    /** The first person of an empty shop; everybody after is refused. @throws HttpProblem 403 or 422 */
    async first({ name, login, password }: Omit<FirstPerson, 'code'>): Promise<Person> {
      mustBeGood(password, [name, login]);
      return alone(async () => {
        if (await db.person.findOne({ attributes: ['id'] }))
          throw new HttpProblem(403, 'Not allowed', 'This shop has its people; ask a supervisor to add you');
        return cameIn(await create({ name, login, role: 'supervisor' }, { password }));
      });
    },
  };
}
export type PeopleService = ReturnType<typeof peopleService>;
