import { cleanup, screen, waitFor, within } from '@testing-library/react';
import { afterEach, describe, expect, it, vi } from 'vitest';
import type { JobDetail } from '@lanternwright/contract/jobs';
import type { Command } from '@lanternwright/core/traveller';
import { openingOn, supervisor, technician, TestJob } from '../../../core/src/traveller/testing/work.ts';
import { sessionOf } from '../people/testing/session.ts';
import { serveWith, show } from '../testing/fake-server.tsx';
import { jobsApi } from './jobs-api.ts';
import { holdNotTaken, type NotTaken } from './not-taken.ts';
import { WaitingPage } from './waiting-page.tsx';

afterEach(() => {
  cleanup();
  vi.unstubAllGlobals();
});

const login = { login: 'x' };

/** A job that has moved on to a step, and a device that recorded on it before it had. */
async function away(t: TestJob, commands: Command[], person = technician) {
  const detail: JobDetail = {
    number: 781,
    unit: {
      id: t.job.unitId,
      name: 'Tern 418',
      kind: 'tractor',
      owner: { id: t.job.unitId, name: 'Tern & Hollow Haulage' },
      axles: [{ number: 2, role: 'drive', wheels: 'dual' }],
    },
    before: [],
    releasedBefore: [],
    events: [...t.job.events],
  };
  const entry: NotTaken = {
    id: '00000000-0000-4000-8000-0000000000a1',
    jobId: t.job.id,
    reason: 'Sup was first: 2L. What you sent was not recorded.',
    at: '2026-11-26T08:00:00.000Z',
    records: commands.map((command, i) => ({
      id: `00000000-0000-4000-8000-0000000000a${i + 1}`,
      jobId: t.job.id,
      seenVersion: 1,
      command,
      queuedAt: '2026-11-26T07:55:00.000Z',
      by: technician,
    })),
  };
  const asked = serveWith(({ method, path, body }) => {
    if (path === `/api/jobs/${t.job.id}`) return { body: detail };
    if (method !== 'POST') return { body: [] };
    const { id, command } = body as { id: string; command: Command };
    t.do(command, person);
    return { body: { ...t.job.events.at(-1), id } };
  });
  const { store, user } = await show(<WaitingPage />, sessionOf({ ...person, ...login }));
  await store.dispatch(jobsApi.util.upsertQueryData('job', t.job.id, detail));
  await store.dispatch(holdNotTaken(entry));
  const conflict = await screen.findByRole('region', { name: 'Tern 418, job 781' });
  return { asked, store, user, conflict: within(conflict), region: conflict };
}

const hold: Command = { kind: 'job-held', reason: 'Waiting for a seal' };
const skip: Command = {
  kind: 'step-skipped',
  position: '2L',
  stage: 'diagnose',
  stepId: 'no-such',
  round: 1,
  reason: 'x',
};

describe('what was not taken', () => {
  it('stands beside what is on record, and is recorded after it where it fits', async () => {
    const t = new TestJob(openingOn(['2L']));
    const { asked, user, conflict, store } = await away(t, [hold]);
    expect(conflict.getByText(/Sup was first/)).toBeTruthy();
    expect(conflict.getByText(/Tech: held the job: Waiting for a seal/)).toBeTruthy();
    await user.click(conflict.getByRole('button', { name: 'Record it after what stands' }));
    await waitFor(() => expect(store.getState().notTaken.waiting).toEqual([]));
    const posted = asked.filter((a) => a.method === 'POST');
    expect(posted).toMatchObject([
      { body: { command: hold, as: technician.id, seenVersion: t.job.version - 1 } },
    ]);
    expect(t.job.stopped?.reason).toBe('Waiting for a seal');
  });

  it('says of each record why it fits no more, and goes only when asked twice', async () => {
    const t = new TestJob(openingOn(['2L']));
    const { user, conflict, store, asked } = await away(t, [skip]);
    expect(conflict.getByText(/Does not fit any more: /)).toBeTruthy();
    expect(conflict.queryByRole('button', { name: /^Record/ })).toBeNull();
    await user.click(conflict.getByRole('button', { name: 'What stands is right' }));
    expect(store.getState().notTaken.waiting).toHaveLength(1);
    await user.click(conflict.getByRole('button', { name: 'Put it away' }));
    expect(await screen.findByText(/has been sent/)).toBeTruthy();
    expect(asked.filter((a) => a.method === 'POST')).toEqual([]);
  });

  it('of another person is settled by them, or by a supervisor, and stays theirs', async () => {
    const t = new TestJob(openingOn(['2L']));
    const other = { ...technician, id: '00000000-0000-4000-8000-000000000777', name: 'Other' };
    const { conflict, region } = await away(t, [hold], other);
    expect(region.textContent).toMatch(/Tech or a supervisor settles it/);
    expect(conflict.queryByRole('button')).toBeNull();
    cleanup();
    const again = await away(new TestJob(openingOn(['2L'])), [hold], supervisor);
    await again.user.click(again.conflict.getByRole('button', { name: 'Record it after what stands' }));
    await waitFor(() =>
      expect(again.asked.filter((a) => a.method === 'POST')).toMatchObject([
        { body: { as: supervisor.id, recordedBy: technician.id } },
      ]),
    );
  });
});
