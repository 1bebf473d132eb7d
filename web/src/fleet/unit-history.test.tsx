import { cleanup, screen, within } from '@testing-library/react';
import { afterEach, describe, expect, it, vi } from 'vitest';
import type { HistoryLine } from '@lanternwright/contract/fleet';
import { sessionOf } from '../people/testing/session.ts';
import { serveWith, show } from '../testing/fake-server.tsx';
import { UnitHistory } from './unit-history.tsx';
import { UnitJobs } from './unit-jobs.tsx';

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

describe('history of a wheel end', () => {
  it('shows its photos, each whole at a tap, and what was done, the rest on request', async () => {
    const many = Array.from({ length: 14 }, (_, i) => line(i + 1, `step ${i + 1}.`));
    serveWith(() => ({ body: [line(20, 'photo of the seal: lip torn', id(55)), ...many] }));
    const { user } = await show(<UnitHistory id={id(9)} position="2L" />, sessionOf(person));
    const photos = await screen.findByRole('region', { name: 'Photos of 2L' });
    const photo = within(photos).getByRole('img', { name: 'photo of the seal: lip torn' });
    expect(photo.closest('a')!.getAttribute('href')).toBe(`/api/jobs/photos/${id(55)}`);
    expect(within(photos).getByRole('link', { name: 'job 7' }).getAttribute('href')).toBe(
      `/jobs/${id(7)}?at=2L`,
    );
    expect(screen.queryByText(/step 14/)).toBeNull();
    await user.click(screen.getByRole('button', { name: 'All 15 lines' }));
    expect(screen.getByText(/step 14/)).toBeTruthy();
  });

  it('says that nothing was done, and has no room for photos that are not there', async () => {
    serveWith(() => ({ body: [] }));
    await show(<UnitHistory id={id(9)} position="1R" />, sessionOf(person));
    expect(await screen.findByText('Nothing was done on 1R yet.')).toBeTruthy();
    expect(screen.queryByRole('region', { name: /Photos/ })).toBeNull();
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
