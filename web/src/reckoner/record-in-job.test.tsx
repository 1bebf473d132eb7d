import { cleanup, screen, waitFor } from '@testing-library/react';
import { afterEach, describe, expect, it, vi } from 'vitest';
import type { JobSummary } from '@lanternwright/contract/jobs';
import { openingOn, supervisor, technician, TestJob } from '../../../core/src/traveller/testing/work.ts';
import { sessionOf } from '../people/testing/session.ts';
import { serveWith, show } from '../testing/fake-server.tsx';
import { KeepInJob, type ForJob } from './record-in-job.tsx';

afterEach(() => {
  cleanup();
  vi.unstubAllGlobals();
});

const listed = (n: number, unit: string): JobSummary =>
  ({
    id: `00000000-0000-4000-8000-00000000000${n}`,
    title: 'Hubs',
    unit: { name: unit },
    wheelEnds: [
      { position: '1L', released: true },
      { position: '1R', released: false },
      { position: '2L', released: false },
    ],
  }) as JobSummary;
const sum = { name: 'nut-travel', title: 'Nut travel', input: { turns: 1 }, result: { travelMm: 2 } };

/** The result of a sum, over a shop with two jobs in the list and one, on 2L and 2R, that is not in it. */
async function open(from: ForJob, job = new TestJob().job) {
  const detail = { number: 781, unit: { name: 'Tern 418' }, events: job.events };
  const asked = serveWith(({ method, path }) => {
    if (method === 'POST') return { body: { id: 'any' } };
    return { body: path.startsWith('/api/jobs?') ? [listed(1, 'Marsh 12'), listed(2, 'Ridge 7')] : detail };
  });
  const { user } = await show(<KeepInJob {...{ sum, from }} />, sessionOf({ ...technician, login: 'tech' }));
  const posted = () => asked.filter((a) => a.method === 'POST');
  return { posted, user, job };
}

const press = (name: string | RegExp) => screen.findByRole('button', { name });

describe('a result that goes into a record', () => {
  it('goes into no job and no wheel end but those that were chosen; what is released is not offered', async () => {
    const { posted, user } = await open({ job: null, at: null });
    await user.click(await press('Put it into a job’s record'));
    await user.click(await press('Put it into the record'));
    expect(screen.getByText('Choose the job')).toBeTruthy();
    await user.selectOptions(screen.getByLabelText('Job'), 'Ridge 7, Hubs');
    await user.click(await press('Put it into the record'));
    expect(screen.getByText('Choose the wheel end')).toBeTruthy();
    expect(posted()).toHaveLength(0);
    const ends = [...screen.getByLabelText<HTMLSelectElement>('Wheel end').options].map((o) => o.text);
    expect(ends).toEqual(['Choose', '1R', '2L']);
    await user.selectOptions(screen.getByLabelText('Wheel end'), '2L');
    await user.click(await press('Put it into the record of 2L'));
    await waitFor(() => expect(posted()).toHaveLength(1));
    expect(posted()[0]).toMatchObject({
      path: `/api/jobs/${listed(2, '').id}/events`,
      body: { command: { kind: 'reckoning-kept', position: '2L', name: 'nut-travel' } },
    });
  });

  it('goes into the job somebody came from, though the list does not reach to it', async () => {
    const { posted, user, job } = await open({ job: new TestJob().job.id, at: '2R' });
    await user.click(await press('Put it into the record of 2R'));
    await waitFor(() => expect(posted()[0]).toMatchObject({ path: `/api/jobs/${job.id}/events` }));
    expect(screen.getByText(/stands in the record of Tern 418, Drive axle seals, 2R/)).toBeTruthy();
  });

  it('goes into no other where that one is closed', async () => {
    const t = new TestJob(openingOn(['2L']));
    t.workTo('2L');
    t.do({ kind: 'wheel-end-released', position: '2L' }, supervisor);
    const { posted, user } = await open({ job: t.job.id, at: '2L' }, t.job);
    await user.click(await press('Put it into the record'));
    expect(screen.getByText('Choose the job')).toBeTruthy();
    expect(posted()).toHaveLength(0);
  });
});
