import { cleanup, screen, waitFor, within } from '@testing-library/react';
import { afterEach, expect, it, vi } from 'vitest';
import type { FirstHour as There } from '@lanternwright/contract/shop';
import { api } from '../api.ts';
import { sessionOf } from '../people/testing/session.ts';
import { serveWith, show } from '../testing/fake-server.tsx';
import { FirstHour } from './first-hour.tsx';

afterEach(() => {
  cleanup();
  localStorage.clear();
  vi.unstubAllGlobals();
});

const person = {
  id: '00000000-0000-4000-8000-000000000001',
  name: 'I. Okonedo',
  login: 'okonedo',
  role: 'supervisor' as const,
};
const nothing: There = { settings: 0, people: 1, bays: 0, tools: 0, units: 0, jobs: 0 };
const everything: There = { settings: 1, people: 2, bays: 1, tools: 1, units: 3, jobs: 1 };
const opened = (there: Partial<There>) => {
  serveWith(() => ({ body: { ...nothing, ...there } }));
  return show(<FirstHour />, sessionOf(person));
};

it('leads from step to step, with where each is done', async () => {
  await opened({});
  const bar = await screen.findByRole('region', { name: 'Setting up the shop' });
  expect(within(bar).getByText(/as it stands on papers/)).toBeTruthy();
  expect(within(bar).getByRole('link', { name: 'The shop' }).getAttribute('href')).toBe('/settings');
  cleanup();
  await opened({ settings: 1, people: 2, bays: 1, tools: 1, units: 2 });
  expect(await screen.findByText(/2 of 3 so far/)).toBeTruthy();
  expect(screen.getByRole('link', { name: 'Units' }).getAttribute('href')).toBe('/fleet/list');
  expect(screen.getAllByLabelText('done')).toHaveLength(4);
});

it('is gone once the first job is open, and when it is hidden', async () => {
  await opened(everything);
  expect(screen.queryByRole('region')).toBeNull();
  cleanup();
  const { user } = await opened({});
  await user.click(await screen.findByRole('button', { name: 'Hide' }));
  expect(screen.queryByRole('region')).toBeNull();
  cleanup();
  await opened({});
  expect(screen.queryByRole('region')).toBeNull();
});

it('goes when the last step is done while it is looked at, and asks no more', async () => {
  let there: There = { ...everything, jobs: 0 };
  const asked = serveWith(() => ({ body: there }));
  const { store } = await show(<FirstHour />, sessionOf(person));
  await screen.findByRole('link', { name: 'First job' });
  there = everything;
  store.dispatch(api.util.invalidateTags(['jobs']));
  await waitFor(() => expect(screen.queryByRole('region')).toBeNull());
  store.dispatch(api.util.invalidateTags(['jobs']));
  await new Promise((done) => setTimeout(done, 50));
  expect(screen.queryByRole('region')).toBeNull();
  expect(asked).toHaveLength(2);
});
