import { cleanup, screen, waitFor, within } from '@testing-library/react';
import { useLocation } from 'react-router';
import { afterEach, beforeEach, describe, expect, it, vi } from 'vitest';
import type { FleetOverview, FleetPage as Listed, UnitSummary } from '@lanternwright/contract/fleet';
import { sessionOf } from '../people/testing/session.ts';
import { serveWith, show, type Asked } from '../testing/fake-server.tsx';
import { FleetPage } from './fleet-page.tsx';

afterEach(() => {
  cleanup();
  vi.unstubAllGlobals();
});

const id = (n: number) => `00000000-0000-4000-8000-${String(n).padStart(12, '0')}`;
const supervisor = sessionOf({ id: id(1), name: 'I. Okonedo', login: 'okonedo', role: 'supervisor' });
const owners = [
  { id: id(2), name: 'Drift & Heather', units: 61, needing: 1 },
  { id: id(3), name: 'Tern & Hollow', units: 1, needing: 0 },
];
const unit = (n: number, name: string, owner = owners[0]!): UnitSummary => ({
  ...{
    id: id(n),
    name,
    owner,
    kind: 'tractor',
    plate: `P ${n}`,
    meterKm: 1_000,
    hours: null,
    meterDate: null,
  },
  axles: [{ id: id(90 + n), number: 1, role: 'steer', wheels: 'single', brake: 'drum' }],
  wheelEnds: ['1L', '1R'].map((position) => ({
    ...{ position, state: position === '1L' ? 'loose' : 'in-band', endPlayMm: 0.3 },
    ...{ readAt: '2026-03-01T08:00:00.000Z', readKm: null, outOfService: null, left: null },
  })),
  openJobId: null,
});
const fleet = { units: 62, standing: { loose: 1 } };
const overview: FleetOverview = {
  needing: [{ unit: unit(10, 'Drift 9'), followUps: 1, due: 2 }],
  ...{ total: 13, owners, fleet },
};
const listed = (units: UnitSummary[], total = units.length): Listed => ({
  ...{ units, total, fleet },
  ofOwner: Object.fromEntries(units.map((u) => [u.owner.id, total])),
});

let asked: Asked[];
beforeEach(() => {
  window.scrollTo = () => undefined;
  asked = serveWith(({ path }) => {
    if (path.startsWith('/api/fleet/owners')) return { body: owners };
    if (path.startsWith('/api/fleet/overview')) return { body: overview };
    return path.includes(`owner=${owners[1]!.id}`)
      ? { body: listed([unit(20, 'Tern 1', owners[1])]) }
      : { body: listed([unit(10, 'Drift 9')], 61) };
  });
});

function Address() {
  return <output>{useLocation().search}</output>;
}
/** The page at an address, which the browser's own bar has too. */
async function open(at: string) {
  window.history.replaceState(null, '', at);
  return show(
    <>
      <FleetPage />
      <Address />
    </>,
    supervisor,
    at,
  );
}
const address = () => screen.getByRole('status').textContent;

describe('the fleet', () => {
  it('begins with what needs something, and says what and whose', async () => {
    await open('/fleet');
    const needing = await screen.findByRole('region', { name: '13 units need something' });
    const row = within(needing).getByRole('link', { name: /Drift 9/ });
    expect(row.textContent).toMatch(/Drift & Heather/);
    expect(row.textContent).toMatch(/1L loose/);
    expect(row.textContent).toMatch(/1 follow-up due, 2 works overdue/);
    expect(row.getAttribute('href')).toBe(`/fleet/${id(10)}`);
    expect(screen.getByRole('button', { name: 'Next page' })).toBeTruthy();
  });

  it('turns the page of what needs something in the address', async () => {
    const { user } = await open('/fleet');
    await user.click(await screen.findByRole('button', { name: 'Next page' }));
    await waitFor(() => expect(address()).toBe('?page=2'));
    expect(asked.map((a) => a.path)).toContain('/api/fleet/overview?page=2');
    expect(screen.getByRole('button', { name: 'Next page' })).toHaveProperty('disabled', true);
    await user.click(screen.getByRole('button', { name: 'Previous page' }));
    await waitFor(() => expect(address()).toBe(''));
  });

  it('folds owners: one is asked for when it is opened, and stands open in the address', async () => {
    const { user } = await open('/fleet');
    const owner = await screen.findByRole('button', { name: /Tern & Hollow\s*1 unit$/ });
    expect(owner.getAttribute('aria-expanded')).toBe('false');
    expect(asked.some((a) => a.path.startsWith('/api/fleet/units'))).toBe(false);
    await user.click(owner);
    expect(await screen.findByRole('link', { name: /Tern 1/ })).toBeTruthy();
    expect(address()).toBe(`?open=${owners[1]!.id}`);
    await user.click(owner);
    await waitFor(() => expect(screen.queryByRole('link', { name: /Tern 1/ })).toBeNull());
    expect(address()).toBe('');
  });

  it('leads from the first page of a large owner to all of them', async () => {
    await open(`/fleet?open=${owners[0]!.id}`);
    const all = await screen.findByRole('link', { name: 'All 61 units of Drift & Heather' });
    expect(all.getAttribute('href')).toBe(`/fleet?owner=${owners[0]!.id}`);
  });

  it('shows what fits a filter instead, by owner, until the filters are cleared', async () => {
    const { user } = await open('/fleet?state=loose&page=2');
    expect(await screen.findByText('61 units fit')).toBeTruthy();
    expect(screen.queryByText(/need something/)).toBeNull();
    expect(asked.map((a) => a.path)).toContain('/api/fleet/units?page=2&state=loose');
    await user.selectOptions(screen.getByLabelText('Kind'), 'tractor');
    // Another choice begins at the first page again.
    await waitFor(() => expect(address()).toBe('?state=loose&kind=tractor'));
    await user.click(screen.getByRole('button', { name: 'Clear the filters' }));
    expect(await screen.findByText('13 units need something')).toBeTruthy();
    expect(address()).toBe('');
  });

  it('does not call back whoever follows a link right after typing; what is typed on is looked for', async () => {
    const { user } = await open('/fleet');
    const row = await screen.findByRole('link', { name: /Drift 9/ });
    await user.type(screen.getByLabelText('Search the fleet'), 'drift');
    await user.click(row);
    await new Promise((resolve) => setTimeout(resolve, 400));
    expect(address()).toBe('');
    await user.type(screen.getByLabelText('Search the fleet'), ' 9');
    await waitFor(() => expect(address()).toBe('?search=drift+9'));
  });
});
