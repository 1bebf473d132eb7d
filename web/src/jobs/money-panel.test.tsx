import { screen, waitFor, within } from '@testing-library/react';
import { describe, expect, it } from 'vitest';
import { supervisor } from '../../../core/src/traveller/testing/work.ts';
import { jobAt, onFreshDevice, openPage } from './testing/open-page.tsx';

onFreshDevice();

async function openMoney() {
  const opened = await openPage(jobAt('judge-parts'), supervisor);
  await opened.user.click(await screen.findByRole('button', { name: 'Estimate and bill' }));
  return opened;
}
async function price(user: Awaited<ReturnType<typeof openMoney>>['user'], of: string) {
  for (const each of await screen.findAllByLabelText('Each')) {
    await user.clear(each);
    await user.type(each, of);
  }
}

describe('estimate and bill of a job', () => {
  it('the owner’s answer is asked, not assumed; deferred needs its date and its risk', async () => {
    const { sent, user } = await openMoney();
    await user.click(screen.getByRole('button', { name: 'Write the estimate' }));
    await price(user, '40');
    await user.click(screen.getByRole('button', { name: 'Save the estimate' }));
    await waitFor(() => expect(sent.at(-1)).toMatchObject({ kind: 'bill-written', as: 'estimate' }));

    await user.click(await screen.findByRole('button', { name: 'Record the answer' }));
    expect(screen.getByText('Choose what the owner answered')).toBeTruthy();
    await user.selectOptions(screen.getByLabelText('The owner’s answer'), 'Defer it');
    await user.click(screen.getByRole('button', { name: 'Record the answer' }));
    expect(screen.getByText('Enter who answered for the owner')).toBeTruthy();
    await user.type(screen.getByLabelText('Who answered'), 'Q. Fenmoor');
    await user.click(screen.getByRole('button', { name: 'Record the answer' }));
    expect(screen.getByText('Deferred needs a date and the risk in words')).toBeTruthy();
    expect(sent).toHaveLength(1);
    await user.type(screen.getByLabelText('Until'), '2099-01-31');
    await user.type(screen.getByLabelText('The risk, named'), 'The seal may let go');
    await user.click(screen.getByRole('button', { name: 'Record the answer' }));
    await waitFor(() =>
      expect(sent.at(-1)).toMatchObject({
        ...{ kind: 'owner-answered', answer: 'defer', name: 'Q. Fenmoor' },
        ...{ until: '2099-01-31', risk: 'The seal may let go' },
      }),
    );
  });

  it('is billed without an estimate where none was written, and says so', async () => {
    const { sent, user } = await openMoney();
    await user.click(screen.getByRole('button', { name: 'Write the bill' }));
    await price(user, '12.50');
    await user.click(screen.getByRole('button', { name: 'Save the bill' }));
    await waitFor(() => expect(sent.at(-1)).toMatchObject({ kind: 'bill-written', as: 'actual' }));
    expect(await screen.findByText('It was billed without an estimate.')).toBeTruthy();
    const bill = screen.getByRole('region', { name: 'Bill' });
    expect(within(bill).getAllByText(/12\.50 GBP/).length).toBeGreaterThan(0);
    expect(screen.getByRole('link', { name: 'Bill' }).getAttribute('href')).toMatch(/estimate\.pdf/);
  });

  it('says line by line why a bill differs from its estimate', async () => {
    const { user } = await openMoney();
    await user.click(screen.getByRole('button', { name: 'Write the estimate' }));
    await price(user, '40');
    await user.click(screen.getByRole('button', { name: 'Save the estimate' }));
    await user.click(await screen.findByRole('button', { name: 'Write the bill' }));
    const first = (await screen.findAllByLabelText('Each'))[0]!;
    expect(first).toHaveProperty('value', '40.00');
    await user.clear(first);
    await user.type(first, '55');
    await user.click(screen.getByRole('button', { name: 'Save the bill' }));
    expect(await screen.findByText(/15\.00 GBP more than quoted/)).toBeTruthy();
    expect(screen.getByText(/quoted,/).textContent).toMatch(/40\.00 GBP quoted, 55\.00 GBP in the end/);
  });
});
