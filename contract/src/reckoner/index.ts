import { z } from 'zod';
import { defineRoute } from '../route/index.ts';

const title = z.object({ name: z.string(), title: z.string(), summary: z.string() });
const nameParams = z.object({ name: z.string().max(80) });

export const reckonerRoutes = {
  list: defineRoute({
    method: 'get',
    path: '/api/reckon',
    summary: 'All calculations',
    access: 'anyone',
    answer: z.array(title),
  }),
  describe: defineRoute({
    method: 'get',
    path: '/api/reckon/:name',
    summary: 'Schemas, sources and example of a calculation',
    access: 'anyone',
    params: nameParams,
    answer: title.extend({
      inputSchema: z.unknown(),
      outputSchema: z.unknown(),
      sources: z.array(z.object({ text: z.string(), mark: z.string() })),
      example: z.unknown(),
    }),
  }),
  reckon: defineRoute({
    method: 'post',
    path: '/api/reckon/:name',
    summary: 'Run a calculation',
    access: 'run-sums',
    params: nameParams,
    body: z.unknown(),
    answer: z.unknown(),
  }),
};
