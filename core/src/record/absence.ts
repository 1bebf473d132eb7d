import { z } from 'zod';
import { begun, refuse, StreamError, type Aggregate } from './aggregate.ts';

/** Somebody or something that is not there: a person on leave, a unit on the road, a bay closed, a tool away. */
export const absenceSchema = z.object({
  what: z.enum(['person', 'unit', 'bay', 'tool']),
  of: z.string().min(1).max(60),
  /** ISO 8601, UTC. */
  from: z.iso.datetime(),
  until: z.iso.datetime(),
  why: z.string().trim().min(1, 'enter a reason').max(120),
});
export type Absence = z.output<typeof absenceSchema>;

const absenceBodySchema = z.discriminatedUnion('kind', [
  z.object({ kind: z.literal('absence-told'), absence: absenceSchema }),
  z.object({ kind: z.literal('absence-ended'), at: z.iso.datetime() }),
  z.object({ kind: z.literal('absence-cancelled') }),
]);
export type AbsenceBody = z.output<typeof absenceBodySchema>;

export interface AbsenceState extends Absence {
  version: number;
  cancelled: boolean;
}

export type AbsenceCommand =
  { kind: 'tell'; absence: Absence } | { kind: 'end'; at: string } | { kind: 'cancel' };

const LONGEST_DAYS = 400;

/** Not there from when to when. Bookings that lie across it are not undone: whoever plans mends them. */
export const absenceAggregate: Aggregate<AbsenceState, AbsenceCommand, AbsenceBody, AbsenceState> = {
  stream: 'absence',
  upcast: (body) => absenceBodySchema.parse(body),

  decide(state, command) {
    if (command.kind === 'tell') {
      if (state) return refuse('Already recorded');
      const days = (Date.parse(command.absence.until) - Date.parse(command.absence.from)) / 86_400_000;
      if (days <= 0) return refuse('It must end after it begins', 'until');
      if (days > LONGEST_DAYS) return refuse(`${LONGEST_DAYS} days at most`, 'until');
      return { ok: true, bodies: [{ kind: 'absence-told', absence: command.absence }] };
    }
    const absence = begun(state, 'absence');
    if (absence.cancelled) return refuse('This was taken back');
    if (command.kind === 'cancel') return { ok: true, bodies: [{ kind: 'absence-cancelled' }] };
    if (command.at <= absence.from) return refuse('This absence has not started. Delete it instead');
    if (command.at >= absence.until) return refuse('It has ended already');
    return { ok: true, bodies: [{ kind: 'absence-ended', at: command.at }] };
  },

  fold(state, { version, body }) {
    if (body.kind === 'absence-told') {
      if (state) throw new StreamError('An absence is told once');
      return { ...body.absence, version, cancelled: false };
    }
    const absence = { ...begun(state, 'absence'), version };
    return body.kind === 'absence-cancelled'
      ? { ...absence, cancelled: true }
      : { ...absence, until: body.at };
  },

  project: (absence) => absence,
};
