import { randomUUID } from 'node:crypto';
import type { Work } from '@lanternwright/core/stack';
import type { Command } from '@lanternwright/core/traveller';
import { layouts } from '@lanternwright/core/axle-plan';
import { quantity } from '@lanternwright/core/quantity';
import { cookiesOf } from '../cookies.ts';
import { openingOn, TestJob } from '../../../../core/src/traveller/testing/work.ts';

/** One record as a technician's device sends it. */
export interface Sent {
  id: string;
  jobId: string;
  command: Command;
}

/** A signed-in person at one address, over a connection that is kept. */
export interface Caller {
  base: string;
  cookie: string;
}

export interface Answer {
  status: number;
  body: unknown;
}

/** @throws TypeError where nobody answers */
async function ask({ base, cookie }: Caller, method: string, path: string, body?: unknown): Promise<Answer> {
  const answer = await fetch(base + path, {
    method,
    headers: { cookie, 'Content-Type': 'application/json' },
    ...(body === undefined ? {} : { body: JSON.stringify(body) }),
  });
  const text = await answer.text();
  return { status: answer.status, body: text === '' ? null : JSON.parse(text) };
}

/** @throws Error unless the answer is 200 */
export async function must<T>(caller: Caller, method: string, path: string, body?: unknown): Promise<T> {
  const answer = await ask(caller, method, path, body);
  if (answer.status !== 200)
    throw new Error(`${method} ${path}: ${answer.status} ${JSON.stringify(answer.body)}`);
  return answer.body as T;
}

/** Signs in. */
export async function signIn(base: string, login: string, password: string): Promise<Caller> {
  const answer = await fetch(`${base}/api/people/session`, {
    method: 'POST',
    headers: { 'Content-Type': 'application/json' },
    body: JSON.stringify({ login, password }),
  });
  if (answer.status !== 200) throw new Error(`${login} was not let in: ${answer.status}`);
  return { base, cookie: cookiesOf(answer) };
}

const works: Work[] = ['seal'];
const positions = ['2L', '2R', '3L', '3R'];

/** What a technician records of a seal job on two drive axles, until somebody else must look: decided by the core. */
function commandsOfAJob(): Command[] {
  return positions.flatMap((position) => {
    const t = new TestJob(openingOn(positions, 'a-drive-tang', works));
    t.workTo(position);
    const events = t.job.events.slice(1);
    const end = events.findIndex((e) => e.by.role !== 'technician');
    return events.slice(0, end === -1 ? undefined : end).map((e) => withoutList(e.body as Command));
  });
}

/** The same record with a wrench of no list: the shops that are measured list none. */
function withoutList(command: Command): Command {
  if (command.kind !== 'step-recorded' || command.data.kind !== 'torque') return command;
  const data = { ...command.data };
  delete data.listed;
  return { ...command, data };
}
const commands = commandsOfAJob();

/** Adds a tractor unit and opens a job on it; its records follow in order. */
export async function openWork(caller: Caller): Promise<Sent[]> {
  const { id: unitId } = await must<{ id: string }>(caller, 'POST', '/api/fleet/units', {
    owner: 'Tern & Hollow Haulage',
    name: `Tern ${randomUUID().slice(0, 8)}`,
    kind: 'tractor',
    axles: layouts.find((l) => l.id === 'tractor-3')!.axles,
  });
  const { id: jobId } = await must<{ id: string }>(caller, 'POST', '/api/jobs', {
    unitId,
    title: 'Drive axle seals',
    complaint: 'Seal weep',
    reportedBy: 'driver',
    meter: { distance: quantity(611_300, 'km') },
    wheelEnds: positions.map((position) => ({ position, works })),
  });
  return commands.map((command) => ({ id: randomUUID(), jobId, command }));
}

/** Sends one record. */
export function record(caller: Caller, { id, jobId, command }: Sent, seenVersion = 9_999): Promise<Answer> {
  return ask(caller, 'POST', `/api/jobs/${jobId}/events`, { id, seenVersion, command });
}
