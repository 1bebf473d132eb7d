import { z } from 'zod';
import { defineRoute, okSchema, roleSchema } from '../route/index.ts';

export const personSchema = z.object({ id: z.uuid(), name: z.string(), login: z.string(), role: roleSchema });
export type Person = z.infer<typeof personSchema>;

const login = z
  .string()
  .trim()
  .toLowerCase()
  .regex(/^[a-z0-9._-]{2,40}$/, 'two to forty letters, digits, dots or dashes');
const newPassword = z.string().min(10, 'at least ten characters').max(200);

export const newPersonSchema = z.object({
  name: z.string().trim().min(2).max(80),
  login,
  role: roleSchema,
  password: newPassword,
});
export type NewPerson = z.infer<typeof newPersonSchema>;

/** The first person of an empty shop, with the code that was printed where the server was started. */
export const firstPersonSchema = newPersonSchema
  .omit({ role: true })
  .extend({ code: z.string().trim().min(1, 'the code is needed').max(40) });
export type FirstPerson = z.infer<typeof firstPersonSchema>;

export const sessionSchema = z.object({
  person: personSchema.nullable(),
  /** Demo mode: these people can be signed in as without a password. */
  demoPeople: z.array(personSchema),
  /** Nobody is there yet: the first person makes the shop theirs. */
  needsFirstPerson: z.boolean(),
});
export type Session = z.infer<typeof sessionSchema>;

export const peopleRoutes = {
  session: defineRoute({
    method: 'get',
    path: '/api/people/session',
    summary: 'Who is signed in, and how one can sign in here',
    access: 'anyone',
    answer: sessionSchema,
  }),
  signIn: defineRoute({
    method: 'post',
    path: '/api/people/session',
    summary: 'Sign in with name and password',
    access: 'anyone',
    body: z.object({ login, password: z.string().min(1).max(200) }),
    answer: personSchema,
  }),
  signInAsDemo: defineRoute({
    method: 'post',
    path: '/api/people/session/demo',
    summary: 'Sign in as one of the demo people (demo mode only)',
    access: 'anyone',
    body: z.object({ personId: z.uuid() }),
    answer: personSchema,
  }),
  signOut: defineRoute({
    method: 'delete',
    path: '/api/people/session',
    summary: 'Sign out',
    access: 'anyone',
    answer: okSchema,
  }),
  first: defineRoute({
    method: 'post',
    path: '/api/people/first',
    summary: 'Make the first person, a supervisor, in an empty shop',
    access: 'anyone',
    body: firstPersonSchema,
    answer: personSchema,
  }),
  list: defineRoute({
    method: 'get',
    path: '/api/people',
    summary: 'Everybody who can sign in',
    access: 'supervisor',
    answer: z.array(personSchema),
  }),
  add: defineRoute({
    method: 'post',
    path: '/api/people',
    summary: 'Add a person',
    access: 'supervisor',
    body: newPersonSchema,
    answer: personSchema,
  }),
};
