import { cleanup, screen, waitFor } from '@testing-library/react';
import { useLocation } from 'react-router';
import { afterEach, expect, it, vi } from 'vitest';
import { sessionOf } from '../people/testing/session.ts';
import { serveWith, show } from '../testing/fake-server.tsx';
import { Find } from './find.tsx';

class NoResize {
  observe() {}
  unobserve() {}
  disconnect() {}
}
afterEach(() => {
  cleanup();
  vi.unstubAllGlobals();
});

const id = '00000000-0000-4000-8000-000000000001';
const technician = sessionOf({ id, name: 'D. Achterberg', login: 'achterberg', role: 'technician' });
const found = {
  units: [
    { id, name: 'Sluice 3', kind: 'work-machine', plate: 'FCF 732', owner: 'Saltmarsh Drainage Board' },
  ],
  jobs: [{ id: id.replace(/1$/, '2'), number: 811, title: 'Steer hubs', unit: 'Sluice 3', open: false }],
  parts: [],
  tools: [{ id: id.replace(/1$/, '3'), code: 'TW-77', title: 'Wrench for sluices' }],
  orders: [{ id: id.replace(/1$/, '4'), number: 88, supplier: 'Sluice Supplies', status: 'sent' }],
  people: [{ id: id.replace(/1$/, '5'), name: 'S. Luice', role: 'technician' }],
};
const sums = [{ name: 'nut-travel', title: 'Nut travel', summary: 'How far a nut moves' }];

/** Where the page is by now. */
const Address = () => <p data-testid="address">{useLocation().pathname}</p>;

function open(begun?: string, reachable = () => true) {
  vi.stubGlobal('ResizeObserver', NoResize);
  const asked = serveWith(({ path }) => {
    if (path.startsWith('/api/find')) return reachable() ? { body: found } : { status: 504, body: {} };
    if (path.startsWith('/api/reckon')) return { body: sums };
    const unit = { ...found.units[0]!, owner: { id, name: 'Saltmarsh Drainage Board' } };
    return path.startsWith('/api/fleet/units') ? { body: { units: [unit] } } : { body: [] };
  });
  const onClose = vi.fn();
  const page = (
    <>
      <Find onClose={onClose} {...(begun === undefined ? {} : { begun })} />
      <Address />
    </>
  );
  return show(page, technician).then((shown) => ({
    ...shown,
    asked,
    onClose,
  }));
}

it('goes on from what was typed before it stood, and asks once somebody pauses', async () => {
  const { user, asked } = await open('slu');
  const input = screen.getByRole<HTMLInputElement>('combobox');
  expect(input.value).toBe('slu');
  expect(await screen.findByRole('option', { name: /Sluice 3.*Saltmarsh/ })).toBeTruthy();
  expect(screen.getByRole('option', { name: /Job 811, Sluice 3.*Steer hubs · closed/ })).toBeTruthy();
  expect(screen.getByRole('option', { name: /TW-77.*Wrench for sluices/ })).toBeTruthy();
  expect(screen.getByRole('option', { name: /S. Luice.*Technician/i })).toBeTruthy();
  await user.type(input, 'ice');
  await waitFor(() => expect(asked.some((a) => a.path === '/api/find?text=sluice')).toBe(true));
  expect(asked.filter((a) => a.path.startsWith('/api/find')).length).toBeLessThan(4);
});

it('Enter opens the first that is found, also where it is pressed before anything is found', async () => {
  const { user, onClose } = await open();
  await user.keyboard('sluice 3{Enter}');
  await waitFor(() => expect(onClose).toHaveBeenCalledTimes(1));
  await waitFor(() => expect(screen.getByTestId('address').textContent).toBe(`/fleet/${id}`));
});

it('Enter opens the one that is chosen by the arrows, and nothing where nothing is typed or found', async () => {
  const { user, onClose } = await open('slu');
  await screen.findByRole('option', { name: /Job 811/ });
  await user.keyboard('{ArrowDown}{ArrowDown}{Enter}');
  await waitFor(() => expect(onClose).toHaveBeenCalledTimes(1));
  await waitFor(() => expect(screen.getByTestId('address').textContent).toBe(`/jobs/${found.jobs[0]!.id}`));
});

it('finds calculations by words of its own, and says when nothing is called so', async () => {
  const { user } = await open();
  await user.type(screen.getByRole('combobox'), 'travel nut');
  expect(await screen.findByRole('option', { name: /Nut travel/ })).toBeTruthy();
});

it('without the server looks through what this device has, and says so', async () => {
  await open('sluice', () => false);
  expect(await screen.findByText(/only what this device has/)).toBeTruthy();
  expect(await screen.findByRole('option', { name: /Sluice 3/ })).toBeTruthy();
});

it('leads to an order by its number', async () => {
  const { user } = await open('order 88');
  await user.click(await screen.findByRole('option', { name: /Order 88.*Sluice Supplies/ }));
  expect(screen.getByTestId('address').textContent).toBe(`/stores/orders/${found.orders[0]!.id}`);
});
