import { z } from 'zod';
import type { Capability } from '@lanternwright/core/access';

export type Method = 'get' | 'post' | 'put' | 'delete';
export type Path = `/api/${string}`;

/**
 * One way across the wire: what the server checks, what the browser sends, and what OpenAPI shows.
 * `access` says who may call: anyone, anyone signed in, or whoever has a capability.
 */
export interface Route<
  P extends z.ZodObject = z.ZodObject,
  Q extends z.ZodObject = z.ZodObject,
  B extends z.ZodType = z.ZodType,
  A extends z.ZodType = z.ZodType,
  M extends Method = Method,
  U extends Path = Path,
> {
  method: M;
  path: U;
  summary: string;
  access: 'anyone' | 'signed-in' | Capability;
  params: P;
  query: Q;
  body: B;
  answer: A;
}

const nothing = z.object({});
type Nothing = typeof nothing;

/** Fills in what a route leaves out. */
export function defineRoute<
  P extends z.ZodObject = Nothing,
  Q extends z.ZodObject = Nothing,
  B extends z.ZodType = z.ZodUndefined,
  A extends z.ZodType = z.ZodType,
  const W extends Route['access'] = Route['access'],
  const M extends Method = Method,
  const U extends Path = Path,
>(
  route: Pick<Route<P, Q, B, A, M, U>, 'method' | 'path' | 'summary' | 'answer'> & {
    access: W;
    params?: P;
    query?: Q;
    body?: B;
  },
): Route<P, Q, B, A, M, U> & { access: W } {
  return {
    ...route,
    params: route.params ?? (nothing as unknown as P),
    query: route.query ?? (nothing as unknown as Q),
    body: route.body ?? (z.undefined() as unknown as B),
  };
}

/** Which page of a list, the first is 1. */
export const pageNumber = z.coerce.number<number>().int().min(1).max(10_000).default(1);

/** Every error: RFC 9457 problem details, with the fields it is about. */
export const problemSchema = z.object({
  type: z.string(),
  title: z.string(),
  status: z.int(),
  detail: z.string(),
  /** What was refused, for a client that does not read the words; `type` ends with it. */
  code: z.string(),
  issues: z.array(z.object({ path: z.string(), message: z.string() })).optional(),
});
export type Problem = z.infer<typeof problemSchema>;

/** A uuid in the path. */
export const idParams = z.object({ id: z.uuid() });
export const okSchema = z.object({ ok: z.literal(true) });
