import { cleanup, screen, waitFor, within } from '@testing-library/react';
import { afterEach, describe, expect, it, vi } from 'vitest';
import type { JobParts } from '@lanternwright/contract/stores';
import { openingOn, TestJob } from '../../../core/src/traveller/testing/work.ts';
import { sessionOf } from '../people/testing/session.ts';
import { refusedFor, serveWith, show, type Answer } from '../testing/fake-server.tsx';
import { PartsPanel } from './parts-panel.tsx';
import type { OpenJob } from './use-job.ts';

afterEach(() => {
  cleanup();
  vi.unstubAllGlobals();
});

const id = '00000000-0000-4000-8000-000000000047';
const seal: JobParts['fitting'][number] = {
  ...{ id, kind: 'seal', title: 'Hub seal of the drive axle', number: '47-2210', onHand: 4, reserved: 0 },
  ...{
    places: [
      { place: 'A3', quantity: 3 },
      { place: 'B1', quantity: 1 },
    ],
    reorderLevel: null,
    supersededBy: null,
    keptFor: [],
    batches: [],
  },
};
const needed = (more: Partial<JobParts> = {}): JobParts => ({
  ...{ position: '2L', line: 'part:hub-seal', title: 'Hub seal', fitting: [seal], kept: [], used: [] },
  stand: { state: 'here', parts: [{ number: '47-2210', place: 'A3' }] },
  ...more,
});
const used = [{ partId: id, number: '47-2210', title: seal.title, quantity: 1, price: null, batch: null }];

async function open(
  lines: () => JobParts[],
  answer: Answer,
  role: 'technician' | 'owner-contact' = 'technician',
) {
  const asked = serveWith((one) => (one.method === 'GET' ? { body: lines() } : answer(one)));
  const { job } = new TestJob(openingOn(['2L']));
  const person = sessionOf({ id, name: 'D. Achterberg', login: 'achterberg', role });
  const { user } = await show(<PartsPanel open={{ job } as OpenJob} back={() => undefined} />, person);
  return { user, job, sent: () => asked.filter((a) => a.method !== 'GET') };
}

describe('the parts of a job', () => {
  it('all that is here is kept with one tap; what is kept, used or not here is not counted', async () => {
    let lines = [
      needed(),
      needed({ position: '2R' }),
      needed({ line: 'part:lock-washer', stand: { state: 'none' } }),
      needed({ line: 'lubricant' }),
    ];
    const { user, job, sent } = await open(
      () => lines,
      () => ({ body: lines }),
    );
    const all = await screen.findByRole('button', { name: 'Keep what is here for this job: 2 lines' });
    lines = [needed({ kept: [{ id, partId: id, number: '47-2210', quantity: 1, planned: false }] })];
    await user.click(all);
    await waitFor(() => expect(screen.queryByRole('button', { name: /^Keep what is here/ })).toBeNull());
    expect(sent()).toMatchObject([{ method: 'POST', path: `/api/stores/jobs/${job.id}/reservations` }]);
  });

  it('one is used from the shelf it lies on; pressed again after a refusal it is the same record', async () => {
    let refuse = true;
    let lines = [needed()];
    const { user, job, sent } = await open(
      () => lines,
      () => (refuse ? refusedFor('quantity', 'None lies at B1') : { body: {} }),
    );
    await user.click(await screen.findByRole('button', { name: 'Use one 47-2210 from B1' }));
    expect(await screen.findByText('None lies at B1')).toBeTruthy();
    refuse = false;
    lines = [needed({ used })];
    await user.click(screen.getByRole('button', { name: 'Use one 47-2210 from B1' }));
    expect(await screen.findByText(/Used: 1 ×/)).toBeTruthy();
    const [first, second] = sent().map((s) => s.body as { recordId: string; movement: object });
    expect(second!.recordId).toBe(first!.recordId);
    expect(second!.movement).toEqual({
      ...{ what: 'used', quantity: 1, place: 'B1', jobId: job.id, position: '2L', line: 'part:hub-seal' },
    });
    await user.click(screen.getByRole('button', { name: 'Use one 47-2210 from A3' }));
    await waitFor(() => expect(sent()).toHaveLength(3));
    expect((sent()[2]!.body as { recordId: string }).recordId).not.toBe(first!.recordId);
    await user.click(screen.getByRole('button', { name: 'Return one to A3' }));
    await waitFor(() =>
      expect(sent()[3]!.body).toMatchObject({ movement: { what: 'returned', place: 'A3' } }),
    );
  });

  it('says which batch it was, where somebody read it; it goes back with that', async () => {
    const batched = { ...seal, batches: ['L 4712', 'L 4711'] };
    let lines = [needed({ fitting: [batched] })];
    const { user, sent } = await open(
      () => lines,
      () => ({ body: {} }),
    );
    const field = await screen.findByLabelText<HTMLSelectElement>('Batch on it');
    expect(field.value).toBe('');
    await user.selectOptions(field, 'L 4711');
    lines = [needed({ fitting: [batched], used: used.map((u) => ({ ...u, batch: 'L 4711' })) })];
    await user.click(screen.getByRole('button', { name: 'Use one 47-2210 from A3' }));
    expect((await screen.findByText(/Used: 1 ×/)).textContent).toMatch(/batch L 4711/);
    await user.click(screen.getByRole('button', { name: 'Return one to A3' }));
    await waitFor(() =>
      expect(sent().map((s) => s.body)).toMatchObject([
        { movement: { what: 'used', batch: 'L 4711' } },
        { movement: { what: 'returned', batch: 'L 4711' } },
      ]),
    );
  });

  it('one is kept, and kept no longer', async () => {
    let lines = [needed()];
    const { user, sent } = await open(
      () => lines,
      () => ({ body: { ok: true } }),
    );
    const keep = await screen.findByRole('button', { name: 'Keep one 47-2210' });
    lines = [needed({ kept: [{ id, partId: id, number: '47-2210', quantity: 1, planned: false }] })];
    await user.click(keep);
    await user.click(await screen.findByRole('button', { name: 'Keep it no longer' }));
    await waitFor(() =>
      expect(sent().map((s) => `${s.method} ${s.path}`)).toEqual([
        `POST /api/stores/parts/${id}/reservations`,
        `DELETE /api/stores/parts/${id}/reservations/${id}`,
      ]),
    );
    // What is kept already is not kept twice.
    expect(screen.queryByRole('button', { name: 'Keep one 47-2210' })).toBeNull();
  });

  it('what is kept for other jobs is taken by a second tap that says who will lack it: as few as it takes', async () => {
    const kept = (nth: number, day: string | null) => ({
      ...{ id: `00000000-0000-4000-8000-00000000010${nth}`, jobNumber: 60 + nth },
      ...{ unit: `Tern 66${nth}`, quantity: 2, day },
    });
    const keptFor = [kept(1, '2026-12-04'), kept(2, '2026-12-02')];
    const { user, sent } = await open(
      () => [needed({ fitting: [{ ...seal, reserved: 4, keptFor }] })],
      () => ({ body: {} }),
    );
    const take = await screen.findByRole('button', { name: 'Kept for another job: take it' });
    expect(screen.queryByRole('button', { name: /^Use one/ })).toBeNull();
    await user.click(take);
    expect(
      screen.getByText(/^Kept for job 61, Tern 661, booked for .*4 Dec.* It will lack this part/),
    ).toBeTruthy();
    await user.click(screen.getByRole('button', { name: 'Leave it' }));
    expect(sent()).toEqual([]);
    await user.click(screen.getByRole('button', { name: 'Kept for another job: take it' }));
    await user.click(screen.getByRole('button', { name: 'Take it from A3 all the same' }));
    await waitFor(() => expect(sent()[0]?.body).toMatchObject({ instead: [keptFor[0]!.id] }));
  });

  it('says where to look when nothing is told to fit', async () => {
    await open(
      () => [needed({ fitting: [] })],
      () => ({ body: {} }),
    );
    const part = await screen.findByRole('region', { name: 'Parts of 2L' });
    const link = within(part).getByRole('link', { name: 'Find one by measuring' });
    expect(link.getAttribute('href')).toBe('/stores?by=measure');
  });
});
