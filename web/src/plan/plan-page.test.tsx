import { cleanup, screen, waitFor } from '@testing-library/react';
import { afterEach, expect, it, vi } from 'vitest';
import type { DueUnit } from '@lanternwright/contract/plan';
import { sessionOf } from '../people/testing/session.ts';
import { refusedFor, serveWith, show } from '../testing/fake-server.tsx';
import { PlanPage } from './plan-page.tsx';

afterEach(() => {
  cleanup();
  vi.unstubAllGlobals();
});

const id = (n: number) => `00000000-0000-4000-8000-0000000000${String(n).padStart(2, '0')}`;
const supervisor = sessionOf({ id: id(1), name: 'I. Okonedo', login: 'okonedo', role: 'supervisor' });
const owner = { id: id(2), name: 'Tern & Hollow Haulage' };
const due = (position: string, work: string, missing: string[]) => ({
  ...{ position, work, missing, lastOn: null, dueOn: null, earliest: null, latest: null },
  ...{ dueBy: null, shortened: [], state: 'unknown' },
});
const row = (n: number, ...of: ReturnType<typeof due>[]): DueUnit =>
  ({
    unit: { id: id(10 + n), name: `Tern ${n}`, kind: 'tractor', owner },
    ...{ dueOn: null, openJobId: null, bookedFrom: null, due: of },
  }) as unknown as DueUnit;
const rows = [
  row(1, due('1L', 'seal', ['last']), due('1R', 'repack', ['last'])),
  row(2, due('1L', 'seal', ['last'])),
  row(3, due('1L', 'check', ['distance'])),
];

function open(
  at: string,
  unknown: readonly DueUnit[],
  more: { refuse?: () => boolean; withoutIntervals?: number } = {},
) {
  const { refuse, withoutIntervals = 0 } = more;
  const asked = serveWith((one) => {
    if (one.path === '/api/fleet/services')
      return refuse?.()
        ? refusedFor('date', 'This day is still to come')
        : { body: { wheelEnds: 3, units: 2 } };
    if (one.path.startsWith('/api/plan/due')) {
      const shown = one.path.includes('state=unknown') ? unknown : [];
      return { body: { total: shown.length, overdue: 0, withoutIntervals, rows: shown } };
    }
    return { body: one.path === '/api/plan/floor' ? { people: [] } : [] };
  });
  return show(<PlanPage />, supervisor, at).then(({ user }) => ({ user, asked }));
}

it('says that nothing is known to be due where nobody knows what was done last, and leads there', async () => {
  const { user } = await open('/plan', rows);
  expect(await screen.findByText('Nothing is known to be due.')).toBeTruthy();
  expect(screen.getByText('For 3 units the last service is unknown.')).toBeTruthy();
  await user.click(screen.getByRole('button', { name: 'Show what is unknown' }));
  expect(await screen.findByRole('checkbox', { name: /Tern 1/ })).toBeTruthy();
  // What its meters do not tell is no date that somebody could enter.
  expect(screen.queryByRole('checkbox', { name: /Tern 3/ })).toBeNull();
});

it('says that nothing is due only where all of it is known', async () => {
  await open('/plan', []);
  expect(await screen.findByText('Nothing is due.')).toBeTruthy();
  cleanup();
  await open('/plan', [], { withoutIntervals: 1 });
  expect(await screen.findByText('Nothing is known to be due.')).toBeTruthy();
  expect(screen.getByText('For one unit no sheet says how often work is wanted.')).toBeTruthy();
});

it('saves one date for many units; nothing is chosen before, and a refusal keeps what was entered', async () => {
  let refuse = true;
  const { user, asked } = await open('/plan?state=unknown', rows, { refuse: () => refuse });
  await user.click(await screen.findByRole('button', { name: 'Choose all on this page' }));
  await user.click(screen.getByRole('button', { name: 'Save for 2 units' }));
  expect(await screen.findByText('Choose what was done')).toBeTruthy();
  await user.click(screen.getByRole('checkbox', { name: 'Seal, renew' }));
  await user.type(screen.getByLabelText('Done on, for all of them'), '2026-01-15');
  await user.click(screen.getByRole('button', { name: 'Save for 2 units' }));
  expect(await screen.findByText('This day is still to come')).toBeTruthy();
  refuse = false;
  await user.click(screen.getByRole('button', { name: 'Save for 2 units' }));
  expect(await screen.findByText('Saved for 3 wheel ends of 2 units.')).toBeTruthy();
  await waitFor(() =>
    expect(asked.filter((a) => a.method === 'POST').at(-1)?.body).toEqual({
      ...{ unitIds: [id(11), id(12)], date: '2026-01-15', works: ['seal'] },
    }),
  );
});
