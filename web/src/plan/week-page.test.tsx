import { cleanup, fireEvent, screen, waitFor, within } from '@testing-library/react';
import { afterEach, beforeEach, describe, expect, it, vi } from 'vitest';
import type { Booked, Proposal } from '@lanternwright/contract/plan';
import { sessionOf } from '../people/testing/session.ts';
import { serveWith, show, type Answer } from '../testing/fake-server.tsx';
import { momentAt, placeOf, weekGrid } from './week-grid.ts';
import { LoadPage } from './load-page.tsx';
import { ProposalPage } from './proposal-page.tsx';
import { WeekPage } from './week-page.tsx';

beforeEach(() => void vi.setSystemTime(new Date('2026-11-26T10:00:00Z')));
afterEach(() => {
  cleanup();
  vi.unstubAllGlobals();
  vi.useRealTimers();
});

class NoResize {
  observe = () => undefined;
  unobserve = () => undefined;
  disconnect = () => undefined;
}
const id = (n: number) => `00000000-0000-4000-8000-0000000000${n}`;
const unit = (n: number) => ({
  ...{ id: id(n), name: `Tern ${n}`, kind: 'tractor' as const },
  owner: { id: id(90), name: 'Tern & Hollow Haulage' },
});
const booked: Booked = {
  ...{ id: id(30), version: 4, locked: false, bayId: 'b1', people: [], tools: [], names: [], note: '' },
  ...{ works: [], cameAt: null, leftAt: null },
  ...{ from: '2026-11-27T08:00:00.000Z', until: '2026-11-27T12:00:00.000Z' },
  ...{ unitId: id(10), unit: unit(10), jobId: null, job: null },
};
const day = [
  { from: '08:00', until: '12:00' },
  { from: '13:00', until: '16:00' },
];
const week = [0, 1, 2, 3, 4, 5, 6].map((d) => (d < 5 ? day : []));
const people = [{ id: id(99), name: 'D. Achterberg' }];

function sessionHere() {
  const session = sessionOf({ id: id(1), name: 'I. Okonedo', login: 'okonedo', role: 'supervisor' });
  const bays = ['b1', 'b2'].map((b, i) => ({ id: b, name: `Bay ${i + 1}` }));
  return { ...session, shop: { ...session.shop, zone: 'UTC', bays, week } };
}

async function open(answer: Answer = () => ({ body: { id: id(30) } })) {
  const asked = serveWith((one) => {
    if (one.path.startsWith('/api/plan/bookings?')) return { body: [booked] };
    if (one.path.startsWith('/api/plan/absences?')) return { body: [] };
    if (one.path === '/api/plan/floor')
      return { body: { bookings: [], jobs: [], units: [], doubted: [], people } };
    if (one.path === '/api/fleet/owners') return { body: [{ id: id(90), name: 'Tern & Hollow Haulage' }] };
    if (one.path === '/api/tools') return { body: [] };
    if (one.path.startsWith('/api/find?'))
      return { body: { units: [{ ...unit(11), plate: 'TH 11', owner: 'Tern & Hollow Haulage' }], jobs: [] } };
    if (one.path === '/api/plan/calendars' && one.method === 'GET') return { body: [] };
    return answer(one);
  });
  const { user } = await show(<WeekPage />, sessionHere());
  await screen.findByRole('button', { name: /^Tern 10, / });
  return { asked, user };
}

/** Picks the booking up by keyboard, presses the keys, and puts it down. */
async function byKeys(...codes: string[]) {
  const block = screen.getByRole('button', { name: /^Tern 10, / });
  block.focus();
  fireEvent.keyDown(block, { code: 'Space' });
  await new Promise((resolve) => setTimeout(resolve, 30));
  for (const code of [...codes, 'Space']) {
    fireEvent.keyDown(document, { code });
    await new Promise((resolve) => setTimeout(resolve, 30));
  }
}

describe('a week by the hour', () => {
  it('stands from the first to the last hour of work, and back', () => {
    const grid = weekGrid('2026-11-23', { week });
    expect(grid).toMatchObject({ open: 480, close: 960 });
    expect(grid.days).toEqual(['2026-11-23', '2026-11-24', '2026-11-25', '2026-11-26', '2026-11-27']);
    for (const iso of ['2026-11-23T08:00:00.000Z', '2026-11-25T13:30:00.000Z', '2026-11-27T15:30:00.000Z'])
      expect(momentAt(grid, placeOf(grid, iso))).toBe(iso);
    expect(placeOf(grid, '2026-11-24T20:00:00Z')).toBe(2);
    expect(placeOf(grid, '2026-11-29T20:00:00Z')).toBe(5);
    expect(momentAt(grid, -3)).toBe('2026-11-23T08:00:00.000Z');
    expect(momentAt(grid, 99)).toBe('2026-11-27T15:30:00.000Z');
    expect(weekGrid('2026-11-23', { week: week.map(() => []) }).days).toHaveLength(5);
  });

  it('a booking is moved by keyboard, keeps its hours of work, and says where it is', async () => {
    const { asked, user } = await open();
    await byKeys('ArrowRight', 'ArrowRight', 'ArrowDown');
    await waitFor(() => expect(asked.some((a) => a.method === 'PUT')).toBe(true));
    expect(asked.find((a) => a.method === 'PUT')).toMatchObject({
      path: `/api/plan/bookings/${id(30)}`,
      // Nine to twelve is three hours, and one more after the break.
      body: {
        seenVersion: 4,
        bayId: 'b2',
        from: '2026-11-27T09:00:00.000Z',
        until: '2026-11-27T14:00:00.000Z',
      },
    });
    expect(await screen.findByText(/Tern 10 is in Bay 2 from .*09:00/)).toBeTruthy();
    // Undone, it stands where it stood; what somebody else did to it since would be in the way.
    await user.click(screen.getByRole('button', { name: 'Undo' }));
    expect(await screen.findByText(/Tern 10 is in Bay 1 from/)).toBeTruthy();
    const { from, until } = booked;
    expect(asked.filter((a) => a.method === 'PUT')[1]!.body).toMatchObject({
      ...{ seenVersion: 5, bayId: 'b1', from, until },
    });
    expect(screen.queryByRole('button', { name: 'Undo' })).toBeNull();
  });

  it('what is in the way is said in words, and Escape moves nothing', async () => {
    const words = 'Bay 2 has Tern 11 from 27 Nov 2026, 08:00 to 27 Nov 2026, 12:00';
    const { asked } = await open(() => ({ status: 409, body: { status: 409, detail: words } }));
    await byKeys('ArrowDown', 'Escape');
    expect(asked.some((a) => a.method === 'PUT')).toBe(false);
    await byKeys('ArrowDown');
    expect(await screen.findByText(words)).toBeTruthy();
  });

  it('a calendar’s address is shown once, to be copied', async () => {
    const { asked, user } = await open(() => ({
      body: { id: id(70), address: '/api/calendars/s3cret.ics' },
    }));
    const part = screen.getByRole('region', { name: 'Calendars' });
    const button = within(part).getByRole<HTMLButtonElement>('button', { name: 'Make its address' });
    expect(button.disabled).toBe(true);
    await user.selectOptions(within(part).getByLabelText('Whose'), 'Bay 2');
    await user.click(button);
    expect(await within(part).findByText(/\/api\/calendars\/s3cret\.ics$/)).toBeTruthy();
    expect(asked.find((a) => a.method === 'POST')!.body).toEqual({ what: 'bay', of: 'b2' });
  });

  it('somebody is away only when who, when and why are said', async () => {
    const { asked, user } = await open();
    await user.click(screen.getByRole('button', { name: 'Add an absence' }));
    await user.click(screen.getByRole('button', { name: 'Record the absence' }));
    for (const words of ['Choose who or what', 'Enter the first day', 'Enter the last day', 'Enter a reason'])
      expect(await screen.findByText(words)).toBeTruthy();
    expect(asked.some((a) => a.method === 'POST')).toBe(false);
    await user.selectOptions(screen.getByLabelText('Who or what'), 'D. Achterberg');
    await user.type(screen.getByLabelText('First day'), '2026-11-27');
    await user.type(screen.getByLabelText('Last day'), '2026-11-28');
    await user.type(screen.getByLabelText('Why'), 'Ill');
    await user.click(screen.getByRole('button', { name: 'Record the absence' }));
    await waitFor(() => expect(asked.find((a) => a.method === 'POST')).toBeTruthy());
    expect(asked.find((a) => a.method === 'POST')!.body).toEqual({
      ...{ what: 'person', of: id(99), why: 'Ill' },
      ...{ from: '2026-11-27T00:00:00.000Z', until: '2026-11-29T00:00:00.000Z' },
    });
  });
});

describe('a unit that cannot come', () => {
  it('is found by part of its name; without one nothing is written', async () => {
    vi.stubGlobal('ResizeObserver', NoResize);
    const { asked, user } = await open();
    await user.click(screen.getByRole('button', { name: 'Add an absence' }));
    await user.selectOptions(screen.getByLabelText('Who or what'), 'A unit that cannot come');
    await user.type(screen.getByLabelText('First day'), '2026-11-27');
    await user.type(screen.getByLabelText('Last day'), '2026-11-27');
    await user.type(screen.getByLabelText('Why'), 'On the road');
    await user.click(screen.getByRole('button', { name: 'Record the absence' }));
    expect(await screen.findByText('Choose the unit')).toBeTruthy();
    await user.type(screen.getByLabelText('Which unit'), 'tern 1');
    await user.click(await screen.findByRole('option', { name: /^Tern 11/ }));
    await user.click(screen.getByRole('button', { name: 'Record the absence' }));
    await waitFor(() => expect(asked.find((a) => a.method === 'POST')).toBeTruthy());
    expect(asked.find((a) => a.method === 'POST')!.body).toMatchObject({
      ...{ what: 'unit', of: id(11), why: 'On the road' },
      ...{ from: '2026-11-27T00:00:00.000Z', until: '2026-11-28T00:00:00.000Z' },
    });
  });
});

describe('a proposal', () => {
  /** Nothing else is booked, and nobody is away. */
  const besideProposal = (path: string) =>
    /^\/api\/plan\/(bookings|absences)\?/.test(path) ? { body: [] as object[] } : undefined;
  const row = (n: number, lateDays: number) => ({
    ...{
      unit: unit(n),
      jobId: null,
      bookingId: null,
      seenVersion: null,
      tools: [],
      was: null,
      what: 'seal 2L',
    },
    to: {
      ...{ bayId: 'b1', people: [id(99)], names: ['D. Achterberg'] },
      ...{ from: `2026-11-${n}T08:00:00.000Z`, until: `2026-11-${n}T12:00:00.000Z` },
    },
    ...{
      because: 'No technician is on shift earlier.',
      hours: { low: 3, usual: 4, high: 6, measured: 7 },
      lateDays,
    },
  });
  const ready: Proposal = {
    ...{ id: id(50), kind: 'propose', askedAt: '2026-11-26T10:00:00.000Z', state: 'ready', done: 1 },
    result: {
      rows: [row(27, 0), row(28, 2)],
      unplaced: [{ unit: unit(29), why: 'It finds no time.' }],
      ...{ gap: 0.031, visitsSaved: 3 },
    },
  };

  it('explains each visit, has nothing chosen, and books what was chosen', async () => {
    const asked = serveWith((one) => {
      if (one.method === 'POST') return { body: { booked: 1 } };
      return besideProposal(one.path) ?? { body: ready };
    });
    const { user } = await show(<ProposalPage />, sessionHere());
    const main = await screen.findByText(/Two visits|2 visits, 1 of them late/);
    expect(main.textContent).toMatch(/At most 3.1 % could still be gained. Combining work saves 3 visits/);
    expect(screen.getAllByText('No technician is on shift earlier.')).toHaveLength(2);
    expect(screen.getByText(/2 days late/)).toBeTruthy();
    expect(screen.getByText(/It finds no time/)).toBeTruthy();
    const boxes = screen.getAllByRole<HTMLInputElement>('checkbox');
    expect(boxes.some((b) => b.checked)).toBe(false);
    const waits = screen.getByRole<HTMLButtonElement>('button', { name: 'Choose what to accept' });
    expect(waits.disabled).toBe(true);
    await user.click(boxes[1]!);
    await user.click(screen.getByRole('button', { name: 'Book one unit' }));
    await waitFor(() => expect(asked.find((a) => a.method === 'POST')?.body).toEqual({ units: [id(28)] }));
  });

  it('is seen in the bays, week by week, before against after, and is accepted there', async () => {
    const was = { ...row(27, 0).to, from: booked.from, until: booked.until, names: [] };
    const moved = { ...row(10, 0), unit: unit(10), bookingId: id(30), seenVersion: 4, was };
    const to = {
      ...{ bayId: 'b2', people: [], names: [] },
      ...{ from: '2026-12-01T08:00:00.000Z', until: '2026-12-01T08:30:00.000Z' },
    };
    const proposal: Proposal = {
      ...{ ...ready, kind: 'mend' as const },
      result: { ...ready.result!, rows: [{ ...moved, to }, row(28, 2)], unplaced: [] },
    };
    const other = { ...booked, id: id(31), unit: unit(12), bayId: 'b2' };
    const asked = serveWith((one) => {
      if (one.method === 'POST') return { body: { booked: 1 } };
      if (one.path.startsWith('/api/plan/bookings?')) return { body: [booked, other] };
      return besideProposal(one.path) ?? { body: proposal };
    });
    const { user } = await show(<ProposalPage />, sessionHere());
    const bays = within(await screen.findByRole('region', { name: 'In the bays' }));
    const inBay = (name: string) => within(bays.getByRole('listitem', { name }));
    // The first week: what stays, and where the one that moves stood; not twice.
    expect(await inBay('Bay 2').findByTitle(/^Tern 12, booked/)).toBeTruthy();
    expect(inBay('Bay 1').getByTitle(/^Tern 10, before/)).toBeTruthy();
    expect(bays.queryByTitle(/^Tern 10, booked/)).toBeNull();
    expect(bays.getByText('1 of 2 visits in this week')).toBeTruthy();
    expect(bays.getByRole<HTMLButtonElement>('button', { name: 'Previous week' }).disabled).toBe(true);
    await user.click(bays.getByRole('button', { name: 'Next week' }));
    const after = inBay('Bay 2').getByRole('button', { name: /^Tern 10/ });
    expect(after.getAttribute('aria-pressed')).toBe('false');
    await user.click(after);
    expect(after.getAttribute('aria-pressed')).toBe('true');
    expect(screen.getAllByRole<HTMLInputElement>('checkbox').map((b) => b.checked)).toEqual([true, false]);
    await user.click(screen.getByRole('button', { name: 'Move one booking' }));
    await waitFor(() => expect(asked.find((a) => a.method === 'POST')?.body).toEqual({ units: [id(30)] }));
  });

  it('shows how far it is, and can be stopped', async () => {
    const asked = serveWith((one) =>
      one.method === 'POST'
        ? { body: { id: id(50) } }
        : { body: { ...ready, state: 'running', done: 0.4, result: null } },
    );
    const { user } = await show(<ProposalPage />, sessionHere());
    const part = await screen.findByRole('region', { name: 'How far it is' });
    expect(within(part).getByRole<HTMLProgressElement>('progressbar').value).toBeCloseTo(0.4);
    await user.click(within(part).getByRole('button', { name: 'Stop it' }));
    expect(asked.some((a) => a.method === 'POST' && a.path.endsWith('/stop'))).toBe(true);
  });
});

describe('the load of the weeks', () => {
  it('says in how many weeks hours may not do, and in which, also to whoever sees no chart', async () => {
    vi.stubGlobal('ResizeObserver', NoResize);
    const due = { low: 10, usual: 20, high: 30.06 };
    serveWith(() => ({
      body: [
        { monday: '2026-11-23', capacity: 40, booked: 12, due },
        { monday: '2026-11-30', capacity: 40, booked: 0, due },
      ],
    }));
    await show(<LoadPage />, sessionHere());
    expect(await screen.findByText('Hours may not do in one week of twelve')).toBeTruthy();
    const rows = screen.getAllByRole('row').map((r) => r.textContent);
    expect(rows[1]).toBe('23 Nov40 h12 h20 h22 to 42.1 h');
    expect(rows[2]).toBe('30 Nov40 h0 h20 h10 to 30.1 h');
  });
});
