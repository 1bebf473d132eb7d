import { cleanup, screen, waitFor } from '@testing-library/react';
import { afterEach, describe, expect, it, vi } from 'vitest';
import type { UnitDetail } from '@lanternwright/contract/fleet';
import { layouts, positionsOf } from '@lanternwright/core/axle-plan';
import { sessionOf } from '../people/testing/session.ts';
import { refusedFor, serveWith, show, type Answer } from '../testing/fake-server.tsx';
import { jobLink, worksAsked } from './job-link.ts';
import { NewJob } from './new-job.tsx';

afterEach(() => {
  cleanup();
  vi.unstubAllGlobals();
});

const id = '00000000-0000-4000-8000-000000000011';
const axles = layouts
  .find((l) => l.id === 'tractor-2')!
  .axles.map((axle, i) => ({ ...axle, id: `00000000-0000-4000-8000-00000000002${i}`, number: i + 1 }));
/** A tractor whose hubs are all oiled. */
const unit = {
  ...{ id, name: 'Tern 418', kind: 'tractor', axles, meterKm: 611_300, hours: null, meterDate: '2026-11-01' },
  wheelEnds: positionsOf(axles).map((position) => ({
    ...{
      position,
      state: 'in-band',
      endPlayMm: null,
      readAt: null,
      readKm: null,
      outOfService: null,
      left: null,
    },
  })),
} as Partial<UnitDetail> as UnitDetail;

async function open(
  of: UnitDetail = unit,
  answer: Answer = () => ({ body: { id, number: 812 } }),
  address: string | null = null,
) {
  const requests = serveWith(answer);
  const asked = address === null ? null : worksAsked(new URLSearchParams(address));
  const person = sessionOf({ id, name: 'D. Achterberg', login: 'achterberg', role: 'technician' });
  const { user } = await show(<NewJob unit={of} asked={asked} onClose={() => undefined} />, person);
  return { user, sent: () => requests.filter((a) => a.method === 'POST').map((a) => a.body) };
}

describe('a new job', () => {
  it('opened for a booking has its wheel ends and works, and says whose it is', async () => {
    const bookingId = '00000000-0000-4000-8000-000000000031';
    const works = [
      { position: '2L', work: 'seal' as const },
      { position: '2R', work: 'seal' as const },
      // What this unit has not, or cannot have done, is left out.
      { position: '9L', work: 'seal' as const },
      { position: '2R', work: 'kingpin' as const },
    ];
    const { user, sent } = await open(unit, undefined, jobLink(id, works, bookingId).split('?')[1]!);
    expect(screen.getByRole('checkbox', { name: '2L' })).toHaveProperty('checked', true);
    expect(screen.getByRole('checkbox', { name: '1L' })).toHaveProperty('checked', false);
    await user.click(screen.getByRole('button', { name: 'Open the job on 2L, 2R' }));
    await waitFor(() => expect(sent()).toHaveLength(1));
    expect(sent()[0]).toMatchObject({ bookingId });
    const ends = (sent()[0] as { wheelEnds: { position: string; works: string[] }[] }).wheelEnds;
    expect(ends).toMatchObject([
      { position: '2L', works: ['seal'] },
      { position: '2R', works: ['seal'] },
    ]);
  });

  it('asks for wheel ends and what is to be done on each; both sides alike until somebody says otherwise', async () => {
    const { user, sent } = await open();
    expect(screen.getByRole('button', { name: 'Choose a wheel end' })).toHaveProperty('disabled', true);
    await user.click(screen.getByRole('checkbox', { name: '2L' }));
    await user.click(screen.getByRole('checkbox', { name: '2R' }));
    expect(screen.getByRole('button', { name: 'Choose the work on 2L' })).toHaveProperty('disabled', true);
    await user.click(screen.getByRole('button', { name: 'Seal, renew' }));
    await user.click(screen.getByRole('button', { name: 'Left and right differ' }));
    await user.click(screen.getAllByRole('button', { name: 'Brakes' })[1]!);
    await user.type(screen.getByLabelText('What was noticed'), 'Seal weep');
    await user.type(screen.getByLabelText('Meter'), '612 000 km');
    await user.click(screen.getByRole('button', { name: 'Open the job on 2L, 2R' }));
    await waitFor(() => expect(sent()).toHaveLength(1));
    expect(sent()[0]).toMatchObject({
      ...{
        unitId: id,
        title: 'Seal weep',
        symptoms: [],
        meter: { distance: { value: 612_000, unit: 'km' } },
      },
      wheelEnds: [
        { position: '2L', works: ['seal'], alreadyOff: [], together: false },
        { position: '2R', works: ['seal', 'brakes'], alreadyOff: [], together: false },
      ],
    });
  });

  it('names oil hubs whose level would not be looked at, and takes them in with one tap', async () => {
    const { user, sent } = await open();
    await user.click(screen.getByRole('checkbox', { name: '1L' }));
    await user.click(screen.getByRole('button', { name: 'Check only' }));
    expect(screen.getByText(/the level at every visit\. Not yet looked at: 1L, 1R, 2L, 2R$/)).toBeTruthy();
    await user.click(screen.getByRole('checkbox', { name: '2L' }));
    await user.click(screen.getAllByRole('button', { name: 'Seal, renew' })[1]!);
    expect(screen.getByText(/Not yet looked at: 1L, 1R, 2R$/)).toBeTruthy();
    await user.click(screen.getByRole('button', { name: 'Look at the level there as well' }));
    expect(screen.queryByText(/Not yet looked at/)).toBeNull();
    await user.click(screen.getByRole('button', { name: 'Open the job on 1L, 1R, 2L, 2R' }));
    await waitFor(() => expect(sent()).toHaveLength(1));
    expect((sent()[0] as { wheelEnds: object[] }).wheelEnds).toMatchObject([
      { position: '1L', works: ['check', 'oil-level'] },
      { position: '2L', works: ['seal'] },
      { position: '1R', works: ['oil-level'] },
      { position: '2R', works: ['oil-level'] },
    ]);
  });

  it('says what cannot be chosen and why, a meter that goes back or jumps, and what the server refuses', async () => {
    const wheelEnds = unit.wheelEnds.map((w) =>
      w.position === '1R' ? { ...w, state: 'working' as const } : w,
    );
    const { user } = await open({ ...unit, wheelEnds }, () =>
      refusedFor('wheelEnds', '1L is in an open job already'),
    );
    expect(screen.getByText('1R: in an open job')).toBeTruthy();
    expect(screen.getByRole('checkbox', { name: '1R' })).toHaveProperty('disabled', true);
    const meter = screen.getByLabelText('Meter');
    await user.type(meter, '600000 km');
    expect(screen.getByText('Less than the last reading: look at it once more')).toBeTruthy();
    await user.clear(meter);
    await user.type(meter, '990000 km');
    expect(screen.getByText('More than a unit drives in that time: look at it once more')).toBeTruthy();
    await user.clear(meter);
    await user.type(meter, 'far');
    await user.click(screen.getByRole('checkbox', { name: '1L' }));
    await user.click(screen.getByRole('button', { name: 'Check only' }));
    expect(screen.getByRole('button', { name: 'Open the job on 1L' })).toHaveProperty('disabled', true);
    await user.clear(meter);
    await user.click(screen.getByRole('button', { name: 'Open the job on 1L' }));
    expect(await screen.findByText(/1L is in an open job already/)).toBeTruthy();
  });

  it('a unit that is not to be moved: what was done about it is asked, and goes with the job', async () => {
    const { user, sent } = await open();
    await user.click(screen.getByRole('checkbox', { name: '1L' }));
    await user.click(screen.getByRole('button', { name: 'Check only' }));
    await user.click(screen.getByText('Smoke or a hot hub'));
    await user.click(screen.getByText(/^Looked at/));
    await user.click(screen.getByRole('button', { name: 'Open the job on 1L' }));
    await waitFor(() =>
      expect(sent()[0]).toMatchObject({ drive: { verdict: 'do-not-move', done: 'looked-at' } }),
    );
  });
});
