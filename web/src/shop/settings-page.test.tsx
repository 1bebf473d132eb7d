import { cleanup, screen, waitFor, within } from '@testing-library/react';
import { afterEach, expect, it, vi } from 'vitest';
import { sessionOf } from '../people/testing/session.ts';
import { formatTime, setShopZone, shopToday } from '../shell/words.ts';
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

/** What the rest of the page asks for. */
const besides = (path: string) =>
  path === '/api/estimates/rates'
    ? rates
    : path === '/api/shop/morning'
      ? morning
      : path === '/api/plan/shifts'
        ? []
        : undefined;

const serveBackups = (backups: object) =>
  serveWith(({ path }) => ({
    body: besides(path) ?? backups,
  }));
const rates = { hour: null, suppliesPercent: 0, taxes: [], taxNumber: '', validDays: null };
const morning = { at: '06:30', to: [], mail: false, sentAt: null };

it('keeps what was set, all of it, and says beside a field why it is refused', async () => {
  let refuse = true;
  const asked = serveWith(({ path, body }) => {
    if (path === '/api/shop/backups') return { body: { kept: 14, made: [] } };
    const other = besides(path);
    if (other) return { body: other };
    return refuse ? refusedFor('name', 'two letters or more') : { body };
  });
  const { user } = await show(<SettingsPage />, sessionOf(sup));
  await user.clear(screen.getByLabelText('Name of the shop'));
  await user.type(screen.getByLabelText('Name of the shop'), 'M');
  await user.click(screen.getByRole('button', { name: 'Add a bay' }));
  await user.type(screen.getByLabelText('Name of bay 1'), 'Pit');
  await user.click(screen.getByRole('button', { name: 'Add a bay' }));
  await user.type(screen.getByLabelText('Name of bay 2'), 'Yard');
  await user.click(screen.getAllByRole('button', { name: 'Remove' })[0]!);
  await user.click(screen.getByRole('button', { name: 'Add hours on Monday' }));
  await user.type(screen.getByLabelText('Monday, from'), '07:30');
  await user.type(screen.getByLabelText('Monday, until'), '12:00');
  await user.click(screen.getByRole('button', { name: 'As Monday' }));
  await user.click(screen.getByRole('button', { name: 'Add a day' }));
  await user.type(screen.getByLabelText('Day 1'), '2026-12-25');
  await user.type(screen.getByLabelText('What day 1 is'), 'Christmas Day');
  await user.type(screen.getByLabelText(/Terms/), 'Due in 30 days');
  await user.selectOptions(screen.getByLabelText('Paper'), 'letter');
  await user.selectOptions(screen.getByLabelText('Time zone of the shop'), 'Pacific/Auckland');
  await user.click(screen.getByRole('button', { name: 'Save the settings' }));
  expect(await screen.findByText('two letters or more')).toBeTruthy();
  refuse = false;
  await user.type(screen.getByLabelText('Name of the shop'), 'arrowbank');
  await user.click(screen.getByRole('button', { name: 'Save the settings' }));
  await waitFor(() =>
    expect(asked.findLast((a) => a.method === 'PUT')?.body).toEqual({
      name: 'Marrowbank',
      address: '',
      terms: 'Due in 30 days',
      zone: 'Pacific/Auckland',
      units: sessionOf(sup).shop.units,
      currency: 'GBP',
      paper: 'letter',
      bays: [{ id: expect.any(String) as string, name: 'Yard' }],
      week: [0, 1, 2, 3, 4, 5, 6].map((day) => (day < 2 ? [{ from: '07:30', until: '12:00' }] : [])),
      holidays: [{ date: '2026-12-25', name: 'Christmas Day' }],
    }),
  );
});

it('says how old the last backup is, and that one was left out', async () => {
  const made = new Date(Date.now() - 75 * 3_600_000).toISOString();
  serveBackups({ kept: 14, made: [made] });
  await show(<SettingsPage />, sessionOf(sup));
  expect((await screen.findByText('3 days old')).closest('p')?.textContent).toMatch(/the newest 14 are kept/);
  expect(screen.getByText(/There is no backup of last night/)).toBeTruthy();
});

it('says that no backups are made', async () => {
  serveBackups({ kept: null, made: [] });
  await show(<SettingsPage />, sessionOf(sup));
  expect(await screen.findByText(/None are made by themselves/)).toBeTruthy();
});

it('the shop’s clock is that of its zone, wherever the device is', () => {
  setShopZone('Pacific/Kiritimati');
  vi.setSystemTime('2026-11-26T12:00:00Z');
  expect(formatTime('2026-11-26T12:00:00Z')).toBe('27 Nov, 02:00');
  expect(formatTime('2024-12-31T12:00:00Z')).toBe('1 Jan 2025, 02:00');
  expect(shopToday()).toBe('2026-11-27');
  setShopZone('UTC');
  expect(shopToday()).toBe('2026-11-26');
  vi.useRealTimers();
});

it('a person gets hours of their own, and is told where somebody was first; what was typed stays', async () => {
  const id = '00000000-0000-4000-8000-000000000099';
  const noon = [{ from: '08:00', until: '12:00' }];
  const shopWeek = [0, 1, 2, 3, 4, 5, 6].map((d) => (d < 5 ? noon : []));
  let week: unknown = null;
  let taken = true;
  const asked = serveWith(({ path, method, body }) => {
    if (path === '/api/shop/backups') return { body: { kept: 14, made: [] } };
    if (path !== '/api/plan/shifts' && besides(path)) return { body: besides(path) };
    if (method === 'GET') return { body: [{ id, name: 'D. Achterberg', week }] };
    if (taken) return { status: 409, body: { status: 409, title: 'Changed', detail: 'Somebody was first' } };
    week = (body as { week: unknown }).week;
    return { body: [{ id, name: 'D. Achterberg', week }] };
  });
  const session = sessionOf(sup);
  const { user } = await show(<SettingsPage />, { ...session, shop: { ...session.shop, week: shopWeek } });
  const part = within(await screen.findByRole('region', { name: 'Hours of one person' }));
  expect(part.getByText('Everybody works when the shop does.')).toBeTruthy();
  await user.selectOptions(part.getByLabelText('Whose'), 'D. Achterberg');
  const save = part.getByRole<HTMLButtonElement>('button', { name: 'Save the hours of D. Achterberg' });
  expect(save.disabled).toBe(true);
  await user.click(part.getByRole('button', { name: 'Hours of their own' }));
  await user.click(part.getByRole('button', { name: 'Remove Friday, part 1' }));
  await user.click(save);
  expect(await part.findByText(/Somebody was first/)).toBeTruthy();
  expect(part.queryByLabelText('Friday, from')).toBeNull();
  taken = false;
  await user.click(save);
  expect(await part.findByText('Other hours than the shop: D. Achterberg.')).toBeTruthy();
  expect(asked.findLast((a) => a.method === 'PUT')?.body).toEqual({
    week: shopWeek.map((d, i) => (i < 4 ? d : [])),
    seen: null,
  });
});
