import { createApi, fetchBaseQuery, type BaseQueryFn } from '@reduxjs/toolkit/query/react';
import type { FetchArgs, FetchBaseQueryError } from '@reduxjs/toolkit/query/react';
import type { Problem } from '@lanternwright/contract/route';

const fetchApi = fetchBaseQuery({ baseUrl: '/', credentials: 'same-origin' });

/** Whoever is told to sign in has lost their session: the door is shown. */
const baseQuery: BaseQueryFn<string | FetchArgs, unknown, FetchBaseQueryError> = async (
  args,
  store,
  options,
) => {
  const answer = await fetchApi(args, store, options);
  const url = typeof args === 'string' ? args : args.url;
  if (answer.error?.status === 401 && !url.startsWith('api/people/session'))
    store.dispatch(api.util.invalidateTags(['session']));
  return answer;
};

/** The API's cache. Each feature injects its own endpoints. */
export const api = createApi({
  reducerPath: 'api',
  baseQuery,
  tagTypes: ['sheets', 'tools', 'session', 'people', 'fleet', 'unit', 'jobs', 'job'],
  endpoints: () => ({}),
});

/** What an API error says to the person at the screen. */
export function problemText(error: unknown): string {
  const { status, data } = (error ?? {}) as { status?: number | string; data?: Partial<Problem> };
  if (status === 'FETCH_ERROR') return 'The server cannot be reached. Nothing was lost; try again.';
  return data?.detail ?? 'Something went wrong. Nothing was kept; try again.';
}

/** The fields a refused request named, each with its reason. */
export function problemFields(error: unknown): Record<string, string> {
  const { data } = (error ?? {}) as { data?: Partial<Problem> };
  return Object.fromEntries((data?.issues ?? []).map((i) => [i.path, i.message]));
}
