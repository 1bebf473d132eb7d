import { cleanup, screen } from '@testing-library/react';
import { afterEach, describe, expect, it, vi } from 'vitest';
import type { Due, MeterPage, UnitDetail } from '@lanternwright/contract/fleet';
import { sessionOf } from '../people/testing/session.ts';
import { refusedFor, serveWith, show, type Answer } from '../testing/fake-server.tsx';
import { DutyPanel } from './duty-panel.tsx';
import { DuePanel } from './due-panel.tsx';
import { MetersPanel } from './meters-panel.tsx';

afterEach(() => {
  cleanup();
  vi.unstubAllGlobals();
});

const unit = '00000000-0000-4000-8000-000000000011';
const supervisor = sessionOf({ id: unit, name: 'I. Okonedo', login: 'okonedo', role: 'supervisor' });
const due = (more: Partial<Due>): Due => ({
  ...{
    position: '2L',
    work: 'seal',
    lastOn: '2025-12-02',
    dueOn: '2026-12-02',
    state: 'soon',
    missing: [],
    shortened: [],
  },
  ...{ earliest: '2026-11-20', latest: '2026-12-20', dueBy: 'distance' },
  ...more,
});

describe('what is due on a unit', () => {
  it('groups wheel ends, says the range of days and what decides it', async () => {
    await show(
      <DuePanel
        unitId={unit}
        due={[
          due({ position: '2R' }),
          due({}),
          due({
            work: 'brakes',
            dueOn: '2026-01-05',
            earliest: '2026-01-05',
            latest: '2026-01-05',
            dueBy: 'months',
            state: 'overdue',
          }),
          due({
            work: 'check',
            dueOn: '2027-02-01',
            dueBy: 'months',
            missing: ['hours'],
            state: 'later',
            shortened: ['water'],
          }),
        ]}
      />,
      supervisor,
    );
    expect(screen.getByText('2L 2R')).toBeTruthy();
    expect(screen.getByText(/by distance, 20 Nov 2026 to 20 Dec 2026; last 2 Dec 2025/)).toBeTruthy();
    expect(screen.getByText(/overdue since 5 Jan 2026/)).toBeTruthy();
    expect(screen.getByText(/sooner: works in water; hours not counted yet/)).toBeTruthy();
  });

  it('asks for the day and the wheel ends where nobody has said, and sends one record for each', async () => {
    const asked = serveWith(() => ({ body: { id: unit } }));
    const never = {
      lastOn: null,
      dueOn: null,
      earliest: null,
      latest: null,
      dueBy: null,
      missing: ['last' as const],
    };
    const { user } = await show(
      <DuePanel
        unitId={unit}
        due={[due({ ...never, state: 'unknown' }), due({ ...never, position: '2R', state: 'unknown' })]}
      />,
      supervisor,
    );
    expect(screen.getByText('No last service date')).toBeTruthy();
    await user.click(screen.getByRole('button', { name: 'Enter the date' }));
    await user.click(screen.getByRole('button', { name: 'Save' }));
    expect(screen.getByText('Enter the date and the wheel ends')).toBeTruthy();
    expect(asked).toHaveLength(0);
    await user.click(screen.getByRole('checkbox', { name: '2L' }));
    await user.click(screen.getByRole('checkbox', { name: '2R' }));
    await user.type(screen.getByLabelText('Day of: Seal, renew'), '2026-03-01');
    await user.click(screen.getByRole('button', { name: 'Save' }));
    await vi.waitFor(() => expect(asked).toHaveLength(2));
    expect(asked.map((a) => a.body)).toEqual(
      ['2L', '2R'].map((position) => ({ position, date: '2026-03-01', works: ['seal'] })),
    );
  });
});

describe('meters', () => {
  const page: MeterPage = {
    version: 4,
    total: 2,
    rows: [
      { nth: 1, date: '2026-02-05', km: 12, hours: null, source: 'feed', totalKm: null, totalHours: null },
      {
        nth: 0,
        date: '2026-01-05',
        km: 600_000,
        hours: null,
        source: 'by-hand',
        totalKm: 600_000,
        totalHours: null,
      },
    ],
    swaps: [],
  };
  const open = async (answer: Answer) => {
    const asked = serveWith((one) => (one.method === 'GET' ? { body: page } : answer(one)));
    const { user } = await show(<MetersPanel unitId={unit} km={600_000} hours={null} />, supervisor);
    return { asked, user };
  };

  it('a reading that does not fit is refused in words; looked at again it is kept', async () => {
    const words = 'The odometer read 600,000 km on 2026-01-05 already.';
    const { asked, user } = await open(({ body }) =>
      (body as { sure: boolean }).sure ? { body: { id: unit } } : refusedFor('distance', words),
    );
    await user.click(screen.getByRole('button', { name: 'Read the meters' }));
    await user.click(screen.getByRole('button', { name: 'Keep this reading' }));
    expect(screen.getByText('Enter the date')).toBeTruthy();
    await user.type(screen.getByLabelText('Day'), '2026-02-06');
    await user.type(screen.getByLabelText(/^Odometer, optional/), '370 mi');
    await user.click(screen.getByRole('button', { name: 'Keep this reading' }));
    expect(await screen.findByText(words)).toBeTruthy();
    await user.click(screen.getByRole('button', { name: 'I looked again: keep it as it is' }));
    await vi.waitFor(() => expect(screen.queryByLabelText('Day')).toBeNull());
    expect(asked.filter((a) => a.method === 'POST').map((a) => a.body)).toMatchObject([
      { date: '2026-02-06', sure: false, distance: { value: 370, unit: 'mi' } },
      { sure: true },
    ]);
  });

  it('a changed meter is told with what the old one ended and the new one began at', async () => {
    const { asked, user } = await open(() => ({ body: { id: unit } }));
    await user.click(screen.getByRole('button', { name: 'A meter was changed' }));
    await user.click(screen.getByRole('button', { name: 'Count on from the new one' }));
    expect(screen.getByText('Choose one, and enter a reason')).toBeTruthy();
    await user.click(screen.getByLabelText('Odometer'));
    await user.click(screen.getByLabelText('Another one was put in'));
    await user.type(screen.getByLabelText('Day'), '2026-02-01');
    await user.type(screen.getByLabelText('The old one read at its end'), '612,500');
    await user.type(screen.getByLabelText('The new one began at'), '40 km');
    await user.click(screen.getByRole('button', { name: 'Count on from the new one' }));
    await vi.waitFor(() => expect(asked.some((a) => a.method === 'POST')).toBe(true));
    expect(asked.find((a) => a.method === 'POST')!.body).toEqual({
      ...{ of: 'distance', why: 'swapped', date: '2026-02-01', last: 612_500, first: 40 },
    });
  });

  it('shows which reading is not believed, and strikes it out by the version that was seen', async () => {
    const { asked, user } = await open(() => ({ body: { id: unit } }));
    await user.click(screen.getByRole('button', { name: 'All readings' }));
    expect(await screen.findByText('does not fit the others')).toBeTruthy();
    await user.click(screen.getAllByRole('button', { name: 'Strike out' })[0]!);
    await user.click(screen.getByRole('button', { name: 'Strike this reading out' }));
    await vi.waitFor(() => expect(asked.some((a) => a.method === 'POST')).toBe(true));
    expect(asked.find((a) => a.method === 'POST')!.body).toEqual({ seenVersion: 4, nth: 1, right: null });
  });
});

describe('the duty of a unit', () => {
  const of = (duty: UnitDetail['duty']) => ({ id: unit, version: 4, duty });

  it('is said whole by a supervisor, with the version that was seen; nothing is chosen beforehand', async () => {
    const asked = serveWith(() => ({ body: { id: unit } }));
    const { user } = await show(<DutyPanel unit={of([{ of: 'load', share: 0.75 }])} />, supervisor);
    expect(screen.getByText('heavily loaded: three quarters of each interval.')).toBeTruthy();
    await user.click(screen.getByRole('button', { name: 'Change its duty' }));
    expect(screen.getByLabelText<HTMLSelectElement>('Works in water').value).toBe('');
    await user.selectOptions(screen.getByLabelText('Works in water'), 'half of each interval');
    await user.selectOptions(screen.getByLabelText('Heavily loaded'), 'No');
    await user.click(screen.getByRole('button', { name: 'Save' }));
    expect(asked).toEqual([
      {
        ...{ method: 'PUT', path: `/api/fleet/units/${unit}/duty` },
        body: { seenVersion: 4, duty: [{ of: 'water', share: 0.5 }] },
      },
    ]);
    expect(await screen.findByRole('button', { name: 'Change its duty' })).toBeTruthy();
  });

  it('keeps what was chosen when it is refused, and is only read by a technician', async () => {
    serveWith(() => ({ status: 409, body: { detail: 'This was changed since you opened it.', issues: [] } }));
    const { user } = await show(<DutyPanel unit={of([])} />, supervisor);
    await user.click(screen.getByRole('button', { name: 'Change its duty' }));
    await user.selectOptions(screen.getByLabelText('Stands for months'), 'a quarter of each interval');
    await user.click(screen.getByRole('button', { name: 'Save' }));
    expect(await screen.findByText(/was changed since/)).toBeTruthy();
    expect(screen.getByLabelText<HTMLSelectElement>('Stands for months').value).toBe('0.25');
    cleanup();
    await show(<DutyPanel unit={of([])} />, sessionOf({ ...supervisor.person!, role: 'technician' }));
    expect(screen.queryByRole('button')).toBeNull();
  });
});
