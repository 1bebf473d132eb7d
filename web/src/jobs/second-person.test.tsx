import { cleanup, screen, waitFor } from '@testing-library/react';
import { afterEach, describe, expect, it, vi } from 'vitest';
import { stepAtHand } from '@lanternwright/core/traveller';
import { openingOn, supervisor, technician, TestJob } from '../../../core/src/traveller/testing/work.ts';
import { sessionOf } from '../people/testing/session.ts';
import { refusedFor, serveWith, show } from '../testing/fake-server.tsx';
import { SecondPerson } from './second-person.tsx';
import type { OpenJob } from './use-job.ts';

afterEach(() => {
  cleanup();
  vi.unstubAllGlobals();
});

/** The step at which somebody else looks at the lock, before whoever set it. */
async function openStep(
  withPin: { id: string; name: string }[],
  answer = () => refusedFor('pin', 'The PIN is wrong', 401),
) {
  const t = new TestJob(openingOn(['2L']));
  t.workTo('2L', 'lock-looked-at');
  const asked = serveWith(({ method }) => (method === 'GET' ? { body: withPin } : answer()));
  const wheelEnd = t.at('2L');
  const step = stepAtHand(wheelEnd) as Parameters<typeof SecondPerson>[0]['step'];
  const open = { job: t.job, person: technician } as unknown as OpenJob;
  const { user } = await show(
    <SecondPerson {...{ open, wheelEnd, step }} />,
    sessionOf({ ...technician, login: 'tech' }),
  );
  const posted = () => asked.filter((a) => a.method === 'POST');
  return { posted, user, jobId: t.job.id };
}

describe('a second pair of eyes', () => {
  it('signs with a PIN, which is emptied when it was wrong, and never as who did the work', async () => {
    const { posted, user, jobId } = await openStep([
      { id: technician.id, name: technician.name },
      { id: supervisor.id, name: supervisor.name },
    ]);
    await user.click(await screen.findByRole('button', { name: 'Sup, with a PIN' }));
    expect(screen.queryByRole('button', { name: 'Tech, with a PIN' })).toBeNull();
    for (const digit of ['2', '5', '8', '0']) await user.click(screen.getByRole('button', { name: digit }));
    await user.click(screen.getByRole('button', { name: /Sup looked at it/ }));
    expect(await screen.findByText('The PIN is wrong')).toBeTruthy();
    expect(posted()).toMatchObject([
      {
        path: `/api/jobs/${jobId}/second-person`,
        body: { person: { personId: supervisor.id, pin: '2580' }, command: { stepId: 'lock-looked-at' } },
      },
    ]);
    expect(screen.getByLabelText('0 digits typed')).toBeTruthy();
  });

  it('signs with name and password where nobody has a PIN', async () => {
    const { posted, user } = await openStep([]);
    await user.type(screen.getByLabelText('Name of the second person'), 'sup');
    const button = screen.getByRole('button', { name: 'Looked at: it is locked' });
    expect(button.hasAttribute('disabled')).toBe(true);
    await user.type(screen.getByLabelText('Their password'), 'four wet bearings');
    await user.click(button);
    await waitFor(() =>
      expect(posted()).toMatchObject([{ body: { person: { login: 'sup', password: 'four wet bearings' } } }]),
    );
  });
});
