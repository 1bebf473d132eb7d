import { randomBytes, randomUUID } from 'node:crypto';
import pg from 'pg';
import supertest from 'supertest';
import { inject } from 'vitest';
import { layouts, type Axle } from '@lanternwright/core/axle-plan';
import { quantity } from '@lanternwright/core/quantity';
import { plainWrenches } from '@lanternwright/core/rig';
import type { Work } from '@lanternwright/core/stack';
import {
  fold,
  stepAtHand,
  wheelEndAt,
  type Command,
  type Job,
  type StoredEvent,
} from '@lanternwright/core/traveller';
import { answer, openingOn, supervisor, TestJob } from '../../../core/src/traveller/testing/work.ts';
import type { NewPerson, Person } from '@lanternwright/contract/people';
import { createApp } from '../app.ts';
import type { Viewer } from '../http/viewer.ts';
import { readConfig } from '../config.ts';
import { migrateAndGrant, withOwner } from '../database/owner.ts';

const PASSWORD = 'correct horse battery';

/** Runs SQL as the superuser: for making databases, and for tampering. */
export async function asSuperuser(database: string, sql: string): Promise<void> {
  const { port, password } = inject('postgres');
  const client = new pg.Client({ host: '127.0.0.1', port, user: 'postgres', password, database });
  await client.connect();
  try {
    await client.query(sql);
  } finally {
    await client.end();
  }
}

/** An empty database of its own, as the application sees it. */
export async function freshDatabase(): Promise<{ url: string; ownerUrl: string; name: string }> {
  const { url, ownerUrl } = inject('postgres');
  const name = `t_${randomBytes(6).toString('hex')}`;
  await asSuperuser('postgres', `create database ${name} owner lanternwright`);
  const at = (address: string) => address.replace(/[^/]+$/, name);
  return { name, url: at(url), ownerUrl: at(ownerUrl) };
}

export type Caller = ReturnType<typeof supertest.agent>;

/** The real application on a real database, with a supervisor and a technician signed in. */
export async function openShop(settings: Record<string, string> = {}) {
  const { url, ownerUrl, name } = await freshDatabase();
  const config = readConfig({
    DATABASE_URL: url,
    DATABASE_OWNER_URL: ownerUrl,
    SESSION_SECRET: 'for tests only, long enough',
    LOG_LEVEL: 'silent',
    FIRST_CODE: '4711-0815',
    ...settings,
  });
  const app = createApp(config);
  await withOwner(config, migrateAndGrant(url));
  await app.settings.load();

  const signedIn = async (
    person: Omit<NewPerson, 'owners'> & { password: string; owners?: string[] },
  ): Promise<{ person: Person; call: Caller; viewer: Viewer }> => {
    const added = await app.people.addWithPassword(person);
    const call = supertest.agent(app.app);
    await call
      .post('/api/people/session')
      .send({ login: person.login, password: person.password })
      .expect(200);
    const viewer = await app.rights.viewer(added.id, 'password', '');
    return { person: added, call, viewer: viewer! };
  };
  return {
    ...app,
    databaseName: name,
    databaseUrl: url,
    ownerUrl,
    anyone: () => supertest.agent(app.app),
    signedIn,
    supervisor: await signedIn({
      name: 'I. Okonedo',
      login: 'okonedo',
      role: 'supervisor',
      password: PASSWORD,
    }),
    technician: await signedIn({
      name: 'D. Achterberg',
      login: 'achterberg',
      role: 'technician',
      password: PASSWORD,
    }),
  };
}
export type Shop = Awaited<ReturnType<typeof openShop>>;

const twoBays = [
  { id: 'bay-1', name: 'Bay 1' },
  { id: 'bay-2', name: 'Bay 2' },
];
/** Gives the shop its bays. */
export async function setBays(shop: Shop, bays = twoBays): Promise<void> {
  await shop.supervisor.call
    .put('/api/shop/settings')
    .send({ ...shop.settings.current(), bays })
    .expect(200);
}

export const axlesOf = (layoutId: string): Axle[] => [...layouts.find((l) => l.id === layoutId)!.axles];

/** A tractor unit with three axles. */
export async function addUnit(
  shop: Shop,
  name = `Tern ${randomBytes(3).toString('hex')}`,
  layoutId = 'tractor-3',
  owner = 'Tern & Hollow Haulage',
): Promise<string> {
  const body = {
    owner,
    name,
    kind: 'tractor',
    plate: 'ABC 123',
    meter: { distance: { value: 611_240, unit: 'km' } },
    axles: axlesOf(layoutId),
  };
  return (await shop.technician.call.post('/api/fleet/units').send(body).expect(200)).body.id as string;
}

export async function openJobOn(
  shop: Shop,
  unitId: string,
  positions: string[] = ['2L', '2R'],
  works: Work[] = ['seal'],
): Promise<string> {
  const body = {
    unitId,
    title: 'Drive axle seals',
    complaint: 'Seal weep',
    reportedBy: 'driver',
    meter: { distance: quantity(611_300, 'km') },
    wheelEnds: positions.map((position) => ({ position, works })),
  };
  return (await shop.technician.call.post('/api/jobs').send(body).expect(200)).body.id as string;
}

export async function fetchJob(caller: Caller, jobId: string): Promise<Job> {
  return fold((await caller.get(`/api/jobs/${jobId}`).expect(200)).body.events as StoredEvent[]);
}

/** Sends one command; the caller says what to expect of the answer. */
export function send(
  caller: Caller,
  jobId: string,
  seenVersion: number,
  command: Command,
  id: string = randomUUID(),
) {
  return caller.post(`/api/jobs/${jobId}/events`).send({ id, seenVersion, command });
}

/** The step at hand of a wheel end, as a command that confirms it. Only for the plain steps before Adjust. */
export function confirmStep(job: Job, position: string): Command {
  const wheelEnd = wheelEndAt(job, position)!;
  const step = stepAtHand(wheelEnd)!;
  return {
    kind: 'step-recorded',
    position,
    stage: step.stage,
    stepId: step.id,
    round: 1,
    data: answer(wheelEnd, step),
  };
}

const haveWrenches = new WeakSet<Shop>();

/** The wrenches that a plain technician takes, on the shop's list. */
async function listWrenches(shop: Shop): Promise<void> {
  if (haveWrenches.has(shop)) return;
  haveWrenches.add(shop);
  for (const tool of plainWrenches)
    await shop.supervisor.call.put('/api/tools').send({ seenVersion: 0, tool }).expect(200);
}

/**
 * A job worked in memory whose every record is then sent to the server by whoever made it: the technician, or the
 * supervisor where the core's own test has them.
 */
export function mirrored(shop: Shop, jobId: string, positions: string[], works: Work[] = ['seal']) {
  const t = new TestJob(openingOn(positions, 'a-drive-tang', works));
  let sent = t.job.events.length;
  const flush = async (): Promise<void> => {
    await listWrenches(shop);
    for (; sent < t.job.events.length; sent++) {
      const { body, by } = t.job.events[sent]!;
      const { call } = by.id === supervisor.id ? shop.supervisor : shop.technician;
      const { version } = await fetchJob(call, jobId);
      const answered = await send(call, jobId, version, body as never);
      if (answered.status !== 200) throw new Error(`${body.kind}: ${JSON.stringify(answered.body)}`);
    }
  };
  return { t, flush };
}
