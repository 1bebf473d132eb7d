import { cleanup, screen, within } from '@testing-library/react';
import { afterEach, beforeEach, describe, expect, it, vi } from 'vitest';
import type { Floor } from '@lanternwright/contract/plan';
import type { Shortage } from '@lanternwright/contract/stores';
import { sessionOf } from '../people/testing/session.ts';
import { serveWith, show, type Answer } from '../testing/fake-server.tsx';
import { FloorPage } from './floor-page.tsx';

beforeEach(() => void vi.setSystemTime(new Date('2026-11-26T10:00:00Z')));
afterEach(() => {
  cleanup();
  vi.unstubAllGlobals();
  vi.useRealTimers();
});

const owner = { id: '00000000-0000-4000-8000-000000000001', name: 'Tern & Hollow Haulage' };
const unit = (n: number) => ({
  id: `00000000-0000-4000-8000-00000000001${n}`,
  name: `Tern ${n}`,
  kind: 'tractor' as const,
  owner,
});
const job = (n: number, more: object = {}) => ({
  id: `00000000-0000-4000-8000-00000000002${n}`,
  number: n,
  title: 'Drive seals',
  openedAt: '2026-11-26T07:00:00.000Z',
  closedAt: null,
  stopped: null,
  estimate: 'none' as const,
  unit: unit(n),
  wheelEnds: [
    {
      ...{ position: '2L', stage: 'verify', released: false, waitsForRelease: false, trouble: 'loose' },
      ...{ who: 'D. Achterberg', asks: [], lacks: [], cures: false },
      ...more,
    },
  ],
});
const booking = (n: number, bayId: string, from: string, until: string) => ({
  ...{ id: `00000000-0000-4000-8000-00000000003${n}`, version: 3, bayId, from, until, note: '' },
  ...{ unitId: unit(n).id, jobId: job(n).id, people: [], names: [], unit: unit(n) },
  job: { id: job(n).id, number: n, title: 'Drive seals' },
});
const floor = {
  bookings: [
    booking(1, 'b1', '2026-11-26T08:00:00.000Z', '2026-11-26T12:00:00.000Z'),
    booking(3, 'b2', '2026-11-26T13:00:00.000Z', '2026-11-26T15:00:00.000Z'),
  ],
  jobs: [job(1), job(2, { trouble: null, waitsForRelease: true })],
  moreJobs: false,
  units: [],
  doubted: [{ unit: unit(4), date: '2026-11-20', km: 12, hours: null }],
  apart: [],
  people: [{ id: '00000000-0000-4000-8000-000000000099', name: 'D. Achterberg' }],
} as unknown as Floor;

const seal = {
  ...{ id: owner.id, kind: 'seal' as const, title: 'Hub seal', number: '47-2210', onHand: 1, reserved: 0 },
  ...{ places: [], reorderLevel: null, supersededBy: null },
};
const short: Shortage[] = [
  {
    ...{ part: seal, leadDays: 6, shortOn: '2026-12-05', first: 'Tern 1', missing: 2, orderBy: '2026-11-29' },
    ...{ late: false, onOrder: [], demands: [], holdsUp: [] },
  },
];

async function open(
  answer: Answer = () => ({ body: {} }),
  jobs: readonly object[] = floor.jobs,
  shortages = short,
) {
  const asked = serveWith((one) => {
    if (one.path === '/api/plan/floor') return { body: { ...floor, jobs } };
    if (one.path.startsWith('/api/plan/due')) return { body: { total: 0, overdue: 0, rows: [] } };
    if (one.path.startsWith('/api/jobs/follow-ups')) return { body: { total: 0, overdue: 0, rows: [] } };
    if (one.path === '/api/stores/shortages') return { body: shortages };
    return one.path === '/api/tools' ? { body: [] } : answer(one);
  });
  const session = sessionOf({ id: owner.id, name: 'I. Okonedo', login: 'okonedo', role: 'supervisor' });
  const bays = ['b1', 'b2', 'b3'].map((id, i) => ({ id, name: `Bay ${i + 1}` }));
  const { user } = await show(<FloorPage />, { ...session, shop: { ...session.shop, zone: 'UTC', bays } });
  await screen.findByRole('heading', { name: 'Thursday, three bays' });
  return { asked, user };
}
const lane = (name: string) => screen.getByRole('heading', { name }).closest('li')!;

describe('the floor', () => {
  it('says which parts will be short, and until when to order them', async () => {
    await open();
    const part = await screen.findByRole('region', { name: 'Parts short' });
    expect(within(part).getByText('47-2210, 2 short from 5 Dec 2026')).toBeTruthy();
    expect(within(part).getByText(/Hub seal; order by 29 Nov 2026/)).toBeTruthy();
  });

  it('moves a job that a late order holds up to Decide, and leads to its parts', async () => {
    const order = { orderId: owner.id, orderNumber: 12, quantity: 2, expected: '2026-11-24', late: true };
    const heldUp = { jobId: floor.jobs[0]!.id, unit: 'Tern 1', date: '2026-12-05' };
    await open(undefined, undefined, [{ ...short[0]!, onOrder: [order], holdsUp: [heldUp] }]);
    const decide = screen.getByRole('region', { name: 'Decide' });
    const line = await within(decide).findByRole('link', { name: /Late part, Tern 1/ });
    expect(line.textContent).toMatch(/47-2210 of order 12 was promised for 24 Nov 2026/);
    expect(line.getAttribute('href')).toBe(`/jobs/${heldUp.jobId}?parts=`);
  });

  it('says what a lane waits for: a part with its day, or a sealant', async () => {
    const lacks = [{ title: 'Wheel seal', by: '2026-12-03' }];
    await open(undefined, [job(1, { trouble: null, lacks }), job(2, { trouble: null, cures: true })]);
    expect(within(lane('Bay 1')).getByText(/waits for wheel seal, due 3 Dec 2026/)).toBeTruthy();
    expect(
      within(screen.getByRole('region', { name: 'Open jobs without a bay' })).getByText(/sealant cures/),
    ).toBeTruthy();
    expect(screen.getByText(/0 working, 1 waiting/)).toBeTruthy();
  });

  it('says of each bay what stands in it, or until when it is free', async () => {
    await open();
    expect(within(lane('Bay 1')).getByText(/2L verify, loose/)).toBeTruthy();
    expect(within(lane('Bay 1')).getByText('since 08:00')).toBeTruthy();
    expect(within(lane('Bay 2')).getByText('Free until 13:00, then Tern 3')).toBeTruthy();
    expect(within(lane('Bay 3')).getByText('Free')).toBeTruthy();
    expect(screen.getByText('1 working, 2 free. 1 wheel end is out of band.')).toBeTruthy();
    const inNone = screen.getByRole('region', { name: 'Open jobs without a bay' });
    expect(within(inNone).getByText('Tern 2')).toBeTruthy();
    const decide = screen.getByRole('region', { name: 'Decide' });
    expect(within(decide).getByText('Tern 2, 2L').closest('a')!.getAttribute('href')).toBe(
      `/jobs/${job(2).id}/release`,
    );
    expect(within(decide).getByText(/12 km on 20 Nov 2026 does not fit/)).toBeTruthy();
  });

  it('books nothing that was not said, and says what is in the way', async () => {
    const words = 'Bay 3 has Heather 5 from 26 Nov 2026, 11:00 to 26 Nov 2026, 13:00';
    const { asked, user } = await open(() => ({
      status: 409,
      body: { status: 409, detail: words, issues: [{ path: 'bayId', message: words }] },
    }));
    await user.click(within(lane('Bay 3')).getByRole('button', { name: 'Assign a unit' }));
    await user.click(screen.getByRole('button', { name: 'Tern 2' }));
    const form = await screen.findByRole('dialog');
    await user.click(within(form).getByRole('button', { name: 'Book Tern 2' }));
    for (const words of ['Say the day', 'Say the time'])
      expect(await within(form).findAllByText(words)).toHaveLength(2);
    expect(asked.filter((a) => a.method === 'POST')).toHaveLength(0);
    const type = async (label: string, text: string) => {
      await user.clear(within(form).getByLabelText(label));
      await user.type(within(form).getByLabelText(label), text);
    };
    await type('From, day', '2026-11-26');
    await type('From, time', '11:00');
    await type('Until, time', '12:30');
    await user.click(within(form).getByRole('checkbox', { name: 'D. Achterberg' }));
    await user.click(within(form).getByRole('button', { name: 'Book Tern 2' }));
    expect(await within(form).findByText(words)).toBeTruthy();
    expect(asked.find((a) => a.method === 'POST')!.body).toMatchObject({
      ...{ unitId: unit(2).id, jobId: job(2).id, bayId: 'b3' },
      ...{ from: '2026-11-26T11:00:00.000Z', until: '2026-11-26T12:30:00.000Z' },
      people: [floor.people[0]!.id],
    });
    // What was typed is still there.
    expect(within(form).getByLabelText<HTMLInputElement>('From, time').value).toBe('11:00');
  });

  it('takes a booking back only with why', async () => {
    const { asked, user } = await open(() => ({ body: { id: unit(3).id } }));
    const coming = screen.getByRole('region', { name: 'Arriving' });
    await user.click(await within(coming).findByRole('button', { name: 'Move' }));
    const form = await screen.findByRole('dialog');
    expect(within(form).getByLabelText<HTMLInputElement>('From, time').value).toBe('13:00');
    await user.click(within(form).getByRole('button', { name: 'It is not wanted any more' }));
    await user.type(within(form).getByLabelText('Why'), 'The owner keeps it');
    await user.click(within(form).getByRole('button', { name: 'Take the booking of Tern 3 back' }));
    expect(asked.find((a) => a.method === 'POST')).toMatchObject({
      path: `/api/plan/bookings/${floor.bookings[1]!.id}/cancel`,
      body: { seenVersion: 3, reason: 'The owner keeps it' },
    });
  });

  it('lets a unit leave with one tap, by the version that was seen', async () => {
    const { asked, user } = await open();
    await user.click(within(lane('Bay 1')).getByRole('button', { name: 'Unit has left Bay 1' }));
    expect(asked.find((a) => a.method === 'POST')).toMatchObject({
      path: `/api/plan/bookings/${floor.bookings[0]!.id}/end`,
      body: { seenVersion: 3 },
    });
  });
});
