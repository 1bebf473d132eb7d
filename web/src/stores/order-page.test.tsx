import { cleanup, screen, waitFor, within } from '@testing-library/react';
import { Route, Routes } from 'react-router';
import { afterEach, describe, expect, it, vi } from 'vitest';
import type { Order, Proposed, Shortage } from '@lanternwright/contract/stores';
import { sessionOf } from '../people/testing/session.ts';
import { refusedFor, serveWith, show, type Answer } from '../testing/fake-server.tsx';
import { OrderPage } from './order-page.tsx';
import { StoresPage } from './stores-page.tsx';

afterEach(() => {
  cleanup();
  vi.unstubAllGlobals();
});

const id = '00000000-0000-4000-8000-000000000001';
const part = (n: number) => `00000000-0000-4000-8000-00000000020${n}`;
const line = (n: number, more: Partial<Order['lines'][number]> = {}): Order['lines'][number] => ({
  ...{ partId: part(n), number: `47-22${n}0`, title: 'Hub seal', quantity: 4 },
  ...{ price: { currency: 'GBP', minor: 4185 }, delivered: 0, ended: null, ...more },
});
const order = (more: Partial<Order> = {}): Order => ({
  ...{
    id,
    number: 7,
    supplier: 'Quayside Bearings',
    status: 'sent',
    lines: [line(1, { place: 'A3' }), line(2, { delivered: 3 })],
  },
  ...{
    expected: '2026-12-05',
    late: false,
    online: false,
    reference: 'Q-88',
    sentAt: '2026-11-27T08:00:00.000Z',
    version: 3,
  },
  ...{ changedAt: '2026-11-27T08:00:00.000Z', changedBy: 'Q. Farrow', reason: null, ...more },
});

async function open(at: string, answer: Answer) {
  const asked = serveWith(answer);
  const { user } = await show(
    <Routes>
      <Route path="/stores" element={<StoresPage />} />
      <Route path="/stores/orders/:id" element={<OrderPage />} />
    </Routes>,
    sessionOf({ id, name: 'Q. Farrow', login: 'farrow', role: 'storekeeper' }),
    at,
  );
  return { user, posted: () => asked.filter((a) => a.method !== 'GET') };
}
const openOrder = (of: Order, answer: Answer = () => ({ body: of })) =>
  open(`/stores/orders/${id}`, (one) => (one.method === 'GET' ? { body: of } : answer(one)));

describe('an order to a supplier who takes them online', () => {
  const stand = (more: object = {}) => ({
    ...{ name: 'Quayside Bearings', askedAt: null, answeredAt: null, trouble: null, ...more },
  });
  const openOnline = (of: Order, supplier: object) =>
    open(`/stores/orders/${id}`, (one) => ({ body: one.path === '/api/supplier' ? supplier : of }));

  it('is sent after it was looked at once more', async () => {
    const draft = order({ status: 'draft', reference: '', sentAt: null, expected: null });
    const { user, posted } = await openOnline(draft, stand());
    await user.click(await screen.findByRole('button', { name: 'Send it to Quayside Bearings' }));
    expect(screen.getByText(/an order of 8 pieces, .*334\.80.* as listed/)).toBeTruthy();
    expect(posted()).toHaveLength(0);
    await user.click(screen.getByRole('button', { name: 'Send it now' }));
    await waitFor(() => expect(posted()).toHaveLength(1));
    expect(posted()[0]).toMatchObject({
      path: `/api/stores/orders/${id}/sent`,
      body: { seenVersion: 3, online: true },
    });
  });

  it('is recorded by hand where the supplier is another', async () => {
    await openOnline(order({ status: 'draft' }), stand({ name: 'Marsh End Brakes' }));
    await screen.findByRole('button', { name: 'Record that it was sent' });
    expect(screen.queryByRole('button', { name: /^Send it/ })).toBeNull();
  });

  it('says that nobody answered yet, what was dispatched, and what costs more than was listed', async () => {
    const told = { dispatched: 2, price: { currency: 'GBP', minor: 4687 } };
    await openOnline(
      order({ online: true, reference: '', expected: null, lines: [line(1, { told })] }),
      stand({ trouble: 'Order 7: Nobody answers there' }),
    );
    await screen.findByText(/^Waits for Quayside Bearings to answer/);
    expect(await screen.findByText(/Nobody answers there. It is asked again/)).toBeTruthy();
    const row = screen.getByRole('list', { name: 'Parts of this order' });
    expect(within(row).getByText(/2 dispatched, 4 to come/)).toBeTruthy();
    expect(within(row).getByText(/46.87/).textContent).toMatch(/not .*41.85/);
  });

  it('whose rest does not come is not called whole', async () => {
    await openOnline(order({ status: 'done', lines: [line(1, { ended: 'unknown' })] }), stand());
    expect(await screen.findByText(/^Closed short/)).toBeTruthy();
  });
});

describe('an order on its way', () => {
  it('what came is counted, not what was ordered: nothing is filled in, and more than is to come is refused', async () => {
    let refuse = true;
    const { user, posted } = await openOrder(order(), () =>
      refuse ? refusedFor('lines', '1 of 47-2220 is still to come') : { body: order() },
    );
    await user.click(await screen.findByRole('button', { name: 'Something came' }));
    expect(screen.getByLabelText<HTMLInputElement>('47-2210: how many came').value).toBe('');
    expect(screen.getByText(/4 still to come/)).toBeTruthy();
    await user.click(screen.getByRole('button', { name: 'Record what came' }));
    expect(await screen.findByText('Enter what came')).toBeTruthy();
    expect(posted()).toEqual([]);
    // One of them lies here already and goes to the rest of it; where the other goes is asked.
    expect(screen.getByText('Empty: with the rest of it, A3')).toBeTruthy();
    await user.type(screen.getByLabelText('47-2220: put at'), 'C1');
    await user.type(screen.getByLabelText('47-2220: how many came'), '2');
    await user.click(screen.getByRole('button', { name: 'Record what came' }));
    expect(await screen.findByText('1 of 47-2220 is still to come')).toBeTruthy();
    refuse = false;
    await user.clear(screen.getByLabelText('47-2220: how many came'));
    await user.type(screen.getByLabelText('47-2220: how many came'), '1');
    await user.click(screen.getByRole('button', { name: 'Record what came' }));
    await waitFor(() => expect(screen.queryByLabelText(/put at/)).toBeNull());
    expect(posted().at(-1)!.body).toEqual({
      seenVersion: 3,
      note: '',
      lines: [{ partId: part(2), quantity: 1, damaged: 0, batch: '', place: 'C1' }],
    });
  });

  it('all of it came in one press, that stands to be read before it is recorded; some of it damaged', async () => {
    const { user, posted } = await openOrder(order(), () => ({ body: order() }));
    await user.click(await screen.findByRole('button', { name: 'Something came' }));
    await user.click(screen.getByRole('button', { name: 'All of it came' }));
    expect(screen.getByLabelText<HTMLInputElement>('47-2210: how many came').value).toBe('4');
    expect(posted()).toEqual([]);
    await user.clear(screen.getByLabelText('47-2210: how many came'));
    await user.type(screen.getByLabelText('47-2210: how many came'), '3');
    await user.type(screen.getByLabelText('47-2210: damaged'), '1');
    await user.type(screen.getByLabelText('47-2210: batch, optional'), 'L 77');
    await user.type(screen.getByLabelText('47-2220: put at'), 'C1');
    await user.type(screen.getByLabelText('Delivery note number, optional'), 'DN 118');
    await user.click(screen.getByRole('button', { name: 'Record what came' }));
    await waitFor(() => expect(posted()).toHaveLength(1));
    expect(posted()[0]!.body).toEqual({
      seenVersion: 3,
      note: 'DN 118',
      lines: [
        { partId: part(1), quantity: 3, damaged: 1, batch: 'L 77' },
        { partId: part(2), quantity: 1, damaged: 0, batch: '', place: 'C1' },
      ],
    });
  });

  it('that is late says so; another day is asked for, and the rest of a part ends with why', async () => {
    const { user, posted } = await openOrder(order({ late: true }));
    expect(await screen.findByText(/Late: promised for 5 Dec 2026/)).toBeTruthy();
    await user.click(screen.getByRole('button', { name: 'Another day' }));
    await user.click(screen.getByRole('button', { name: 'Record the day' }));
    expect(await screen.findByText('Enter the date')).toBeTruthy();
    await user.type(screen.getByLabelText('Promised for'), '2026-12-09');
    await user.click(screen.getByRole('button', { name: 'Record the day' }));
    await waitFor(() => expect(posted().at(-1)!.body).toEqual({ seenVersion: 3, expected: '2026-12-09' }));
    await user.click(screen.getByRole('button', { name: 'No more 47-2220 comes' }));
    await user.type(screen.getByLabelText('Why no more of it comes'), 'Not made any more');
    await user.click(screen.getByRole('button', { name: 'No more of it comes' }));
    await waitFor(() =>
      expect(posted().at(-1)).toMatchObject({
        path: `/api/stores/orders/${id}/ended`,
        body: { partId: part(2), reason: 'Not made any more' },
      }),
    );
    // A part of it came: it is not cancelled any more.
    expect(screen.queryByRole('button', { name: 'Cancel order 7' })).toBeNull();
  });
});

describe('an order that was not sent', () => {
  it('is changed, nought leaves a part out, and cancelled with why', async () => {
    const draft = order({
      status: 'draft',
      lines: [line(1), line(2)],
      sentAt: null,
      expected: null,
      version: 1,
    });
    const { user, posted } = await openOrder(draft);
    await user.click(await screen.findByRole('button', { name: 'Change it' }));
    const many = screen.getByLabelText('47-2210: how many');
    await user.clear(many);
    await user.type(many, 'six');
    await user.click(screen.getByRole('button', { name: 'Save order 7' }));
    expect(await screen.findByText('A whole number. Enter 0 to leave this out')).toBeTruthy();
    await user.clear(many);
    await user.type(many, '0');
    await user.click(screen.getByRole('button', { name: 'Save order 7' }));
    await waitFor(() =>
      expect(posted().at(-1)!.body).toMatchObject({
        id,
        seenVersion: 1,
        lines: [{ partId: part(2), quantity: 4 }],
      }),
    );
    await user.click(screen.getByRole('button', { name: 'Cancel order 7' }));
    await user.type(screen.getByLabelText('Why it is cancelled'), 'Found some');
    await user.click(screen.getAllByRole('button', { name: 'Cancel order 7' }).at(-1)!);
    await waitFor(() => expect(posted().at(-1)!.path).toBe(`/api/stores/orders/${id}/cancelled`));
  });
});

describe('what to order', () => {
  const proposed: Proposed[] = [
    {
      supplier: 'Quayside Bearings',
      lines: [
        {
          ...{
            partId: part(1),
            number: '47-2210',
            title: 'Seal 47-2210, hub seal',
            quantity: 5,
            price: null,
          },
          ...{ missing: 1, shortOn: '2099-12-05', orderBy: '2099-11-29', low: { free: 3, coming: 2 } },
        },
      ],
    },
  ];
  const answers: Answer = ({ path, method }) => {
    if (method === 'PUT') return { body: order({ status: 'draft' }) };
    if (path.startsWith('/api/stores/orders/proposed')) return { body: proposed };
    if (path.startsWith(`/api/stores/orders/${id}`)) return { body: order({ status: 'draft' }) };
    return { body: path.includes('status=closed') ? [order({ status: 'done', number: 3 })] : [] };
  };

  it('is said with why, and ordered of nobody before somebody writes it', async () => {
    const { user, posted } = await open('/stores?by=order', answers);
    const of = await screen.findByRole('region', { name: 'To order: Quayside Bearings' });
    expect(
      within(of).getByText('1 short from 5 Dec 2099, order by 29 Nov 2099, 3 free, 2 coming'),
    ).toBeTruthy();
    expect(posted()).toEqual([]);
    await user.click(within(of).getByRole('button', { name: 'Write this order to Quayside Bearings' }));
    expect(await screen.findByRole('heading', { name: 'Order 7, Quayside Bearings' })).toBeTruthy();
    expect(posted()[0]!.body).toMatchObject({ seenVersion: 0, lines: [{ partId: part(1), quantity: 5 }] });
  });

  it('a shortage says what is on order, and that what is late is not counted on', async () => {
    const short: Shortage = {
      part: {
        ...{ id: part(1), kind: 'seal', title: 'Hub seal', number: '47-2210', onHand: 3, reserved: 0 },
        ...{ places: [], reorderLevel: null, supersededBy: null },
      },
      ...{
        leadDays: 6,
        shortOn: '2026-12-05',
        first: 'Tern 1',
        missing: 1,
        orderBy: '2026-11-29',
        late: true,
      },
      onOrder: [{ orderId: id, orderNumber: 7, quantity: 4, expected: '2026-11-25', late: true }],
      demands: [{ date: '2026-12-05', quantity: 4, what: 'Tern 1, Tern 2' }],
      holdsUp: [],
    };
    await open('/stores?by=shortage', () => ({ body: [short] }));
    const row = await screen.findByRole('listitem');
    for (const words of [/1 short from 5 Dec 2026/, /4 on order 7, late since 25 Nov 2026: not counted on/])
      expect(within(row).getByText(words)).toBeTruthy();
    expect(within(row).getByText('Ordered today it is late: 6 days to come')).toBeTruthy();
    expect(within(row).getByText('Tern 1, Tern 2')).toBeTruthy();
  });
});
