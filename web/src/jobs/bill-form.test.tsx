import { cleanup, render, screen, within, waitFor } from '@testing-library/react';
import userEvent from '@testing-library/user-event';
import { afterEach, describe, expect, it, vi } from 'vitest';
import type { Bill } from '@lanternwright/core/cost';
import { BillForm } from './bill-form.tsx';

afterEach(cleanup);

const start: Bill = {
  currency: 'GBP',
  lines: [
    { group: 'labour', what: 'Hubs', per: 'wheel', quantity: 2, unitMinor: 0 },
    { group: 'parts', what: 'Seal', per: 'piece', quantity: 1, unitMinor: 0 },
  ],
  suppliesPercent: 0,
  taxes: [],
};
function open(priced = false, first = start) {
  const onSave = vi.fn<(bill: Bill) => string | null>(() => null);
  render(<BillForm start={first} priced={priced} button="Save the estimate" onSave={onSave} />);
  return { onSave, user: userEvent.setup() };
}
const price = (line: number) => screen.getAllByLabelText('Each')[line]!;

describe('an estimate as it is written', () => {
  it('asks for every price, and says at the field what is wrong', async () => {
    const { onSave, user } = open();
    expect(price(0)).toHaveProperty('value', '');
    await user.type(price(0), '215');
    await user.click(screen.getByRole('button', { name: 'Save the estimate' }));
    expect(onSave).not.toHaveBeenCalled();
    expect(price(1).getAttribute('aria-invalid')).toBe('true');
    expect(price(0).getAttribute('aria-invalid')).toBeNull();
    await user.type(price(1), '41,85');
    await user.clear(screen.getAllByLabelText('What')[1]!);
    await user.click(screen.getByRole('button', { name: 'Save the estimate' }));
    expect(await screen.findByText('Enter what it is')).toBeTruthy();
    await user.type(screen.getAllByLabelText('What')[1]!, 'Seal, inner');
    await user.click(screen.getByRole('button', { name: 'Save the estimate' }));
    expect(onSave.mock.lastCall![0].lines.map((l) => [l.what, l.unitMinor])).toEqual([
      ['Hubs', 21_500],
      ['Seal, inner', 4_185],
    ]);
  });

  it('asks what a price means that could be two, and never takes a thousandth of it', async () => {
    const { onSave, user } = open();
    await user.type(price(0), '1,250');
    await user.type(price(1), '10');
    await user.click(screen.getByRole('button', { name: 'Save the estimate' }));
    expect(await screen.findByText('"1,250" could be 1.25 or 1250: type the one you mean')).toBeTruthy();
    expect(onSave).not.toHaveBeenCalled();
    await user.type(price(0), '.00');
    await user.click(screen.getByRole('button', { name: 'Save the estimate' }));
    await waitFor(() => expect(onSave).toHaveBeenCalled());
    expect(onSave.mock.lastCall![0].lines[0]!.unitMinor).toBe(125_000);
  });

  it('has taxes of its own for kinds of lines, none ticked beforehand; the total follows', async () => {
    const { onSave, user } = open();
    await user.type(price(0), '100');
    await user.type(price(1), '10');
    const total = () => screen.getByRole('status').textContent;
    expect(total()).toBe('Total 210.00 GBP');
    await user.click(screen.getByRole('button', { name: 'Add a tax' }));
    await user.type(screen.getByLabelText('Tax'), 'On work');
    await user.type(screen.getByLabelText('Tax, %'), '20');
    await user.click(screen.getByRole('button', { name: 'Save the estimate' }));
    expect(await screen.findByText('Choose what it is charged on')).toBeTruthy();
    await user.click(screen.getByLabelText('labour'));
    expect(total()).toBe('Total 250.00 GBP');
    await user.click(screen.getByRole('button', { name: 'Add a tax' }));
    await user.type(screen.getAllByLabelText('Tax')[1]!, 'On goods');
    await user.type(screen.getAllByLabelText('Tax, %')[1]!, '5');
    await user.click(within(screen.getAllByRole('group')[1]!).getByLabelText('parts'));
    expect(total()).toBe('Total 250.50 GBP');
    await user.click(screen.getByRole('button', { name: 'Save the estimate' }));
    expect(onSave.mock.lastCall![0].taxes).toEqual([
      { name: 'On work', percent: 20, on: ['labour'] },
      { name: 'On goods', percent: 5, on: ['parts'] },
    ]);
  });

  it('starts from what was written, counts in the coins of its currency, and needs a line', async () => {
    const { onSave, user } = open(true);
    expect(price(0)).toHaveProperty('value', '0.00');
    await user.clear(screen.getByLabelText('Currency'));
    await user.type(screen.getByLabelText('Currency'), 'jpy');
    await user.clear(price(0));
    await user.type(price(0), '500');
    expect(screen.getByRole('status').textContent).toBe('Total 1,000 JPY');
    await user.click(screen.getByRole('button', { name: 'Remove line 2' }));
    await user.click(screen.getByRole('button', { name: 'Save the estimate' }));
    expect(onSave.mock.lastCall![0]).toMatchObject({ currency: 'JPY', lines: [{ unitMinor: 500 }] });
    await user.click(screen.getByRole('button', { name: 'Remove line 1' }));
    await user.click(screen.getByRole('button', { name: 'Save the estimate' }));
    expect(await screen.findByText('There is no line.')).toBeTruthy();
    expect(onSave).toHaveBeenCalledTimes(1);
  });

  it('keeps what was typed where it is refused', async () => {
    const { onSave, user } = open(true);
    onSave.mockReturnValue('A supervisor writes estimates and bills');
    await user.click(screen.getByRole('button', { name: 'Save the estimate' }));
    expect(await screen.findByText('A supervisor writes estimates and bills')).toBeTruthy();
    expect(screen.getAllByLabelText('What')[0]).toHaveProperty('value', 'Hubs');
  });
});
