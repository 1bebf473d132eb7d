import { cleanup, screen, within } from '@testing-library/react';
import { afterEach, beforeEach, describe, expect, it, vi } from 'vitest';
import type { Floor } from '@lanternwright/contract/plan';
import type { Shortage } from '@lanternwright/contract/stores';
import { sessionOf } from '../people/testing/session.ts';
import { serveWith, show, type Answer } from '../testing/fake-server.tsx';
import { FloorPage } from './floor-page.tsx';
import { YardPage } from './yard-page.tsx';

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
const booking = (n: number, bayId: string, from: string, until: string, more: object = {}) => ({
  ...{ works: [], cameAt: from < '2026-11-26T10' ? from : null, leftAt: null },
  ...{ id: `00000000-0000-4000-8000-00000000003${n}`, version: 3, bayId, from, until, note: '' },
  ...{ unitId: unit(n).id, jobId: job(n).id, people: [], names: [], unit: unit(n) },
  job: { id: job(n).id, number: n, title: 'Drive seals' },
  ...more,
});
const works = [{ position: '2L', work: 'seal' }];
const notSaid = { cameAt: null, jobId: null, job: null, works };
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
  missed: [],
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
  more: object = {},
) {
  const asked = serveWith((one) => {
    if (one.path === '/api/plan/floor') return { body: { ...floor, jobs, ...more } };
    if (one.path.startsWith('/api/plan/due'))
      return { body: { total: 0, overdue: 0, withoutIntervals: 0, rows: [] } };
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
    for (const words of ['Enter the date', 'Enter the time'])
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
      path: `/api/plan/bookings/${floor.bookings[0]!.id}/where`,
      body: { seenVersion: 3, what: 'end' },
    });
  });

  it('takes nobody for arrived by the clock: somebody says that it is here, or did not come', async () => {
    const late = booking(5, 'b3', '2026-11-26T09:00:00.000Z', '2026-11-26T09:30:00.000Z', notSaid);
    const { asked, user } = await open(undefined, undefined, undefined, {
      bookings: [...floor.bookings, late],
    });
    const bay = within(lane('Bay 3'));
    expect((await bay.findByText('Expected since 09:00')).textContent).toMatch(/Renew seals 2L/);
    expect(bay.queryByText('Free')).toBeNull();
    expect(screen.getByText(/1 working, 1 expected, 2 free/)).toBeTruthy();
    await user.click(bay.getByRole('button', { name: 'It did not come' }));
    await user.click(bay.getByRole('button', { name: 'It is here' }));
    expect(asked.filter((a) => a.method === 'POST').map((a) => [a.path, a.body])).toEqual([
      [`/api/plan/bookings/${late.id}/where`, { seenVersion: 3, what: 'miss' }],
      [`/api/plan/bookings/${late.id}/where`, { seenVersion: 3, what: 'come' }],
    ]);
  });

  it('keeps what has not left in its bay, however late; beside it stands who is expected next', async () => {
    const overdue = booking(1, 'b1', '2026-11-25T08:00:00.000Z', '2026-11-26T09:00:00.000Z');
    const next = booking(5, 'b1', '2026-11-26T09:30:00.000Z', '2026-11-26T12:00:00.000Z', notSaid);
    await open(undefined, undefined, undefined, { bookings: [overdue, next] });
    const bay = within(lane('Bay 1'));
    expect(bay.getByText('booked until 09:00')).toBeTruthy();
    expect(bay.getByText(/2L verify, loose/)).toBeTruthy();
    expect(await bay.findByText('Expected since 09:30')).toBeTruthy();
  });

  it('shows both where two are said to stand in one bay, and lets the first leave', async () => {
    const overdue = booking(1, 'b1', '2026-11-25T08:00:00.000Z', '2026-11-26T09:00:00.000Z');
    const second = booking(5, 'b1', '2026-11-26T09:30:00.000Z', '2026-11-26T12:00:00.000Z', {
      ...notSaid,
      cameAt: '2026-11-26T09:40:00.000Z',
    });
    const { asked, user } = await open(undefined, undefined, undefined, { bookings: [overdue, second] });
    const bay = within(lane('Bay 1'));
    expect(bay.getByText('since 09:40')).toBeTruthy();
    expect(await bay.findByText('Not marked as left. Booked until 09:00')).toBeTruthy();
    await user.click(bay.getByRole('button', { name: 'Tern 1 has left' }));
    expect(asked.find((a) => a.method === 'POST')).toMatchObject({
      path: `/api/plan/bookings/${overdue.id}/where`,
      body: { what: 'end' },
    });
  });

  it('leads from what is here to its job, with what it was booked for', async () => {
    const here = booking(5, 'b3', '2026-11-26T09:00:00.000Z', '2026-11-26T12:00:00.000Z', {
      ...notSaid,
      cameAt: '2026-11-26T09:20:00.000Z',
    });
    await open(undefined, undefined, undefined, { bookings: [here] });
    expect(within(lane('Bay 3')).getByText('since 09:20')).toBeTruthy();
    const link = within(lane('Bay 3')).getByRole('link', { name: 'Open the job' });
    expect(link.getAttribute('href')).toBe(`/fleet/${unit(5).id}?job=2L.seal&booking=${here.id}`);
  });

  it('asks what becomes of a unit that did not come', async () => {
    const missed = booking(5, 'b3', '2026-11-25T09:00:00.000Z', '2026-11-25T12:00:00.000Z', notSaid);
    const { asked, user } = await open(() => ({ body: { id: unit(5).id } }), undefined, undefined, {
      missed: [missed],
    });
    const decide = screen.getByRole('region', { name: 'Decide' });
    expect(await within(decide).findByText(/Was booked for Wed 25 Nov, 09:00. Renew seals 2L/)).toBeTruthy();
    await user.click(within(decide).getByRole('button', { name: 'Book again' }));
    const form = await screen.findByRole('dialog');
    const set = async (label: string, text: string) => {
      await user.clear(within(form).getByLabelText(label));
      await user.type(within(form).getByLabelText(label), text);
    };
    await user.selectOptions(within(form).getByLabelText('Bay'), 'Bay 3');
    await set('From, day', '2026-11-27');
    await set('From, time', '09:00');
    await set('Until, time', '12:00');
    await user.click(within(form).getByRole('button', { name: 'Book Tern 5' }));
    expect(asked.find((a) => a.method === 'POST')!.body).toMatchObject({ jobId: null, works });
  });
});

describe('the yard', () => {
  it('lists who is here: bay, since when, work, until when, and what it waits for', async () => {
    const overdue = booking(1, 'b1', '2026-11-25T08:00:00.000Z', '2026-11-26T09:00:00.000Z');
    const early = booking(5, 'b3', '2026-11-26T15:00:00.000Z', '2026-11-26T17:00:00.000Z', {
      ...notSaid,
      cameAt: '2026-11-26T09:20:00.000Z',
    });
    serveWith(() => ({ body: { ...floor, bookings: [overdue, floor.bookings[1], early] } }));
    const session = sessionOf({ id: owner.id, name: 'I. Okonedo', login: 'okonedo', role: 'supervisor' });
    const bays = ['b1', 'b2', 'b3'].map((id, i) => ({ id, name: `Bay ${i + 1}` }));
    await show(<YardPage />, { ...session, shop: { ...session.shop, zone: 'UTC', bays } });
    const rowOf = async (name: string) =>
      (await screen.findByRole('row', { name: new RegExp(name) })).textContent;
    expect(await rowOf('Tern 1')).toMatch(/Bay 1.*Wed 25 Nov, 08:00.*Drive seals.*09:00/);
    expect(await rowOf('Tern 5')).toMatch(/Before Bay 3.*09:20.*Renew seals 2L.*17:00.*Its job to be opened/);
    expect(await rowOf('Tern 2')).toMatch(/No bay.*Not said.*Drive seals.*The release/);
    // Booked and not said to be here: it is not in the list.
    expect(screen.queryByText('Tern 3')).toBeNull();
    expect(screen.getByText(/^3 units/)).toBeTruthy();
  });
});
