import { cleanup, screen, waitFor, within } from '@testing-library/react';
import { Route, Routes } from 'react-router';
import { afterEach, describe, expect, it, vi } from 'vitest';
import type { MeasuredPart, PartLine, StorePart } from '@lanternwright/contract/stores';
import { partSchema } from '@lanternwright/core/part';
import { quantity } from '@lanternwright/core/quantity';
import { sessionOf } from '../people/testing/session.ts';
import { refusedFor, serveWith, show, type Answer } from '../testing/fake-server.tsx';
import { PartPage } from './part-page.tsx';
import { StoresPage } from './stores-page.tsx';

afterEach(() => {
  cleanup();
  vi.unstubAllGlobals();
});

const id = '00000000-0000-4000-8000-000000000047';
const line: PartLine = {
  ...{ id, kind: 'seal', title: 'Hub seal of the drive axle', number: '47-2210', onHand: 4, reserved: 1 },
  ...{ places: [{ place: 'A3', quantity: 4 }], reorderLevel: 6, supersededBy: null },
};
const dims = { bore: quantity(114.3, 'mm'), outside: quantity(152.4, 'mm'), width: quantity(22, 'mm') };
const found: StorePart = {
  part: partSchema.parse({ id, kind: 'seal', title: line.title, number: line.number, dims }),
  ...{
    version: 3,
    changedAt: '2026-11-25T08:00:00.000Z',
    changedBy: 'Q. Farrow',
    onHand: 4,
    reserved: 0,
    cores: 0,
  },
  ...{ places: line.places, lent: [], reservations: [], movements: [], supersededBy: null, paid: [] },
};

async function open(at: string, role: 'storekeeper' | 'technician', answer: Answer) {
  // Sheets are those that come with the product.
  const asked = serveWith((one) => (one.path === '/api/sheets' ? { status: 404, body: {} } : answer(one)));
  const { user } = await show(
    <Routes>
      <Route path="/stores" element={<StoresPage />} />
      <Route path="/stores/:id" element={<PartPage />} />
    </Routes>,
    sessionOf({ id, name: 'Q. Farrow', login: 'farrow', role }),
    at,
  );
  return { asked, user };
}

describe('the store', () => {
  it('says how a part was found, what is free and where; who may not add is not asked to', async () => {
    const near = { ...line, found: { how: 'near' as const, number: '47-2210', distance: 1 } };
    const { asked, user } = await open('/stores', 'technician', () => ({
      body: { parts: [near], more: false },
    }));
    await user.type(screen.getByLabelText('Number, or words'), '47-2217');
    const row = await screen.findByRole('link', { name: /nearly 47-2210: look again/ });
    expect(within(row).getByText('4 here, 3 free')).toBeTruthy();
    expect(within(row).getByText('A3: 4, order again')).toBeTruthy();
    await waitFor(() => expect(asked.at(-1)!.path).toContain('text=47-2217'));
    expect(screen.queryByRole('button', { name: 'Add a part' })).toBeNull();
  });

  it('by a number that two parts go by: opens neither, and says so until one is found', async () => {
    const two = ['48', '49'].map((end) => ({
      ...{ ...line, id: id.slice(0, -2) + end, number: `47-22${end}` },
      found: { how: 'crossing', number: 'K 5510', distance: 0 },
    }));
    let parts = two;
    const { user } = await open('/stores', 'technician', () => ({ body: { parts, more: false } }));
    await user.type(screen.getByLabelText('Number, or words'), 'K 5510{Enter}');
    expect(await screen.findByText(/2 parts have this number\. Choose one/)).toBeTruthy();
    parts = [];
    await user.type(screen.getByLabelText('Number, or words'), '9{Enter}');
    await waitFor(() => expect(screen.queryByText(/parts have this number/)).toBeNull());
  });

  it('by measuring: asks for one size at the least, takes inches, says what fits and what to do', async () => {
    const measured = (number: string, fit: Partial<MeasuredPart['fit']>): MeasuredPart => ({
      ...{ ...line, id: `${id.slice(0, -2)}${number.slice(-2)}`, number, dims, lips: null },
      fit: { off: { width: 0 }, unknown: [], fits: true, lips: 'not-asked', far: 0, ...fit },
    });
    const answers = [
      measured('47-2210', {}),
      measured('47-2216', { fits: false, off: { bore: 0, width: 4 } }),
    ];
    const { asked, user } = await open('/stores?by=measure', 'technician', () => ({ body: answers }));
    await user.click(screen.getByRole('button', { name: 'Find what fits' }));
    expect(await screen.findByText('Measure one of them at the least')).toBeTruthy();
    await user.type(screen.getByLabelText('Bore, mm'), '4.5 in');
    await user.click(screen.getByRole('button', { name: 'Find what fits' }));
    expect(await screen.findByText('Fits: width the same')).toBeTruthy();
    expect(screen.getByText(/width 4 mm more/)).toBeTruthy();
    expect(screen.getByRole('link', { name: 'Reckon its depth' }).getAttribute('href')).toBe(
      '/reckoner/seal-seat',
    );
    expect(asked.at(-1)!.path).toContain('bore=114.3');
  });

  it('a part is added: what is wrong stands at its field, nothing is sent before it is right', async () => {
    const { asked, user } = await open('/stores', 'storekeeper', ({ method, path }) =>
      method === 'PUT' || path.endsWith(id) ? { body: found } : { body: { parts: [], more: false } },
    );
    await user.click(screen.getByRole('button', { name: 'Add a part' }));
    await user.click(screen.getByRole('button', { name: 'Put it on the list' }));
    expect(await screen.findByText('Choose what it is')).toBeTruthy();
    await user.selectOptions(screen.getAllByLabelText('What it is')[0]!, 'Seal');
    await user.type(screen.getByLabelText('Number'), '47-2210');
    await user.type(screen.getByLabelText('In words'), 'Hub seal');
    await user.type(screen.getByLabelText(/^Bore/), '152.4');
    await user.type(screen.getByLabelText(/^Outside/), '114.3');
    await user.click(screen.getByRole('button', { name: 'Put it on the list' }));
    expect(await screen.findByText('Must be over the bore')).toBeTruthy();
    expect(asked.filter((a) => a.method === 'PUT')).toEqual([]);
    await user.clear(screen.getByLabelText(/^Bore/));
    await user.type(screen.getByLabelText(/^Bore/), '4.5 in');
    await user.clear(screen.getByLabelText(/^Outside/));
    await user.type(screen.getByLabelText(/^Outside/), '152.4');
    await user.type(screen.getByLabelText(/^Price of one/), '1,250');
    await user.click(screen.getByRole('button', { name: 'Put it on the list' }));
    expect(await screen.findByText('"1,250" could be 1.25 or 1250: type the one you mean')).toBeTruthy();
    await user.clear(screen.getByLabelText(/^Price of one/));
    await user.type(screen.getByLabelText(/^Price of one/), '41,85');
    await user.click(screen.getByRole('button', { name: 'Add where it fits' }));
    await user.click(screen.getByRole('button', { name: 'Put it on the list' }));
    expect(await screen.findByText('Choose the sheet')).toBeTruthy();
    await user.selectOptions(screen.getByLabelText('Sheet 1'), 'a-drive-tang');
    await user.selectOptions(screen.getByLabelText('As 1'), 'Hub seal');
    await user.click(screen.getByRole('button', { name: 'Put it on the list' }));
    await waitFor(() => expect(asked.some((a) => a.method === 'PUT')).toBe(true));
    expect(asked.find((a) => a.method === 'PUT')!.body).toMatchObject({
      seenVersion: 0,
      part: {
        fits: [{ sheetId: 'a-drive-tang', line: 'part:hub-seal' }],
        number: '47-2210',
        dims: { bore: { value: 4.5, unit: 'in' } },
        price: { minor: 4185 },
      },
    });
  });
});

describe('a part', () => {
  it('is replaced by a part that the store knows, and by no other', async () => {
    const next = { ...line, id: '00000000-0000-4000-8000-000000000048', number: '47-2216' };
    const { asked, user } = await open(`/stores/${id}`, 'storekeeper', ({ path }) => {
      if (!path.startsWith('/api/stores/parts?')) return { body: found };
      const parts = path.includes('47-2216')
        ? [{ ...next, found: { how: 'same', number: '47-2216', distance: 0 } }]
        : [{ ...next, found: { how: 'near', number: '47-2216', distance: 1 } }];
      return { body: { parts, more: false } };
    });
    await user.click(await screen.findByRole('button', { name: 'Change' }));
    const field = screen.getByLabelText(/^Replaced by the part of this number/);
    await user.type(field, '47-2219');
    await user.click(screen.getByRole('button', { name: 'Save 47-2210' }));
    expect(await screen.findByText('No part of the store has this number')).toBeTruthy();
    expect(asked.some((a) => a.method === 'PUT')).toBe(false);
    await user.clear(field);
    await user.type(field, '47-2216');
    await user.click(screen.getByRole('button', { name: 'Save 47-2210' }));
    await waitFor(() =>
      expect(asked.find((a) => a.method === 'PUT')?.body).toMatchObject({ part: { supersededBy: next.id } }),
    );
  });

  it('of a grease what thickens it is told, and the batch of what comes', async () => {
    const grease: StorePart = {
      ...found,
      part: partSchema.parse({ id, kind: 'lubricant', title: 'Blue 2', number: 'LG 2', category: 'GC-LB' }),
    };
    const { asked, user } = await open(`/stores/${id}`, 'storekeeper', () => ({ body: grease }));
    expect(await screen.findByText('GC-LB')).toBeTruthy();
    await user.click(screen.getByRole('button', { name: 'Change' }));
    await user.selectOptions(screen.getByLabelText(/^Thickened with/), 'lithium-complex');
    await user.click(screen.getByRole('button', { name: 'Save LG 2' }));
    await waitFor(() =>
      expect(asked.find((a) => a.method === 'PUT')?.body).toMatchObject({
        part: { thickener: 'lithium-complex', category: 'GC-LB' },
      }),
    );
    await user.click(screen.getByRole('button', { name: 'Receive' }));
    await user.type(screen.getByLabelText('How many'), '12');
    await user.type(screen.getByLabelText(/^Batch on it/), 'L 4711');
    await user.click(screen.getByRole('button', { name: 'Put them on the shelf' }));
    await waitFor(() =>
      expect(asked.find((a) => a.method === 'POST')?.body).toMatchObject({
        movement: { what: 'received', quantity: 12, batch: 'L 4711' },
      }),
    );
  });

  it('says what was paid for it, and by how much that has changed', async () => {
    const at = (day: string) => `2026-${day}T08:00:00.000Z`;
    const paid = [
      { at: at('11-20'), price: { currency: 'GBP', minor: 4687 }, orderNumber: 12 },
      { at: at('06-02'), price: { currency: 'GBP', minor: 4185 }, orderNumber: null },
    ];
    await open(`/stores/${id}`, 'storekeeper', () => ({ body: { ...found, paid } }));
    const rows = within((await screen.findByRole('heading', { name: 'Paid for one' })).closest('section')!);
    const [newest, oldest] = rows.getAllByRole('listitem');
    expect(newest!.textContent).toMatch(/order 12.*46\.87.*\+12 %/);
    expect(oldest!.textContent).toMatch(/41\.85/);
    expect(oldest!.textContent).not.toContain('%');
  });

  it('is counted: the number is asked, a refusal stands at its field and nothing typed is lost', async () => {
    let refuse = true;
    const { asked, user } = await open(`/stores/${id}`, 'storekeeper', ({ method }) => {
      if (method === 'GET') return { body: found };
      return refuse
        ? refusedFor('reason', 'The record shows 4 at A3. Enter a reason for the difference')
        : { body: found };
    });
    await user.click(await screen.findByRole('button', { name: 'Count' }));
    await user.click(screen.getByRole('button', { name: 'Record the count' }));
    expect(await screen.findByText('A whole number')).toBeTruthy();
    await user.type(screen.getByLabelText('Quantity on hand'), '3');
    await user.click(screen.getByRole('button', { name: 'Record the count' }));
    expect(await screen.findByText(/The record shows 4 at A3/)).toBeTruthy();
    refuse = false;
    await user.type(screen.getByLabelText(/Why it is otherwise/), 'One went without a record');
    await user.click(screen.getByRole('button', { name: 'Record the count' }));
    await waitFor(() => expect(screen.queryByRole('form', { name: 'Count' })).toBeNull());
    const [first, second] = asked
      .filter((a) => a.method === 'POST')
      .map((a) => a.body as { recordId: string });
    expect(second).toMatchObject({
      recordId: first!.recordId,
      movement: { what: 'counted', quantity: 3, place: 'A3', reason: 'One went without a record' },
    });
  });

  it('is looked at by a technician, who is offered nothing of the storekeeper’s', async () => {
    await open(`/stores/${id}`, 'technician', () => ({ body: found }));
    expect(await screen.findByRole('heading', { name: '47-2210' })).toBeTruthy();
    expect(screen.queryByRole('button', { name: 'Receive' })).toBeNull();
  });
});
