import 'fake-indexeddb/auto';
import { afterEach, beforeEach, describe, expect, it, vi } from 'vitest';
import type { StoredEvent } from '@lanternwright/core/traveller';
import { peopleApi } from '../people/people-api.ts';
import { sessionOf } from '../people/testing/session.ts';
import { newStore } from '../store.ts';
import { serveWith } from '../testing/fake-server.tsx';
import { toolsApi } from '../tools/tools-api.ts';
import { addToCopy, copyOf, storeCopy } from './copies.ts';

const person = (name: string, n: number) => ({
  id: `00000000-0000-4000-8000-00000000000${n}`,
  name,
  login: 'x',
  role: 'technician' as const,
});
const achterberg = sessionOf(person('D. Achterberg', 1));

beforeEach(() => storeCopy('api/people/session', sessionOf(person('nobody of these', 9))));
afterEach(() => vi.unstubAllGlobals());

describe('copies on the device', () => {
  it('are of one person: another one, or nobody, and all of it goes', async () => {
    await storeCopy('api/people/session', achterberg);
    await storeCopy('api/jobs/j-1', { events: [] });
    await storeCopy('api/people/session', achterberg);
    expect(await copyOf('api/jobs/j-1')).toBeDefined();
    await storeCopy('api/people/session', { ...achterberg, person: null });
    expect(await copyOf('api/jobs/j-1')).toBeUndefined();
  });

  it('hold what work needs, and no photos, papers or people', async () => {
    for (const url of [
      'api/people',
      'api/exchange/fleet.csv',
      'api/reckon',
      'api/fleet/units?page=1&search=tern',
      'api/find?text=tern',
    ]) {
      await storeCopy(url, 1);
      expect(await copyOf(url), url).toBeUndefined();
    }
    for (const url of ['api/jobs?status=open&page=1', 'api/fleet/units?page=1', 'api/sheets', 'api/tools']) {
      await storeCopy(url, 1);
      expect((await copyOf(url))?.data, url).toBe(1);
    }
  });

  it('take a record that follows, and none that leaves a gap', async () => {
    const event = (version: number) => ({ version }) as StoredEvent;
    await storeCopy('api/jobs/j-2', { events: [event(1)] });
    await addToCopy('j-2', event(2));
    await addToCopy('j-2', event(4));
    await addToCopy('not-here', event(1));
    expect((await copyOf('api/jobs/j-2'))?.data).toEqual({ events: [event(1), event(2)] });
    expect(await copyOf('api/jobs/not-here')).toBeUndefined();
  });
});

describe('without a network', () => {
  it('what the device had is shown, and that it is so, until the server answers again', async () => {
    const store = newStore();
    const asked = serveWith(({ path }) => ({ body: path.endsWith('session') ? achterberg : [] }));
    const fetchBoth = async () => {
      const fresh = { subscribe: false, forceRefetch: true } as const;
      const session = await store.dispatch(peopleApi.endpoints.session.initiate(undefined, fresh));
      const tools = await store.dispatch(toolsApi.endpoints.tools.initiate(undefined, fresh));
      return [session.data?.person?.name, tools.data, tools.error];
    };
    expect(await fetchBoth()).toEqual(['D. Achterberg', [], undefined]);
    expect(store.getState().offline.since).toBeNull();
    vi.stubGlobal('fetch', () => Promise.reject(new TypeError('no network')));
    expect(await fetchBoth()).toEqual(['D. Achterberg', [], undefined]);
    expect(store.getState().offline.since).toMatch(/^20/);
    // What was never fetched is not made up.
    const list = await store.dispatch(peopleApi.endpoints.people.initiate(undefined, { subscribe: false }));
    expect(list.error).toMatchObject({ status: 'FETCH_ERROR' });
    // A server that answers, even with a refusal of a proxy that has none, is told apart.
    serveWith(() => ({ status: 504, body: {} }));
    expect((await fetchBoth())[0]).toBe('D. Achterberg');
    serveWith(({ path }) => ({ body: path.endsWith('session') ? achterberg : [] }));
    await fetchBoth();
    expect(store.getState().offline.since).toBeNull();
    expect(asked.length).toBeGreaterThan(0);
  });
});
