import { z } from 'zod';
import { toolSchema } from '@lanternwright/core/tool';
import { defineRoute, okSchema } from '../route/index.ts';

/** A tool on the shop's list, with who put it there or changed it last. */
export const listedToolSchema = z.object({
  tool: toolSchema,
  changedAt: z.iso.datetime(),
  changedBy: z.string(),
  /** Counts its changes: whoever changes it says which one they saw. */
  version: z.int(),
});
export type ListedTool = z.output<typeof listedToolSchema>;

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
};
