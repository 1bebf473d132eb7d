import { z } from 'zod';
import { toolSchema } from '@lanternwright/core/tool';
import { defineRoute, okSchema } from '../route/index.ts';

export const certificateTypes = ['application/pdf', 'image/jpeg'] as const;

/** A tool on the shop's list, with who put it there or changed it last. */
export const listedToolSchema = z.object({
  tool: toolSchema,
  changedAt: z.iso.datetime(),
  changedBy: z.string(),
  /** Counts its changes: whoever changes it says which one they saw. */
  version: z.int(),
  /** Who has it; null where it lies at its place. */
  holder: z.object({ id: z.uuid(), name: z.string(), since: z.iso.datetime() }).nullable(),
  /** When it was found out of calibration, and the last day it was good. */
  recalls: z.array(
    z.object({ lastGood: z.iso.date(), reason: z.string(), at: z.iso.datetime(), by: z.string() }),
  ),
  /** Since when nobody finds it; absent from copies that an earlier program made. */
  missing: z.object({ since: z.iso.datetime(), by: z.string() }).nullish(),
  /** The newest last; absent from such copies as well. */
  certificates: z
    .array(
      z.object({
        ...{ id: z.uuid(), name: z.string(), type: z.enum(certificateTypes), until: z.iso.date() },
        ...{ at: z.iso.datetime(), by: z.string() },
      }),
    )
    .optional(),
});
export type ListedTool = z.output<typeof listedToolSchema>;

/** A record that was made with a tool since a day. */
const toolRecordSchema = z.object({
  jobId: z.uuid(),
  jobNumber: z.int(),
  unit: z.string(),
  position: z.string(),
  at: z.iso.datetime(),
  by: z.string(),
  text: z.string(),
  /** Whether the wheel end is released: it rolls on what was measured. */
  released: z.boolean(),
});
export type ToolRecord = z.output<typeof toolRecordSchema>;

/** The version whoever asks has seen; 0 of what is not there yet. */
const seenVersion = z.int().min(0);

export const toolsRoutes = {
  list: defineRoute({
    method: 'get',
    path: '/api/tools',
    summary: 'Tools whose calibration counts, by kind and code',
    access: 'see-tools',
    answer: z.array(listedToolSchema),
  }),
  keep: defineRoute({
    method: 'put',
    path: '/api/tools',
    summary: 'Put a tool on the list, or change one by its id; records keep it as it was',
    access: 'change-tools',
    body: z.object({ seenVersion, tool: toolSchema }),
    answer: listedToolSchema,
  }),
  retire: defineRoute({
    method: 'delete',
    path: '/api/tools/:id',
    summary: 'Take a tool off the list; records it was used for stay',
    access: 'change-tools',
    params: z.object({ id: z.uuid() }),
    query: z.object({ seenVersion: z.coerce.number().pipe(seenVersion) }),
    answer: okSchema,
  }),
  take: defineRoute({
    method: 'post',
    path: '/api/tools/:id/taken',
    summary: 'Take a tool from its place; one person has it at a time',
    access: 'use-parts',
    params: z.object({ id: z.uuid() }),
    answer: listedToolSchema,
  }),
  giveBack: defineRoute({
    method: 'post',
    path: '/api/tools/:id/returned',
    summary: 'Put a tool back to its place, whoever had it',
    access: 'use-parts',
    params: z.object({ id: z.uuid() }),
    answer: listedToolSchema,
  }),
  recall: defineRoute({
    method: 'post',
    path: '/api/tools/:id/recalled',
    summary:
      'Record that a tool was found out of calibration: it is offered no longer, and what was made with it is listed',
    access: 'change-tools',
    params: z.object({ id: z.uuid() }),
    body: z.object({
      seenVersion,
      lastGood: z.iso.date(),
      reason: z.string().trim().min(1, 'enter a reason').max(200),
    }),
    answer: listedToolSchema,
  }),
  missing: defineRoute({
    method: 'post',
    path: '/api/tools/:id/missing',
    summary: 'Record that nobody finds a tool: no step offers it until it is found, taken or put back',
    access: 'use-parts',
    params: z.object({ id: z.uuid() }),
    answer: listedToolSchema,
  }),
  found: defineRoute({
    method: 'post',
    path: '/api/tools/:id/found',
    summary: 'Record that a tool was found again',
    access: 'use-parts',
    params: z.object({ id: z.uuid() }),
    answer: listedToolSchema,
  }),
  certify: defineRoute({
    method: 'post',
    path: '/api/tools/:id/certificates',
    summary: 'Record a calibration with its certificate, a PDF or a JPEG of up to 1.5 MB',
    access: 'change-tools',
    params: z.object({ id: z.uuid() }),
    body: z.object({
      seenVersion,
      /** Sent twice it is one certificate: the browser names it. */
      certificateId: z.uuid(),
      name: z.string().trim().min(1, 'the file has no name').max(120),
      type: z.enum(certificateTypes, 'a PDF or a JPEG'),
      file: z.base64().min(100, 'the file is empty').max(2_100_000, 'it is over 1.5 MB'),
      until: z.iso.date(),
    }),
    answer: listedToolSchema,
  }),
  certificate: defineRoute({
    method: 'get',
    path: '/api/tools/:id/certificates/:certificateId',
    summary: 'A certificate of a tool, as it was brought',
    access: 'see-tools',
    params: z.object({ id: z.uuid(), certificateId: z.uuid() }),
    answer: z.instanceof(Uint8Array),
  }),
  records: defineRoute({
    method: 'get',
    path: '/api/tools/:id/records',
    summary: 'Records that were made with a tool since a day, the newest first',
    access: 'see-tools',
    params: z.object({ id: z.uuid() }),
    query: z.object({ since: z.iso.date() }),
    answer: z.array(toolRecordSchema),
  }),
};
