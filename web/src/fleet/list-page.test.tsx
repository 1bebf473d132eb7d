import { cleanup, screen, waitFor, within } from '@testing-library/react';
import { afterEach, beforeEach, describe, expect, it, vi } from 'vitest';
import { sessionOf } from '../people/testing/session.ts';
import { workbook } from '../testing/workbook.ts';
import { serveWith, show, type Answer } from '../testing/fake-server.tsx';
import { FleetListPage } from './list-page.tsx';

beforeEach(() => localStorage.clear());
afterEach(() => {
  cleanup();
  vi.unstubAllGlobals();
});

const session = sessionOf({
  id: '00000000-0000-4000-8000-000000000001',
  name: 'I. Okonedo',
  login: 'okonedo',
  role: 'supervisor',
});
const csv = [
  'Fleet no.;Make;Model;Reg;Odometer;Type;Axles',
  'K 101;Harrow;HX;KF 101;611 240;Tractor unit;4x2',
  'K 102;Harrow;HX;KF 102;402 118;Tractor unit;4x2',
  'K 201;;;KF 201;;Curtainsider;',
  'K 101;;;KF 109;;Tractor unit;4x2',
  'K 501;Pelican;Dart;KF 501;;Runabout;2',
].join('\n');
const nothingBad = { good: [], bad: [], goodCount: 4, badCount: 0 };

async function open(
  text: string | Uint8Array<ArrayBuffer>,
  name = 'fleet.csv',
  answer: Answer = () => ({ body: nothingBad }),
) {
  const asked = serveWith((one) => {
    if (one.path === '/api/fleet/owners' || one.path === '/api/sheets') return { body: [] };
    return answer(one);
  });
  const { user } = await show(<FleetListPage />, session);
  await user.upload(screen.getByLabelText('Choose a list'), new File([text], name, { type: 'text/csv' }));
  return { asked, user };
}
const hold = () =>
  screen.findByRole<HTMLButtonElement>('button', { name: /^Check \d+ units? against the fleet$/ });
const sent = (asked: { path: string; body: unknown }[], path: string) =>
  (asked.findLast((a) => a.path === path)?.body as { csv: string } | undefined)?.csv.split('\r\n');

describe('a list of units', () => {
  it('is asked for what it does not tell, and then stands as units with their plans', async () => {
    const { asked, user } = await open(csv);
    const columns = within(await screen.findByRole('region', { name: 'What each column is' }));
    expect(columns.getByLabelText<HTMLSelectElement>('Reg').value).toBe('plate');
    expect(columns.getByLabelText<HTMLSelectElement>('Odometer').value).toBe('distance');
    // Neither an owner nor what the odometer counts is made up.
    expect((await hold()).textContent).toMatch(/^Check 0 units/);
    expect(screen.getByText(/Does the odometer count km or miles\?/)).toBeTruthy();
    await user.type(columns.getByLabelText('Whose they are'), 'Kestrel Freight');
    await user.selectOptions(columns.getByLabelText('The odometer counts'), 'Kilometres');
    const kinds = within(screen.getByRole('region', { name: 'What their words mean' }));
    expect(kinds.getByLabelText<HTMLSelectElement>('curtainsider, 1 row').value).toBe('semi-trailer');
    await user.selectOptions(kinds.getByLabelText('runabout, 1 row'), 'Van or light truck');
    const plan = within(screen.getByRole('region', { name: 'Plan of Semi-trailer' }));
    await user.click(plan.getByRole('button', { name: /three axles/ }));
    const units = within(screen.getByRole('region', { name: '4 units' }));
    expect(units.getByText('611,240 km')).toBeTruthy();
    expect(screen.getByText(/line 2 has this number already/)).toBeTruthy();
    await user.click(await hold());
    await waitFor(() => expect(sent(asked, '/api/exchange/fleet/preview')).toHaveLength(1 + 2 + 2 + 3 + 2));
    expect(sent(asked, '/api/exchange/fleet/preview')![1]).toBe(
      'Kestrel Freight,K 101,tractor,KF 101,611240 km,,1,steer,single,drum,d-steer-18,,',
    );
  });

  it('leaves out what the shop has, by its own line, and remembers what was said', async () => {
    const { asked, user } = await open(`${csv}\n`, 'fleet.csv', ({ path }) =>
      path === '/api/exchange/fleet/preview'
        ? {
            body: { ...nothingBad, bad: [{ line: 4, name: 'K 102', reason: 'Tern 4 has the plate KF 102' }] },
          }
        : { body: { ...nothingBad, goodCount: 1 } },
    );
    await user.type(await screen.findByLabelText('Whose they are'), 'Kestrel Freight');
    await user.selectOptions(screen.getByLabelText('The odometer counts'), 'Kilometres');
    await user.click(await hold());
    expect(await screen.findByText(/Tern 4 has the plate KF 102/)).toBeTruthy();
    // The first line of the second unit is line 3 of the list.
    expect(screen.getByText('line 3')).toBeTruthy();
    await user.click(screen.getByRole('button', { name: /^Bring in 1 unit, leave 2 rows out$/ }));
    expect(await screen.findByText(/1 units? (is|are) in/)).toBeTruthy();
    expect(sent(asked, '/api/exchange/fleet')!.filter((l) => l.includes('K 102'))).toEqual([]);
    cleanup();
    await open(csv);
    expect((await screen.findByLabelText<HTMLSelectElement>('The odometer counts')).value).toBe('km');
  });

  it('a column that is chosen for a field is the only one for it; a change asks the shop anew', async () => {
    const { user } = await open(csv);
    await user.type(await screen.findByLabelText('Whose they are'), 'Kestrel Freight');
    await user.selectOptions(screen.getByLabelText('The odometer counts'), 'Kilometres');
    await user.click(await hold());
    await screen.findByRole('button', { name: /^Bring in/ });
    await user.selectOptions(screen.getByLabelText('Model'), 'Plate');
    expect(screen.getByLabelText<HTMLSelectElement>('Reg').value).toBe('');
    expect(await hold()).toBeTruthy();
  });

  it('mends a row where it stands, and hands out the rest as a file with the reasons', async () => {
    const saved: Blob[] = [];
    vi.stubGlobal(
      'URL',
      Object.assign(URL, {
        createObjectURL: (b: Blob) => (saved.push(b), 'blob:1'),
        revokeObjectURL: vi.fn(),
      }),
    );
    const { user } = await open(`${csv}\nK 601;;;;;Tractor unit;many`);
    await user.type(await screen.findByLabelText('Whose they are'), 'Kestrel Freight');
    await user.selectOptions(screen.getByLabelText('The odometer counts'), 'Kilometres');
    expect(screen.getByRole('heading', { name: '2 rows are left out' })).toBeTruthy();
    const cell = screen.getByLabelText<HTMLInputElement>('Fleet no., line 5');
    await user.clear(cell);
    await user.type(cell, 'K 103{Enter}');
    expect(screen.getByRole('heading', { name: '1 row is left out' })).toBeTruthy();
    expect(within(screen.getByRole('region', { name: '3 units' })).getByText('K 103')).toBeTruthy();
    await user.click(screen.getByRole('button', { name: 'Save these rows as a file' }));
    await waitFor(() => expect(saved).toHaveLength(1));
    expect((await saved[0]!.text()).split('\r\n')).toEqual([
      'Fleet no.,Make,Model,Reg,Odometer,Type,Axles,Why it was left out',
      'K 601,,,,,Tractor unit,many,axles: “many” is no number of axles',
      '',
    ]);
  });

  it('says how it read the letters, and reads them otherwise; a figure that could be two things is asked once', async () => {
    const bytes = Uint8Array.from(
      'Unit,Type,Odometer\nPe\u00f1a 1,Coach,61,240\n'.replace('61,240', '"61,240"'),
      (c) => c.charCodeAt(0),
    );
    const { user } = await open(bytes);
    const letters = await screen.findByLabelText<HTMLSelectElement>('Text encoding');
    expect(letters.value).toBe('windows-1252');
    await user.selectOptions(letters, 'windows-1251');
    await waitFor(() =>
      expect(screen.getByLabelText<HTMLSelectElement>('Text encoding').value).toBe('windows-1251'),
    );
    expect(screen.getByText('Pe\u0441a 1')).toBeTruthy();
    const odometer = screen.getByLabelText('Odometer: “61,240” is');
    await user.selectOptions(odometer, '61,240 mi');
    await user.type(screen.getByLabelText('Whose they are'), 'Pe');
    await user.click(screen.getByRole('button', { name: /Bus, two axles/ }));
    expect(screen.getByText('61,240 mi')).toBeTruthy();
    expect(screen.queryByLabelText('The odometer counts')).toBeNull();
  });

  it('takes the sheet and the line of the heads that somebody chooses', async () => {
    const file = workbook({
      Fleet: [['Fleet of March'], ['Unit', 'Plate', 'Type'], ['T1', 'TH 11', 'Coach']],
      Old: [
        ['Unit', 'Type'],
        ['T0', 'Coach'],
        ['T9', 'Coach'],
      ],
    });
    const { user } = await open(file, 'fleet.xlsx');
    const heads = await screen.findByLabelText<HTMLSelectElement>('Column headings are in');
    expect(heads.selectedOptions[0]?.textContent).toBe('Line 2: Unit · Plate · Type');
    await user.selectOptions(screen.getByLabelText('Sheet'), 'Old');
    expect(await screen.findByLabelText('coach, 2 rows')).toBeTruthy();
    await user.selectOptions(screen.getByLabelText('Column headings are in'), 'Line 2: T0 · Coach');
    expect(await screen.findByLabelText('T0')).toBeTruthy();
  });

  it.each([
    ['fleet.csv', 'Number,Plate\n', /fleet\.csv has no rows under its head/],
    ['fleet.xls', 'x', /of an old form: save it as XLSX or CSV/],
    ['fleet.xlsx', 'no workbook', /fleet\.xlsx cannot be read/],
  ])('%s that is no list is refused in words', async (name, text, words) => {
    await open(text, name);
    expect(await screen.findByText(words)).toBeTruthy();
  });
});
