import { cleanup, screen } from '@testing-library/react';
import { afterEach, describe, expect, it, vi } from 'vitest';
import type { UnitCosts as Costs } from '@lanternwright/contract/stores';
import { sessionOf } from '../people/testing/session.ts';
import { serveWith, show } from '../testing/fake-server.tsx';
import { UnitCosts } from './unit-costs.tsx';

afterEach(() => {
  cleanup();
  vi.unstubAllGlobals();
});

const id = '00000000-0000-4000-8000-000000000047';
const costs: Costs = {
  ...{ currency: 'GBP', since: '2024-03-01', km: 60_000, otherCurrency: 1 },
  wheelEnds: [
    { position: '2L', jobs: 2, minor: 24_000, minorPer10000Km: 4_000 },
    { position: '2R', jobs: 1, minor: 15_000, minorPer10000Km: null },
  ],
};

async function open(body: Costs) {
  serveWith(() => ({ body }));
  const person = { id, name: 'I. Okonedo', login: 'okonedo', role: 'supervisor' as const };
  await show(<UnitCosts unitId={id} />, sessionOf(person));
}

describe('what a unit costs', () => {
  it('is said by wheel end and by distance, over what, and what was left out', async () => {
    await open(costs);
    const rows = await screen.findAllByRole('row');
    expect(rows.map((r) => r.textContent)).toEqual([
      'Wheel endBilledPer 10,000 km',
      expect.stringMatching(/^2L 2 jobs240\.00.*40\.00/),
      expect.stringMatching(/^2R 1 job150\.00.*–$/),
    ]);
    expect(screen.getByText(/over 60,000 km since 1 Mar 2024\. 1 in another currency left out/)).toBeTruthy();
  });

  it('says nothing where nothing was billed', async () => {
    await open({ ...costs, wheelEnds: [], otherCurrency: 0 });
    await new Promise((done) => setTimeout(done, 50));
    expect(screen.queryByRole('table')).toBeNull();
  });
});
