import type {
  BaseQueryFn,
  EndpointBuilder,
  FetchArgs,
  FetchBaseQueryError,
} from '@reduxjs/toolkit/query/react';
import type { z } from 'zod';
import type { Route } from '@lanternwright/contract/route';
import type { Tag } from './api.ts';

type Build = EndpointBuilder<BaseQueryFn<string | FetchArgs, unknown, FetchBaseQueryError>, Tag, 'api'>;

/** What is filled in of a part of a route; `unknown` where it has no fields. */
type Fields<S extends z.ZodType> = S extends z.ZodUndefined
  ? unknown
  : S extends z.ZodObject<infer Shape>
    ? keyof Shape extends never
      ? unknown
      : z.input<S>
    : z.input<S>;
type Beside<R extends Route> = Fields<R['query']> & Fields<R['body']>;

/** What a route is given: nothing, the one thing in its address, or the fields of address, query and body together. */
export type Given<R extends Route> = unknown extends Fields<R['params']> & Beside<R>
  ? void
  : unknown extends Beside<R>
    ? R['path'] extends `${string}:${string}:${string}`
      ? Fields<R['params']>
      : string
    : Fields<R['params']> & Beside<R>;
/** What a route answers. */
export type Answer<R extends Route> = z.output<R['answer']>;

/** The request for what a route is given: its address filled in, the rest as its query or its body. */
export function requestOf(method: Route['method'], path: Route['path'], given: unknown): FetchArgs {
  const fields: Record<string, unknown> = typeof given === 'object' ? { ...given } : {};
  const inAddress = new Set<string>();
  const url = path.slice(1).replace(/:(\w+)/g, (_, name: string) => {
    inAddress.add(name);
    return encodeURIComponent(typeof given === 'string' ? given : String(fields[name]));
  });
  const rest = Object.fromEntries(Object.entries(fields).filter(([name]) => !inAddress.has(name)));
  const asked = { url, method: method.toUpperCase() };
  if (Object.keys(rest).length === 0) return asked;
  return method === 'get' || method === 'delete' ? { ...asked, params: rest } : { ...asked, body: rest };
}

/**
 * Endpoints from the contract: what each is given and answers, its method and its address come from the type of its
 * route. The contract itself, with all its schemas, stays out of what a browser loads.
 */
export const fromContract = (build: Build) => ({
  read: <R extends Route>(
    path: R['path'],
    more: Omit<Parameters<typeof build.query<Answer<R>, Given<R>>>[0], 'query' | 'queryFn'> = {},
  ) =>
    build.query<Answer<R>, Given<R>>({
      ...more,
      query: (given) => requestOf('get', path, given),
    } as Parameters<typeof build.query<Answer<R>, Given<R>>>[0]),
  write: <R extends Route>(
    method: R['method'],
    path: R['path'],
    more: Omit<Parameters<typeof build.mutation<Answer<R>, Given<R>>>[0], 'query' | 'queryFn'> = {},
  ) =>
    build.mutation<Answer<R>, Given<R>>({
      ...more,
      query: (given) => requestOf(method, path, given),
    } as Parameters<typeof build.mutation<Answer<R>, Given<R>>>[0]),
});
