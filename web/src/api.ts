import { createApi, fetchBaseQuery, type BaseQueryFn } from '@reduxjs/toolkit/query/react';
import type { FetchArgs, FetchBaseQueryError } from '@reduxjs/toolkit/query/react';
import type { Problem } from '@lanternwright/contract/route';
import { copyOf, storeCopy, noCopies } from './offline/copies.ts';
import { RECORD_SEEN, sendRecordSeen, sawRecord } from './record-seen.ts';
import { copyShown, serverAnswered } from './offline/offline.ts';

/** A network that swallows what is sent is no network. */
const PATIENCE_MS = 10_000;

const asked = { baseUrl: '/', credentials: 'same-origin', prepareHeaders: sendRecordSeen } as const;
const fetchApi = fetchBaseQuery(asked);
const readApi = fetchBaseQuery({ ...asked, timeout: PATIENCE_MS });

/** Address of a request, with what is asked. */
function addressOf({ url, params }: FetchArgs): string {
  const query = new URLSearchParams(
    Object.entries((params ?? {}) as Record<string, unknown>).flatMap(([k, v]) =>
      v === undefined ? [] : [[k, String(v)]],
    ),
  ).toString();
  return query === '' ? url : `${url}?${query}`;
}

/** No answer at all, or one of a proxy that has none. */
const unanswered = ({ status }: FetchBaseQueryError) =>
  status === 'FETCH_ERROR' || status === 'TIMEOUT_ERROR' || status === 502 || status === 504;

/**
 * Asks the server. Where it cannot be reached, what this device had last is shown, and that it is so. Whoever is told
 * to sign in has lost their session: the door is shown.
 */
const baseQuery: BaseQueryFn<string | FetchArgs, unknown, FetchBaseQueryError> = async (
  args,
  store,
  extra,
) => {
  const request = typeof args === 'string' ? { url: args } : args;
  const reads = (request.method ?? 'GET') === 'GET';
  const answer = await (reads ? readApi : fetchApi)(args, store, extra);
  sawRecord(answer.meta?.response?.headers.get(RECORD_SEEN));
  const address = addressOf(request);
  if (!answer.error) {
    store.dispatch(serverAnswered());
    // A browser that cannot hold it shows it all the same.
    if (reads) await storeCopy(address, answer.data).catch(noCopies);
    return answer;
  }
  if (reads && unanswered(answer.error)) {
    const copy = await copyOf(address).catch(noCopies);
    if (copy) {
      store.dispatch(copyShown(copy.at));
      return { data: copy.data };
    }
  }
  if (answer.error.status === 401 && !address.startsWith('api/people/session'))
    store.dispatch(api.util.invalidateTags(['session']));
  return answer;
};

const tags = [
  ...(['session', 'people', 'sheets', 'tools', 'fleet', 'unit', 'jobs', 'job', 'plan', 'parts'] as const),
  ...(['calendars', 'meter-file', 'feed', 'morning', 'programs', 'rates'] as const),
];
/** What an answer is about: it is asked for again when something of that has changed. */
export type Tag = (typeof tags)[number];

/** The API's cache. Each feature injects its own endpoints. */
export const api = createApi({
  reducerPath: 'api',
  baseQuery,
  tagTypes: tags,
  endpoints: () => ({}),
});

/** What an API error says to the person at the screen. */
export function problemText(error: unknown): string {
  const { status, data } = (error ?? {}) as { status?: number | string; data?: Partial<Problem> };
  if (status === 'FETCH_ERROR' || status === 'TIMEOUT_ERROR')
    return 'The server cannot be reached. Nothing was lost; try again.';
  return data?.detail ?? 'Something went wrong. Nothing was kept; try again.';
}

/** The fields a refused request named, each with its reason. */
export function problemFields(error: unknown): Record<string, string> {
  const { data } = (error ?? {}) as { data?: Partial<Problem> };
  return Object.fromEntries((data?.issues ?? []).map((i) => [i.path, i.message]));
}
