import { z } from 'zod';
import { roleSchema, type Role } from '../access/index.ts';
import { begun, refuse, StreamError, type Aggregate } from './aggregate.ts';
import { sameJson } from './canonical.ts';

const facts = { name: z.string(), role: roleSchema, owners: z.array(z.uuid()) };
const personBodySchema = z.discriminatedUnion('kind', [
  z.object({ kind: z.literal('person-added'), ...facts }),
  /** They were there before people had a record. */
  z.object({ kind: z.literal('person-taken-over'), ...facts, switchedOff: z.boolean() }),
  z.object({ kind: z.literal('person-changed'), ...facts }),
  z.object({ kind: z.literal('person-switched-off') }),
  /** A code for a new password was given: they may come in again. */
  z.object({ kind: z.literal('person-given-code') }),
  /** Telephone and mail, which stand outside the record, were erased. */
  z.object({ kind: z.literal('person-details-erased') }),
]);
export type PersonBody = z.output<typeof personBodySchema>;

export interface PersonState {
  version: number;
  name: string;
  role: Role;
  /** Owners an owner's contact answers for, ids. */
  owners: string[];
  switchedOffAt: string | null;
}

type Facts = Pick<PersonState, 'name' | 'role' | 'owners'>;
export type PersonCommand =
  | ({ kind: 'add' } & Facts)
  | ({ kind: 'change' } & Facts)
  | { kind: 'switch-off' }
  | { kind: 'give-code' }
  | { kind: 'erase-details' };

const factsOf = ({ name, role, owners }: Facts): Facts => ({ name, role, owners: [...owners].sort() });

/**
 * Somebody who works here or answers for an owner. The record holds the name as it is signed with; how they sign in
 * and how they are reached stand outside of it.
 */
export const personAggregate: Aggregate<PersonState, PersonCommand, PersonBody, PersonState> = {
  stream: 'person',
  upcast: (body) => personBodySchema.parse(body),

  decide(state, command) {
    if (command.kind === 'add')
      return state
        ? refuse('This person is there already')
        : { ok: true, bodies: [{ kind: 'person-added', ...factsOf(command) }] };
    const person = begun(state, 'person');
    if (command.kind === 'change') {
      const wanted = factsOf(command);
      const asIs = sameJson(wanted, factsOf(person));
      return { ok: true, bodies: asIs ? [] : [{ kind: 'person-changed', ...wanted }] };
    }
    if (command.kind === 'switch-off')
      return { ok: true, bodies: person.switchedOffAt ? [] : [{ kind: 'person-switched-off' }] };
    if (command.kind === 'erase-details') return { ok: true, bodies: [{ kind: 'person-details-erased' }] };
    return { ok: true, bodies: [{ kind: 'person-given-code' }] };
  },

  fold(state, { version, at, body }) {
    if (body.kind === 'person-added' || body.kind === 'person-taken-over') {
      if (state) throw new StreamError('A person is added once');
      const off = body.kind === 'person-taken-over' && body.switchedOff;
      return { ...factsOf(body), version, switchedOffAt: off ? at : null };
    }
    const person = { ...begun(state, 'person'), version };
    if (body.kind === 'person-changed') return { ...person, ...factsOf(body) };
    if (body.kind === 'person-switched-off') return { ...person, switchedOffAt: at };
    if (body.kind === 'person-given-code') return { ...person, switchedOffAt: null };
    return person;
  },

  project: (state) => state,
};
