import { cleanup, screen, waitFor } from '@testing-library/react';
import { afterEach, beforeEach, expect, it, vi } from 'vitest';
import type { UnitDetail } from '@lanternwright/contract/fleet';
import type { Proposal, ProposalResult, Proposed } from '@lanternwright/contract/plan';
import { layouts, positionsOf } from '@lanternwright/core/axle-plan';
import { promiseLink } from '../jobs/job-link.ts';
import { sessionOf } from '../people/testing/session.ts';
import { refusedFor, serveWith, show } from '../testing/fake-server.tsx';
import { PromisePage } from './promise-page.tsx';
import { ProposalPage } from './proposal-page.tsx';

beforeEach(() => vi.useFakeTimers({ toFake: ['Date'], now: new Date('2026-11-26T09:00:00Z') }));
afterEach(() => {
  cleanup();
  vi.useRealTimers();
  vi.unstubAllGlobals();
});

const id = '00000000-0000-4000-8000-000000000011';
const supervisor = sessionOf({ id, name: 'I. Okonedo', login: 'okonedo', role: 'supervisor' });
const axles = layouts
  .find((l) => l.id === 'tractor-2')!
  .axles.map((axle, i) => ({ ...axle, id: `00000000-0000-4000-8000-00000000002${i}`, number: i + 1 }));
const owner = { id, name: 'Tern & Hollow Haulage' };
const unit = {
  ...{ id, name: 'Tern 418', kind: 'tractor', owner, axles },
  wheelEnds: positionsOf(axles).map((position) => ({ position, state: 'in-band' })),
} as Partial<UnitDetail> as UnitDetail;

it('asks for what was chosen on both sides, by the day if one is named; a refusal keeps it all', async () => {
  const asked = serveWith((one) =>
    one.method === 'POST' ? refusedFor('promise.unitId', 'Tern 418 is booked already.') : { body: unit },
  );
  const { user } = await show(<PromisePage />, supervisor, promiseLink(id));
  await screen.findByRole('heading', { name: 'Find a time for Tern 418' });
  expect(screen.getByRole('button', { name: 'Choose wheel ends and work' })).toHaveProperty('disabled', true);
  await user.click(screen.getByRole('button', { name: '2L' }));
  await user.click(screen.getByRole('button', { name: 'Seal, renew' }));
  // The other side joins with the same work.
  await user.click(screen.getByRole('button', { name: '2R' }));
  await user.type(screen.getByLabelText('Finished by (optional)'), '2026-12-03');
  await user.click(screen.getByRole('button', { name: 'Find a time' }));
  expect(await screen.findByText('Tern 418 is booked already.')).toBeTruthy();
  expect(asked.find((a) => a.method === 'POST')?.body).toEqual({
    kind: 'promise',
    promise: {
      unitId: id,
      works: ['2L', '2R'].map((position) => ({ position, work: 'seal' })),
      by: '2026-12-03',
    },
  });
  expect(screen.getByRole('button', { name: '2R' }).getAttribute('aria-pressed')).toBe('true');
});

it('has chosen what a due line asks for', async () => {
  serveWith(() => ({ body: unit }));
  const works = [{ position: '1L', work: 'check' as const }];
  await show(<PromisePage />, supervisor, promiseLink(id, works));
  const work = await screen.findByRole('button', { name: 'Check only' });
  expect(work.getAttribute('aria-pressed')).toBe('true');
  expect(screen.getByRole('button', { name: '1R' }).getAttribute('aria-pressed')).toBe('false');
});

const row = (n: number, more: Partial<Proposed> = {}): Proposed => ({
  ...{ unit: { ...unit, id: id.replace(/..$/, String(n)), name: `Tern ${n}` }, jobId: null, bookingId: null },
  ...{ seenVersion: null, tools: [], was: null, what: 'Renew seals 2L, 2R', hours: null, lateDays: 0 },
  because: 'All technicians are busy until then.',
  to: {
    ...{ bayId: 'b1', people: [id], names: ['D. Achterberg'] },
    ...{ from: '2026-12-03T08:00:00.000Z', until: '2026-12-03T12:00:00.000Z' },
  },
  ...more,
});

async function answered(promise: NonNullable<ProposalResult['promise']>, rows: Proposed[]) {
  const proposal: Proposal = {
    ...{ id, kind: 'promise', askedAt: '2026-11-26T08:00:00.000Z', state: 'ready', done: 1 },
    result: { rows, unplaced: [], gap: null, visitsSaved: 0, promise },
  };
  const asked = serveWith((one) => ({ body: one.method === 'POST' ? { booked: 1 } : proposal }));
  const shown = await show(<ProposalPage />, supervisor);
  await screen.findByRole('heading', { name: 'A time that can be promised' });
  return { ...shown, asked };
}

it('says yes with what moves for it, and takes all of it by one button', async () => {
  const moved = row(52, { bookingId: id.replace(/..$/, '77'), seenVersion: 2, was: row(52).to });
  const { user, asked } = await answered({ by: '2026-12-03', holds: 'moving', parts: [] }, [row(51), moved]);
  expect(await screen.findByText(/Yes: finished 3 Dec, 12:00, if one booking moves/)).toBeTruthy();
  expect(screen.queryAllByRole('checkbox')).toEqual([]);
  await user.click(screen.getByRole('button', { name: 'Book Tern 51 and move one booking' }));
  await waitFor(() =>
    expect(asked.find((a) => a.method === 'POST')?.body).toEqual({
      units: [row(51).unit.id, moved.bookingId],
    }),
  );
});

it('says no with the earliest, and which part it waits for', async () => {
  const parts = [
    { title: 'Hub seal', quantity: 2, by: '2026-12-02', how: 'to-order' as const },
    { title: 'Cone', quantity: 1, by: null, how: 'unknown' as const },
  ];
  await answered({ by: '2026-12-01', holds: 'late', parts }, [row(51, { lateDays: 2 })]);
  expect(
    await screen.findByText(/1 Dec 2026 cannot be promised. Finished 3 Dec, 12:00 at the earliest/),
  ).toBeTruthy();
  expect(screen.getByText('Not in stock. Ordered today, it arrives 2 Dec 2026')).toBeTruthy();
  expect(screen.getByText('Not in stock, delivery time unknown: not counted here')).toBeTruthy();
  expect(screen.getByRole('button', { name: 'Book Tern 51' })).toBeTruthy();
});
