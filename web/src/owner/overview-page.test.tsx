import { cleanup, screen, within } from '@testing-library/react';
import { afterEach, describe, expect, it, vi } from 'vitest';
import type { OwnAhead } from '@lanternwright/contract/estimates';
import { sessionOf } from '../people/testing/session.ts';
import { setShopZone, shopToday } from '../shell/words.ts';
import { serveWith, show } from '../testing/fake-server.tsx';
import { OverviewPage } from './overview-page.tsx';

afterEach(() => {
  cleanup();
  vi.unstubAllGlobals();
});

const id = (n: number) => `00000000-0000-4000-8000-${String(n).padStart(12, '0')}`;
const contact = { id: id(1), name: 'E. Tern', login: 'tern', role: 'owner-contact' as const };
const unit = (n: number, name: string) => ({
  ...{ id: id(n), name, kind: 'tractor' as const },
  owner: { id: id(2), name: 'Tern & Hollow Haulage' },
});
const money = (minor: number) => ({ currency: 'GBP', minor });
const nothing: OwnAhead = { asks: [], inShop: [], until: '2027-06-01', due: [], dueUnits: 0 };

async function open(ahead: OwnAhead) {
  setShopZone('UTC');
  serveWith(() => ({ body: ahead }));
  await show(<OverviewPage />, sessionOf(contact));
  await screen.findByRole('heading', { name: 'Waiting for your answer' });
}
const region = (name: string | RegExp) => within(screen.getByRole('region', { name }));

describe('where an owner begins', () => {
  it('has first what waits for their answer, with its total and until when it is valid', async () => {
    const job = { jobId: id(7), number: 811, title: 'Axle hubs, seals', unit: unit(3, 'Hollow 64') };
    const asks = [
      { ...job, writtenAt: '2026-12-01T09:00:00.000Z', total: money(32_610), until: '2026-12-31' },
    ];
    const stands = { wheelEnds: 4, released: 1, stopped: null, expected: '2026-12-03T15:00:00.000Z' };
    const held = {
      ...job,
      jobId: id(8),
      stopped: 'held' as const,
      wheelEnds: 2,
      released: 0,
      expected: null,
    };
    await open({ ...nothing, asks, inShop: [{ ...job, ...stands }, held] });
    const link = region('Waiting for your answer').getByRole('link');
    expect(link.getAttribute('href')).toBe(`/jobs/${id(7)}`);
    expect(link.textContent).toMatch(/Hollow 64.*valid until 31 Dec 2026.*326\.10 GBP/);
    expect(screen.getAllByRole('region')[0]).toBe(
      screen.getByRole('region', { name: 'Waiting for your answer' }),
    );
    const jobs = region('Open jobs')
      .getAllByRole('link')
      .map((l) => l.textContent);
    expect(jobs[0]).toMatch(/1 of 4 wheel ends released, planned until 3 Dec/);
    expect(jobs[1]).toMatch(/Held/i);
  });

  it('says what is due, what it takes and costs, and what has no price', async () => {
    const due = { position: '2L', work: 'seal' as const, dueOn: '2020-01-01' };
    const of = { dueOn: '2020-01-01', due: [due], bookedFrom: null, openJobId: null, hours: 2.25 };
    const later = { ...of, unit: unit(5, 'Tern 420'), dueOn: '2099-01-01', unpriced: 0, hours: 1.5 };
    await open({
      ...nothing,
      dueUnits: 70,
      due: [
        { ...of, unit: unit(4, 'Tern 419'), total: money(20_000), unpriced: 2 },
        { ...later, total: money(10_000), bookedFrom: `${shopToday()}T09:00:00.000Z` },
      ],
    });
    const part = region(/^Due until 1 Jun 2027/);
    const [first, second] = part.getAllByRole('link').map((l) => l.textContent);
    expect(first).toMatch(
      /Renew seals 2L.*Overdue since 1 Jan 2020, not booked.*200\.00 GBP.*without 2 parts/,
    );
    expect(second).toMatch(/Due 1 Jan 2099, booked for/);
    expect(second).not.toMatch(/without/);
    expect(part.getByText(/^The first 2 of 70 units/).textContent).toMatch(/3\.75 h and 300\.00 GBP/);
  });

  it('says that nothing waits and nothing is due where it is so', async () => {
    await open(nothing);
    expect(screen.getByText('No estimate is waiting for your answer.')).toBeTruthy();
    expect(screen.getByText(/No work with a known date/)).toBeTruthy();
    expect(screen.queryByRole('region', { name: 'Open jobs' })).toBeNull();
  });
});
