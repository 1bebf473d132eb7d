import { cleanup, screen, waitFor } from '@testing-library/react';
import { afterEach, expect, it, vi } from 'vitest';
import { sessionOf } from '../people/testing/session.ts';
import { sayTime, setShopZone, shopToday } from '../shell/words.ts';
import { refusedFor, serveWith, show } from '../testing/fake-server.tsx';
import { SettingsPage } from './settings-page.tsx';

afterEach(() => {
  cleanup();
  vi.unstubAllGlobals();
});

const sup = {
  id: '00000000-0000-4000-8000-000000000001',
  name: 'I. Okonedo',
  login: 'okonedo',
  role: 'supervisor' as const,
};

it('keeps what was set, all of it, and says beside a field why it is refused', async () => {
  let refuse = true;
  const asked = serveWith(({ path, body }) => {
    if (path === '/api/shop/backups') return { body: { kept: 14, made: [] } };
    return refuse ? refusedFor('name', 'two letters or more') : { body };
  });
  const { user } = await show(<SettingsPage />, sessionOf(sup));
  await user.clear(screen.getByLabelText('Name of the shop'));
  await user.type(screen.getByLabelText('Name of the shop'), 'M');
  await user.selectOptions(screen.getByLabelText('Paper'), 'letter');
  await user.selectOptions(screen.getByLabelText('The shop’s clock goes by'), 'Pacific/Auckland');
  await user.click(screen.getByRole('button', { name: 'Save the settings' }));
  expect(await screen.findByText('two letters or more')).toBeTruthy();
  refuse = false;
  await user.type(screen.getByLabelText('Name of the shop'), 'arrowbank');
  await user.click(screen.getByRole('button', { name: 'Save the settings' }));
  await waitFor(() =>
    expect(asked.findLast((a) => a.method === 'PUT')?.body).toEqual({
      name: 'Marrowbank',
      address: '',
      zone: 'Pacific/Auckland',
      endPlayUnit: 'in',
      currency: 'GBP',
      paper: 'letter',
    }),
  );
});

it('says how old the last backup is, and that one was left out', async () => {
  const made = new Date(Date.now() - 75 * 3_600_000).toISOString();
  serveWith(() => ({ body: { kept: 14, made: [made] } }));
  await show(<SettingsPage />, sessionOf(sup));
  expect((await screen.findByText('3 days old')).closest('p')?.textContent).toMatch(/the newest 14 are kept/);
  expect(screen.getByText(/The last night was left out/)).toBeTruthy();
});

it('says that no backups are made', async () => {
  serveWith(() => ({ body: { kept: null, made: [] } }));
  await show(<SettingsPage />, sessionOf(sup));
  expect(await screen.findByText(/None are made by themselves/)).toBeTruthy();
});

it('the shop’s clock is that of its zone, wherever the device is', () => {
  setShopZone('Pacific/Kiritimati');
  expect(sayTime('2026-11-26T12:00:00Z')).toBe('27 Nov, 02:00');
  vi.setSystemTime('2026-11-26T12:00:00Z');
  expect(shopToday()).toBe('2026-11-27');
  setShopZone('UTC');
  expect(shopToday()).toBe('2026-11-26');
  vi.useRealTimers();
});
