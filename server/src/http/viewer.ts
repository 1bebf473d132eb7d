import type { Response } from 'express';
import { may, type Capability } from '@lanternwright/core/access';
import type { ReaderUnits } from '@lanternwright/core/quantity';
import type { Recorder } from '@lanternwright/core/record';
import type { Person, Session } from '@lanternwright/contract/people';
import { HttpProblem } from './problem.ts';

/** Who looks or acts, and what they may see: every service is asked by one. */
export interface Viewer {
  /** A person, or a program under the name of its key. */
  person: Omit<Person, 'role'> & { role: Recorder['role'] };
  /** Ids of the owners whose units, jobs and papers they may see. */
  owners: 'all' | readonly string[];
  /** Units they read figures in: their own, or the shop's. */
  units: ReaderUnits;
  /** How they signed in. */
  by: NonNullable<Session['by']> | 'key';
  /** Their session; ends with it. Empty for a program. */
  sessionId: string;
  /** What a program was given; nobody else has any. */
  given?: ReadonlySet<Capability>;
}

/** Whether they may do that: people by their role, programs by what their key was given. */
export const able = ({ person, given }: Viewer, capability: Capability): boolean =>
  given ? given.has(capability) : person.role !== 'program' && may(person.role, capability);

/** Who answers for what is recorded. @throws HttpProblem 403 for a program */
export function personOf({ person }: Pick<Viewer, 'person'>): Person {
  const { role } = person;
  if (role === 'program') throw forPeople();
  return { ...person, role };
}

/** Told to a program that asks for what people answer for. */
export const forPeople = () =>
  new HttpProblem(403, 'Not allowed', 'Only people can do this. The key of a program cannot.', {
    extra: { code: 'for-people' },
  });

/** Reads who is signed in; set by the session middleware. */
export function viewerOf(res: Response): Viewer | null {
  return (res.locals['viewer'] as Viewer | undefined) ?? null;
}

/** Whether somebody may see what belongs to this owner. */
export function seesOwner({ owners }: Viewer, ownerId: string): boolean {
  return owners === 'all' || owners.includes(ownerId);
}

/** A condition on `ownerId` that keeps to what they may see; for `where`. */
export function ownOnly({ owners }: Viewer): { ownerId?: readonly string[] } {
  return owners === 'all' ? {} : { ownerId: owners };
}

const supervisors: ReadonlySet<Capability> = new Set([
  'change-fleet',
  'change-sheets',
  'manage-people',
  'change-settings',
  'see-metrics',
]);

/** Why somebody is turned away. */
export function whoMay(capability: Capability): string {
  return supervisors.has(capability) ? 'This is for a supervisor' : 'This is not for your role';
}

/** Who asks for a change, and when, as the record keeps it. */
export const askingBy =
  (clock: { now: () => Date }) =>
  ({ person: { id, name, role } }: Viewer): { by: Recorder; at: string } => ({
    by: { id, name, role },
    at: clock.now().toISOString(),
  });
