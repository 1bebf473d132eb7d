import { z } from 'zod';
import { sheetSchema } from '@lanternwright/core/procedure';
import { defineRoute } from '../route/index.ts';

const sheetId = z.string().regex(/^[a-z0-9-]{1,60}$/, 'small letters, digits and dashes');

/** A sheet as it stood at one revision; the first one came with the product and has nobody's name. */
export const sheetRevisionSchema = z.object({
  sheet: sheetSchema,
  at: z.iso.datetime().nullable(),
  by: z.string().nullable(),
  note: z.string(),
});
export type SheetRevision = z.output<typeof sheetRevisionSchema>;

/** A sheet with all its revisions, newest first. */
export const revisedSheetSchema = z.object({
  sheetId,
  revisions: z.array(sheetRevisionSchema).min(1),
});
export type RevisedSheet = z.output<typeof revisedSheetSchema>;

const note = z.string().trim().min(1, 'enter what changed and why').max(500);

export const reviseSheetSchema = z.object({
  /** Revision the change was made on: another one since then is answered 409. */
  basedOn: z.int().min(1),
  sheet: sheetSchema,
  note,
});
export const copySheetSchema = z.object({
  from: sheetId,
  sheetId,
  title: z.string().trim().min(1).max(120),
});

/** How many units a page of those behind has, and are carried over at once. */
export const CARRIED_AT_ONCE = 100;

const unitBehindSchema = z.object({
  id: z.uuid(),
  name: z.string(),
  owner: z.string(),
  version: z.int(),
  axles: z.array(
    z.object({
      number: z.int(),
      /** The revision its sheet was taken from. */
      revision: z.int(),
      /** How many figures it has of its own, which stay. */
      own: z.int(),
    }),
  ),
});
const behindSchema = z.object({
  total: z.int(),
  /** The first of them, by owner and name. */
  units: z.array(unitBehindSchema),
});
export type Behind = z.output<typeof behindSchema>;
const carrySchema = z.object({
  /** The revision they are carried over to; another one since then is answered 409. */
  to: z.int().min(2),
  units: z
    .array(z.object({ id: z.uuid(), seenVersion: z.int() }))
    .min(1)
    .max(CARRIED_AT_ONCE),
});
export type Carry = z.input<typeof carrySchema>;
const carriedSchema = z.object({
  carried: z.int(),
  /** Units that somebody changed meanwhile, as they were. */
  left: z.array(z.uuid()),
});
export type Carried = z.output<typeof carriedSchema>;

export const sheetsRoutes = {
  list: defineRoute({
    method: 'get',
    path: '/api/sheets',
    summary: 'Every sheet with its revisions, by family',
    access: 'see-sheets',
    answer: z.array(revisedSheetSchema),
  }),
  revise: defineRoute({
    method: 'post',
    path: '/api/sheets/:sheetId',
    summary: 'A new revision of a sheet; running jobs keep theirs',
    access: 'change-sheets',
    params: z.object({ sheetId }),
    body: reviseSheetSchema,
    answer: sheetRevisionSchema,
  }),
  behind: defineRoute({
    method: 'get',
    path: '/api/sheets/:sheetId/behind',
    summary: 'Units with axles that go by an earlier revision of a sheet',
    access: 'change-sheets',
    params: z.object({ sheetId }),
    answer: behindSchema,
  }),
  carry: defineRoute({
    method: 'post',
    path: '/api/sheets/:sheetId/carry',
    summary:
      'Carry axles over to the newest revision of a sheet; figures of their own stay, and running jobs keep theirs',
    access: 'change-sheets',
    params: z.object({ sheetId }),
    body: carrySchema,
    answer: carriedSchema,
  }),
  copy: defineRoute({
    method: 'post',
    path: '/api/sheets',
    summary: 'A copy of a sheet under a name of its own',
    access: 'change-sheets',
    body: copySheetSchema,
    answer: sheetRevisionSchema,
  }),
};
