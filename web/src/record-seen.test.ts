import 'fake-indexeddb/auto';
import { afterEach, expect, it, vi } from 'vitest';
import { fleetApi } from './fleet/fleet-api.ts';
import { newStore } from './store.ts';
import { takePathsForAddresses } from './testing/whole-addresses.ts';

afterEach(() => vi.unstubAllGlobals());

it('says with each request how far the record had come in what was shown, and never less', async () => {
  const said: (string | null)[] = [];
  const told = ['7', '12', null, 'nonsense', '9', null];
  takePathsForAddresses();
  const answer = vi.fn((request: Request) => {
    said.push(request.headers.get('Record-Seen'));
    const seen = told[said.length - 1];
    return Promise.resolve(new Response('[]', { headers: seen ? { 'Record-Seen': seen } : {} }));
  });
  vi.stubGlobal('fetch', answer);
  const store = newStore();
  for (let i = 0; i < told.length; i++)
    await store.dispatch(fleetApi.endpoints.fleet.initiate({ page: 1 }, { forceRefetch: true }));
  expect(said).toEqual([null, '7', '12', '12', '12', '12']);
});
