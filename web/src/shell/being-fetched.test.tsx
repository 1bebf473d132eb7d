import { act, cleanup, screen, waitFor } from '@testing-library/react';
import { afterEach, expect, it, vi } from 'vitest';
import { sheetsApi } from '../sheets/sheets-api.ts';
import { sessionOf } from '../people/testing/session.ts';
import { serveWith, show } from '../testing/fake-server.tsx';
import { BeingFetched } from './being-fetched.tsx';

afterEach(() => {
  cleanup();
  vi.unstubAllGlobals();
});

const person = { id: '00000000-0000-4000-8000-000000000001', name: 'I. Okonedo', login: 'okonedo' };

it('is said of what is not there yet, and not while something is fetched once more', async () => {
  serveWith(() => ({ body: [] }));
  const { store } = await show(<BeingFetched />, sessionOf({ ...person, role: 'supervisor' }));
  expect(screen.queryByRole('progressbar')).toBeNull();
  const asked = store.dispatch(sheetsApi.endpoints.sheets.initiate());
  expect(await screen.findByRole('progressbar', { name: 'Being fetched' })).toBeTruthy();
  await asked;
  await waitFor(() => expect(screen.queryByRole('progressbar')).toBeNull());
  vi.stubGlobal('fetch', () => new Promise(() => undefined));
  await act(async () => void asked.refetch());
  expect(sheetsApi.endpoints.sheets.select()(store.getState()).status).toBe('pending');
  expect(screen.queryByRole('progressbar')).toBeNull();
});
