import { cleanup, screen, within } from '@testing-library/react';
import { afterEach, describe, expect, it, vi } from 'vitest';
import type { Bill } from '@lanternwright/core/cost';
import type { Command } from '@lanternwright/core/traveller';
import { openingOn, supervisor, TestJob } from '../../../core/src/traveller/testing/work.ts';
import type { OpenJob } from '../jobs/use-job.ts';
import { sessionOf } from '../people/testing/session.ts';
import { show } from '../testing/fake-server.tsx';
import { AnswerEstimate } from './answer-estimate.tsx';

afterEach(cleanup);

const contact = {
  id: '00000000-0000-4000-8000-000000000902',
  name: 'E. Tern',
  role: 'owner-contact' as const,
  login: 'tern',
};
const bill = {
  currency: 'GBP',
  lines: [{ group: 'labour' as const, what: 'Hub', per: 'wheel' as const, quantity: 1, unitMinor: 9000 }],
  suppliesPercent: 0,
  taxes: [],
};

/** The same, split by what is for which work. */
const at = (...works: ('seal' | 'bearings')[]) => ({ at: { position: '2L', works } });
const split = {
  ...bill,
  lines: [
    {
      group: 'labour' as const,
      what: 'Seal',
      per: 'hour' as const,
      quantity: 2,
      unitMinor: 5000,
      ...at('seal', 'bearings'),
    },
    {
      group: 'labour' as const,
      what: 'Bearings',
      per: 'hour' as const,
      quantity: 1,
      unitMinor: 5000,
      ...at('bearings'),
    },
    {
      group: 'parts' as const,
      what: 'Cone and cup',
      per: 'piece' as const,
      quantity: 1,
      unitMinor: 7000,
      ...at('bearings'),
    },
  ],
};

/** The form over a job with an estimate; what is given goes to the same `decide` as on the server. */
async function openForm(works: ('seal' | 'bearings')[] = ['seal', 'bearings'], estimate: Bill = bill) {
  const t = new TestJob(openingOn(['2L'], 'a-drive-tang', works));
  t.do({ kind: 'bill-written', as: 'estimate', bill: estimate }, supervisor);
  const send = vi.fn((command: Command) => t.try(command, contact));
  const open = { job: t.job, person: contact, send } as unknown as OpenJob;
  const { user } = await show(<AnswerEstimate open={open} />, sessionOf(contact));
  const line = (name: RegExp) => within(screen.getByRole('group', { name }));
  const give = () => user.click(screen.getByRole('button', { name: 'Give this answer' }));
  return { t, send, user, line, give };
}

describe('an owner’s answer', () => {
  it('has nothing chosen beforehand and is not given by halves', async () => {
    const { send, user, line, give } = await openForm();
    for (const radio of screen.getAllByRole('radio')) expect((radio as HTMLInputElement).checked).toBe(false);
    await user.click(line(/seal/).getByText('Do it now'));
    await give();
    expect(screen.getByText(/^Not answered yet: 2L: .*bearing/)).toBeTruthy();
    expect(send).not.toHaveBeenCalled();
  });

  it('names the estimate it answers, and what is left out of it', async () => {
    const { t, send, user, line, give } = await openForm();
    const estimate = t.job.money.estimate!.eventId;
    await user.click(line(/seal/).getByText('Do it now'));
    await user.click(line(/bearing/).getByText('Decline it'));
    await give();
    expect(send).toHaveBeenCalledWith({
      kind: 'owner-answered',
      answer: 'do-now',
      name: 'E. Tern',
      estimate,
      works: [{ position: '2L', work: 'bearings', answer: 'decline' }],
    });
    expect(t.at('2L').plan).toMatchObject({ works: ['seal'] });
  });

  it('defers only with a date and what is taken on, refused in the words of the rule', async () => {
    const { t, user, line, give } = await openForm();
    await user.click(line(/seal/).getByText('Do it now'));
    await user.click(line(/bearing/).getByText('Defer it'));
    await give();
    expect(screen.getByText(/Deferred needs a date and the risk in words/)).toBeTruthy();
    await user.type(screen.getByLabelText(/^Until, 2L/), '2027-02-01');
    await user.type(screen.getByLabelText(/^What you take on until then, 2L/), 'It may run loose');
    await give();
    expect(t.job.money.answer?.works).toMatchObject([{ until: '2027-02-01', risk: 'It may run loose' }]);
  });

  it('is one answer where it is the same to everything', async () => {
    const { send, user, give } = await openForm();
    await user.click(screen.getByRole('button', { name: 'Approve everything' }));
    await give();
    expect(send.mock.calls[0]![0]).not.toHaveProperty('works');
    expect(send.mock.calls[0]![0]).toMatchObject({ answer: 'do-now' });
  });

  it('has the total of what is approved, as it is chosen, and takes a message', async () => {
    const { t, user, line, give } = await openForm(['seal', 'bearings'], split);
    const approved = () => screen.getByRole('status').textContent;
    expect(approved()).toBe('You approve 0.00 GBP of 220.00 GBP');
    // Two hours are for both, and stand whichever is done.
    expect(line(/bearing/).getByText('Labour, 2 h')).toBeTruthy();
    expect(line(/bearing/).getByText('Cone and cup')).toBeTruthy();
    expect(line(/seal/).queryByText('Cone and cup')).toBeNull();
    await user.click(line(/seal/).getByText('Do it now'));
    expect(approved()).toBe('You approve 100.00 GBP of 220.00 GBP');
    await user.click(line(/bearing/).getByText('Do it now'));
    expect(approved()).toBe('You approve all of it: 220.00 GBP');
    await user.click(line(/bearing/).getByText('Decline it'));
    expect(approved()).toBe('You approve 100.00 GBP of 220.00 GBP');
    await user.type(screen.getByLabelText(/^Message to the shop/), '  Keep the old parts ');
    await give();
    expect(t.job.money.answer).toMatchObject({ answer: 'do-now', message: 'Keep the old parts' });
  });

  it('to an estimate that is not split by work promises no part of it', async () => {
    const { user, line } = await openForm();
    await user.click(line(/seal/).getByText('Do it now'));
    expect(screen.getByRole('status').textContent).toMatch(/not split by work/);
    await user.click(screen.getByRole('button', { name: 'Approve everything' }));
    expect(screen.getByRole('status').textContent).toBe('You approve all of it: 90.00 GBP');
  });

  it('to an estimate that was written anew since is refused', async () => {
    const { t, user, give } = await openForm();
    t.do({ kind: 'bill-written', as: 'estimate', bill }, supervisor);
    await user.click(screen.getByRole('button', { name: 'Approve everything' }));
    await give();
    expect(screen.getByText(/has changed: review it/)).toBeTruthy();
    expect(t.job.money.answer).toBeNull();
  });
});
