import { z } from 'zod';
import { roleSchema } from './role-schema.ts';

const named = { id: z.uuid(), name: z.string().min(1).max(80) };

/** Who recorded something, as they were called then. */
export const actorSchema = z.object({
  ...named,
  role: roleSchema,
  /** Who sent it, where it lay on a device and another person sent it on. */
  sentBy: z.object(named).optional(),
});
export type Actor = z.output<typeof actorSchema>;

/** Who recorded something, and who sent it where that was another person. */
export const recordedBy = ({ name, sentBy }: Pick<Actor, 'name' | 'sentBy'>): string =>
  sentBy ? `${name}, sent by ${sentBy.name}` : name;

/** Whose record it is that a person sends: what they send on is taken with no more rights than a bench has. */
export const sentOn = (maker: Pick<Actor, 'id' | 'name'>, { id, name, role }: Actor): Actor =>
  maker.id === id
    ? { id, name, role }
    : { id: maker.id, name: maker.name, role: 'technician', sentBy: { id, name } };
