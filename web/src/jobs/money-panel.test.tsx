import { screen, waitFor, within } from '@testing-library/react';
import { describe, expect, it } from 'vitest';
import type { Work } from '@lanternwright/core/stack';
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

  it('begins with the works; written anew it has what was added since, and keeps what was typed', async () => {
    const t = jobAt('judge-parts');
    const at = (...works: Work[]) => ({ at: { position: '2L', works } });
    const labour = { group: 'labour' as const, per: 'hour' as const, unitMinor: 8_000 };
    const seal = { ...labour, what: 'Seal, renew', quantity: 1.75, ...at('seal') };
    const bearings = { ...labour, what: 'Bearings, additional time', quantity: 0.75, ...at('bearings') };
    const part = {
      group: 'parts' as const,
      what: 'Hub seal',
      per: 'piece' as const,
      quantity: 1,
      unitMinor: 0,
    };
    const draft = (...lines: object[]) => ({ currency: 'GBP', lines, suppliesPercent: 5, taxes: [] });
    let today = draft(seal, { ...part, ...at('seal') });
    const { sent, user } = await openPage(t, supervisor, [], (path) =>
      path.startsWith('/api/estimates/jobs/') ? today : undefined,
    );
    await user.click(await screen.findByRole('button', { name: 'Estimate and bill' }));
    await user.click(screen.getByRole('button', { name: 'Write the estimate' }));
    const each = () => screen.getAllByLabelText<HTMLInputElement>('Each').map((f) => f.value);
    await screen.findByDisplayValue('80.00');
    // What has no price is asked for, never 0.
    expect(each()).toEqual(['80.00', '']);
    expect(screen.getByText('Enter a price on every line to see the total.')).toBeTruthy();
    await user.type(screen.getAllByLabelText('Each')[1]!, '31');
    await user.click(screen.getByRole('button', { name: 'Save the estimate' }));
    await waitFor(() =>
      expect(sent.at(-1)).toMatchObject({ bill: { lines: [seal, { unitMinor: 3_100, ...at('seal') }] } }),
    );
    today = draft({ ...seal, ...at('seal', 'bearings') }, bearings, { ...part, ...at('seal', 'bearings') });
    await user.click(await screen.findByRole('button', { name: 'Write the estimate anew' }));
    await screen.findByDisplayValue('Bearings, additional time');
    expect(each()).toEqual(expect.arrayContaining(['31.00', '80.00', '80.00']));
    await user.click(screen.getByRole('button', { name: 'Save the estimate' }));
    await waitFor(() => expect(sent).toHaveLength(2));
    expect(sent[1]).toMatchObject({ bill: { lines: expect.arrayContaining([bearings]) as object } });
    // Whoever takes the answer on the telephone can say what it comes to.
    await user.selectOptions(await screen.findByLabelText('The owner’s answer'), 'Do it now');
    expect(screen.getByText(/^Approved, all of it:/).textContent).toMatch(/241\.00 GBP/);
  });
});
