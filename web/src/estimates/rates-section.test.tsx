import { cleanup, screen, waitFor } from '@testing-library/react';
import { afterEach, describe, expect, it, vi } from 'vitest';
import type { ShopRates } from '@lanternwright/contract/estimates';
import { sessionOf } from '../people/testing/session.ts';
import { refusedFor, serveWith, show } from '../testing/fake-server.tsx';
import { RatesSection } from './rates-section.tsx';

afterEach(() => {
  cleanup();
  vi.unstubAllGlobals();
});

const supervisor = {
  id: '00000000-0000-4000-8000-000000000001',
  name: 'I. Okonedo',
  login: 'okonedo',
  role: 'supervisor' as const,
};
const unset: ShopRates = { hour: null, suppliesPercent: 0, taxes: [], taxNumber: '', validDays: null };

async function open(rates: ShopRates, refuse?: ReturnType<typeof refusedFor>) {
  const asked = serveWith(({ method, body }) => (method === 'GET' ? { body: rates } : (refuse ?? { body })));
  const { user } = await show(<RatesSection />, sessionOf(supervisor));
  await screen.findByLabelText('An hour of labour, GBP');
  return { user, saved: () => asked.findLast((a) => a.method === 'PUT')?.body };
}
const save = () => screen.getByRole('button', { name: 'Save the rates' });

describe('the rates of the shop', () => {
  it('are kept in the smallest coin; what is left empty is not set', async () => {
    const { user, saved } = await open(unset);
    await user.type(screen.getByLabelText('An hour of labour, GBP'), '78.50');
    await user.type(screen.getByLabelText('An estimate is valid for, days'), '30');
    await user.click(screen.getByRole('button', { name: 'Add a tax' }));
    await user.type(screen.getByLabelText('Tax'), 'VAT');
    await user.type(screen.getByLabelText('Tax, %'), '20');
    await user.click(screen.getByLabelText('labour'));
    await user.click(save());
    expect(await screen.findByText('Saved.')).toBeTruthy();
    expect(saved()).toEqual({
      ...{ ...unset, hour: { currency: 'GBP', minor: 7_850 }, validDays: 30 },
      seen: unset,
      taxes: [{ name: 'VAT', percent: 20, on: ['labour'] }],
    });
  });

  it('ask about an hour that is no money, and send nothing', async () => {
    const { user, saved } = await open(unset);
    await user.type(screen.getByLabelText('An hour of labour, GBP'), '1,250');
    await user.click(save());
    await waitFor(() =>
      expect(screen.getByLabelText('An hour of labour, GBP').getAttribute('aria-invalid')).toBe('true'),
    );
    expect(saved()).toBeUndefined();
  });

  it('of another currency are not shown in this one', async () => {
    await open({ ...unset, hour: { currency: 'EUR', minor: 9_000 } });
    expect(screen.getByLabelText<HTMLInputElement>('An hour of labour, GBP').value).toBe('');
  });

  it('that the server refuses say so at their field', async () => {
    const { user } = await open(unset, refusedFor('suppliesPercent', '100 at most'));
    await user.click(save());
    expect(await screen.findByText('100 at most')).toBeTruthy();
  });
});
