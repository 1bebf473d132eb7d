import { z } from 'zod';
import { roleSchema } from '@lanternwright/core/access';
import { readerUnitsSchema } from '@lanternwright/core/quantity';
import { ownerSchema } from '../fleet/index.ts';
import { defineRoute, idParams, okSchema } from '../route/index.ts';
import { shopSettingsSchema } from '../shop/settings.ts';

export const personSchema = z.object({ id: z.uuid(), name: z.string(), login: z.string(), role: roleSchema });
export type Person = z.infer<typeof personSchema>;

const login = z
  .string()
  .trim()
  .toLowerCase()
  .regex(/^[a-z0-9._-]{2,40}$/, 'two to forty letters, digits, dots or dashes');
const name = z.string().trim().min(2, 'two letters or more').max(80);
const newPassword = z.string().min(10, 'at least ten characters').max(200);
const password = z.string().min(1, 'is needed').max(200);
export const pinSchema = z.string().regex(/^\d{4,8}$/, 'four to eight digits');
const code = z.string().trim().min(1, 'the code is needed').max(40);

/** Owners that an owner's contact answers for; nobody else has any. */
const owners = z.array(z.uuid()).max(50).default([]);

const seenVersion = z.int().min(0);

export const personalDetailsSchema = z.object({
  telephone: z.string().trim().max(40),
  mail: z.union([z.literal(''), z.email('must be a mail address')]).default(''),
});
export type PersonalDetails = z.output<typeof personalDetailsSchema>;

export const newPersonSchema = z.object({ name, login, role: roleSchema, owners });
export type NewPerson = z.input<typeof newPersonSchema>;

/** A person as the supervisor's list shows them. */
export const listedPersonSchema = personSchema.extend({
  owners: z.array(ownerSchema),
  switchedOff: z.boolean(),
  lastSignIn: z.iso.datetime().nullable(),
  /** Until when their code for a password of their own holds; null where none waits. */
  codeUntil: z.iso.datetime().nullable(),
  /** How they are reached: kept beside the record of the shop, and erased when it is asked for. */
  telephone: z.string(),
  mail: z.string(),
  /** Counts their changes: whoever changes them says which one they saw. */
  version: z.int(),
});
export type ListedPerson = z.infer<typeof listedPersonSchema>;

/** A code with which a person chooses a password of their own. It is shown once. */
export const signInCodeSchema = z.object({ person: listedPersonSchema, code: z.string() });
export type SignInCode = z.infer<typeof signInCodeSchema>;

/** The first person of an empty shop, with the code that was printed where the server was started. */
export const firstPersonSchema = z.object({ name, login, password: newPassword, code });
export type FirstPerson = z.infer<typeof firstPersonSchema>;

export const sessionSchema = z.object({
  person: personSchema.nullable(),
  /** How they came in: with a PIN some things are not to be had. */
  by: z.enum(['password', 'pin', 'demo']).nullable(),
  /** Whether they have a PIN. */
  hasPin: z.boolean(),
  /** Demo mode: these people can be signed in as without a password. */
  demoPeople: z.array(personSchema),
  /** Nobody is there yet: the first person makes the shop theirs. */
  needsFirstPerson: z.boolean(),
  /** Units in which they read figures: their own, or else the shop's. */
  units: readerUnitsSchema,
  shop: shopSettingsSchema,
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
    body: z.object({ login, password }),
    answer: personSchema,
  }),
  signInWithCode: defineRoute({
    method: 'post',
    path: '/api/people/session/code',
    summary: 'Choose a password of one’s own with the code a supervisor gave, and sign in',
    access: 'anyone',
    body: z.object({ login, code, password: newPassword }),
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
  peopleWithPin: defineRoute({
    method: 'get',
    path: '/api/people/with-pin',
    summary: 'Who can change in at this terminal with a PIN',
    access: 'share-terminal',
    answer: z.array(personSchema.pick({ id: true, name: true })),
  }),
  changePerson: defineRoute({
    method: 'post',
    path: '/api/people/session/pin',
    summary: 'Change the person at a terminal where somebody of the shop is signed in, with a PIN',
    access: 'share-terminal',
    body: z.object({ personId: z.uuid(), pin: pinSchema }),
    answer: personSchema,
  }),
  signOut: defineRoute({
    method: 'delete',
    path: '/api/people/session',
    summary: 'Sign out',
    access: 'anyone',
    answer: okSchema,
  }),
  signOutEverywhere: defineRoute({
    method: 'post',
    path: '/api/people/me/sign-out-everywhere',
    summary: 'End every session of one’s own, this one too',
    access: 'signed-in',
    answer: okSchema,
  }),
  changePassword: defineRoute({
    method: 'put',
    path: '/api/people/me/password',
    summary: 'Change one’s own password; every other session ends',
    access: 'signed-in',
    body: z.object({ current: password, password: newPassword }),
    answer: okSchema,
  }),
  setPin: defineRoute({
    method: 'put',
    path: '/api/people/me/pin',
    summary: 'Choose a PIN, or have none any more',
    access: 'share-terminal',
    body: z.object({ password, pin: pinSchema.nullable() }),
    answer: okSchema,
  }),
  setUnits: defineRoute({
    method: 'put',
    path: '/api/people/me/units',
    summary: 'Choose the units one reads figures in',
    access: 'signed-in',
    body: readerUnitsSchema,
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
    summary: 'Everybody who can sign in or could once',
    access: 'manage-people',
    answer: z.array(listedPersonSchema),
  }),
  add: defineRoute({
    method: 'post',
    path: '/api/people',
    summary: 'Add a person; the code in the answer lets them choose a password',
    access: 'manage-people',
    body: newPersonSchema,
    answer: signInCodeSchema,
  }),
  change: defineRoute({
    method: 'put',
    path: '/api/people/:id',
    summary: 'Change a person’s name, role or owners; their sessions end where the role or an owner changed',
    access: 'manage-people',
    params: idParams,
    body: newPersonSchema.omit({ login: true }).extend({ seenVersion }),
    answer: listedPersonSchema,
  }),
  switchOff: defineRoute({
    method: 'post',
    path: '/api/people/:id/off',
    summary: 'Let a person in no more; their sessions and streams end at once',
    access: 'manage-people',
    params: idParams,
    body: z.object({ seenVersion }),
    answer: listedPersonSchema,
  }),
  newCode: defineRoute({
    method: 'post',
    path: '/api/people/:id/code',
    summary: 'Take a person’s password and PIN away and give a code for a new one; switches them on again',
    access: 'manage-people',
    params: idParams,
    body: z.object({ seenVersion }),
    answer: signInCodeSchema,
  }),
  details: defineRoute({
    method: 'put',
    path: '/api/people/:id/details',
    summary: 'How a person is reached; both left empty erases it',
    access: 'manage-people',
    params: idParams,
    body: personalDetailsSchema,
    answer: listedPersonSchema,
  }),
};
