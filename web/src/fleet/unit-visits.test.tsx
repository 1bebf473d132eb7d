import { cleanup, screen, waitFor, within } from '@testing-library/react';
import { afterEach, describe, expect, it, vi } from 'vitest';
import type { HistoryLine, Visit } from '@lanternwright/contract/fleet';
import { sessionOf } from '../people/testing/session.ts';
import { serveWith, show } from '../testing/fake-server.tsx';
import { UnitJobs } from './unit-jobs.tsx';
import { UnitVisits } from './unit-visits.tsx';

afterEach(() => {
  cleanup();
  vi.unstubAllGlobals();
});

const id = (n: number) => `00000000-0000-4000-8000-${String(n).padStart(12, '0')}`;
const person = { id: id(1), name: 'I. Okonedo', login: 'okonedo', role: 'supervisor' as const };
const line = (n: number, text: string, photoId: string | null = null): HistoryLine => ({
  ...{ at: `2026-03-${String(n).padStart(2, '0')}T08:00:00.000Z`, by: 'D. Achterberg', text: `2L, ${text}` },
  ...{ jobId: id(7), jobNumber: 7, position: '2L', photoId },
});

const visit = (n: number, more: Partial<Visit> = {}): Visit => ({
  ...{ jobId: id(7), jobNumber: n, title: 'Seals', openedAt: '2024-03-05T08:00:00.000Z' },
  ...{ closedAt: '2024-03-06T08:00:00.000Z', works: ['seal'], asFoundMm: 0.2, asLeftMm: 0.08 },
  ...{ verdict: 'in-band', parts: [], who: 'D. Achterberg', photos: [], ...more },
});

describe('what was done on a wheel end', () => {
  it('is a line a visit with its year, play and parts; unfolded, every record; its photos whole at a tap', async () => {
    const photo = { ...line(20, 'photo of the seal: lip torn'), photoId: id(55) };
    const part = { id: id(40), number: '47-2210', title: 'Hub seal', quantity: 2, batch: 'L 4712' };
    const asked = serveWith(({ path }) =>
      path.includes('/visits')
        ? { body: { total: 1, rows: [visit(7, { parts: [part], photos: [photo] })] } }
        : { body: [line(14, 'step 14.')] },
    );
    const { user } = await show(<UnitVisits id={id(9)} position="2L" />, sessionOf(person));
    const row = (await screen.findByText('5 Mar 2024')).closest('li')!;
    expect(row.textContent).toMatch(/Seal, renew.*found 0.0079 in, left 0.0031 in/);
    expect(row.textContent).toMatch(/2 × 47-2210 Hub seal, batch L 4712/);
    expect(within(row).getByRole('link', { name: 'Service record' }).getAttribute('href')).toBe(
      `/api/exchange/jobs/${id(7)}/record.pdf`,
    );
    expect(screen.queryByText(/step 14/)).toBeNull();
    await user.click(within(row).getByRole('button', { name: 'Every record' }));
    expect(await screen.findByText(/step 14/)).toBeTruthy();
    expect(asked.at(-1)!.path).toMatch(new RegExp(`history\\?.*job=${id(7)}`));
    const photos = screen.getByRole('region', { name: 'Photos of 2L' });
    const image = within(photos).getByRole('img', { name: 'photo of the seal: lip torn' });
    expect(image.closest('a')!.getAttribute('href')).toBe(`/api/jobs/photos/${id(55)}`);
  });

  it('is searched, from its first page, and turned over a page at a time', async () => {
    const asked = serveWith(() => ({
      body: { total: 12, rows: [visit(7, { closedAt: null, asFoundMm: null, asLeftMm: null })] },
    }));
    const { user } = await show(<UnitVisits id={id(9)} position="2L" />, sessionOf(person));
    const row = (await screen.findByText('5 Mar 2024')).closest('li')!;
    expect(row.textContent).toMatch(/Seal, renew, open.*not measured.*Traveller/);
    await user.click(screen.getByRole('button', { name: 'Next page' }));
    await waitFor(() => expect(asked.at(-1)!.path).toMatch(/page=2/));
    await user.type(screen.getByLabelText('Search its visits'), 'seal');
    await waitFor(() => expect(asked.at(-1)!.path).toMatch(/page=1.*search=seal|search=seal.*page=1/));
  });

  it('says that nothing was done, and has no room for photos that are not there', async () => {
    serveWith(() => ({ body: { total: 0, rows: [] } }));
    const { user } = await show(<UnitVisits id={id(9)} position="1R" />, sessionOf(person));
    expect(await screen.findByText('Nothing was done on 1R yet.')).toBeTruthy();
    expect(screen.queryByRole('region', { name: /Photos/ })).toBeNull();
    await user.type(screen.getByLabelText('Search its visits'), 'x');
    expect(await screen.findByText('No visit says “x”.')).toBeTruthy();
  });
});

describe('jobs of a unit', () => {
  const job = (number: number, openedAt: string, closedAt: string | null) => ({
    ...{ id: id(number), number, title: `Seals ${number}`, openedAt, closedAt },
  });
  const jobs = [
    job(30, '2026-02-01T08:00:00.000Z', null),
    job(29, '2026-01-01T08:00:00.000Z', '2026-01-02T08:00:00.000Z'),
    ...Array.from({ length: 12 }, (_, i) =>
      job(20 - i, '2024-05-01T08:00:00.000Z', '2024-05-02T08:00:00.000Z'),
    ),
  ];

  it('stand by year, all of them, the newest year open, each with its paper', async () => {
    await show(<UnitJobs jobs={jobs} />, sessionOf(person));
    const years = screen.getAllByRole('group');
    expect(
      years.map((y) => [y.querySelector('summary')!.textContent, (y as HTMLDetailsElement).open]),
    ).toEqual([
      ['2026 2 jobs', true],
      ['2024 12 jobs', false],
    ]);
    expect(screen.getByRole('link', { name: 'Traveller of job 30' }).getAttribute('href')).toBe(
      `/api/exchange/jobs/${id(30)}/traveller.pdf`,
    );
    expect(screen.getByRole('link', { name: 'Service record of job 29' })).toBeTruthy();
  });
});
