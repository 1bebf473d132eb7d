import { cleanup, screen } from '@testing-library/react';
import { afterEach, describe, expect, it, vi } from 'vitest';
import type { MeterFile } from '@lanternwright/contract/exchange';
import type { FeedStand } from '@lanternwright/contract/feed';
import { sessionOf } from '../people/testing/session.ts';
import { serveWith, show } from '../testing/fake-server.tsx';
import { MeterFilesPage } from './meter-files-page.tsx';

afterEach(() => {
  cleanup();
  vi.unstubAllGlobals();
});

const id = '00000000-0000-4000-8000-000000000021';
const supervisor = sessionOf({ id, name: 'I. Okonedo', login: 'okonedo', role: 'supervisor' });
const feed: FeedStand = {
  ...{ url: null, pushes: false, askedAt: null, answeredAt: null, trouble: null, kept: 0, known: 0 },
  strangers: [],
};
const file: MeterFile = {
  ...{ id, name: 'march.csv', sentAt: '2026-11-26T08:00:00.000Z', state: 'read', done: 1, reason: null },
  report: {
    ...{
      kept: 12_340,
      doubtful: 2,
      known: 7,
      units: 61,
      distanceIn: 'mi',
      from: '2026-03-01',
      until: '2026-03-31',
    },
    ...{ badCount: 3, bad: [{ line: 9, text: 'Nobody', reason: 'no unit is called Nobody' }] },
  },
};
/** The page where a file was sent already. @param files what the server says of it, one answer after the other */
function open(files: MeterFile[], stand: Partial<FeedStand> = {}) {
  let nth = 0;
  const asked = serveWith(({ path }) => {
    if (path.startsWith('/api/feed')) return { body: { ...feed, ...stand } };
    if (path.endsWith('/take')) return { body: { id } };
    return { body: files[Math.min(nth++, files.length - 1)]! };
  });
  return show(<MeterFilesPage />, supervisor, `/fleet/meters?file=${id}`).then((shown) => ({
    ...shown,
    asked,
  }));
}

describe('a file of meter readings', () => {
  it('says what would come of it, and is brought in by a button that says how much', async () => {
    const { user, asked } = await open([file]);
    expect(await screen.findByText('12,340')).toBeTruthy();
    expect(
      screen.getByText(/Of 61 units, from 1 Mar 2026 to 31 Mar 2026. The odometer is read in miles/),
    ).toBeTruthy();
    expect(screen.getByText(/listed on the Floor/)).toBeTruthy();
    expect(screen.getByText('no unit is called Nobody')).toBeTruthy();
    expect(screen.getByText('and 2 more lines')).toBeTruthy();
    await user.click(screen.getByRole('button', { name: 'Bring in 12,340 readings' }));
    expect(asked.some((a) => a.method === 'POST' && a.path.endsWith(`${id}/take`))).toBe(true);
  });

  it('shows how far it is until it is read', async () => {
    await open([{ ...file, state: 'reading', done: 0.4, report: null }, file]);
    expect((await screen.findByLabelText<HTMLProgressElement>('Progress')).value).toBe(0.4);
    expect(screen.queryByRole('button', { name: /Bring in/ })).toBeNull();
    expect(await screen.findByRole('button', { name: /Bring in/ })).toBeTruthy();
  });

  it('with nothing new offers nothing to bring in; a refused one says why', async () => {
    await open([{ ...file, report: { ...file.report!, kept: 0 } }]);
    expect(await screen.findByRole('button', { name: 'Put it away' })).toBeTruthy();
    expect(screen.queryByRole('button', { name: /Bring in/ })).toBeNull();
    cleanup();
    await open([
      { ...file, state: 'refused', report: null, reason: 'The file cannot be read: it is empty.' },
    ]);
    expect(await screen.findByText('The file cannot be read: it is empty.')).toBeTruthy();
  });
});

describe('the units’ own feed', () => {
  it('says what is wrong with it, of whom it speaks in vain, and is asked at once', async () => {
    const { user, asked } = await open([file], {
      ...{ url: 'http://127.0.0.1:7620', trouble: 'Nobody answers there', kept: 5, known: 70 },
      strangers: [{ vehicle: 'XX 1', times: 3 }],
    });
    expect(await screen.findByText(/Nobody answers there/)).toBeTruthy();
    expect(screen.getByText('XX 1')).toBeTruthy();
    expect(screen.getByText('3 times')).toBeTruthy();
    await user.click(screen.getByRole('button', { name: 'Ask it now' }));
    expect(asked.some((a) => a.method === 'POST' && a.path === '/api/feed/ask')).toBe(true);
  });

  it('says how one is set where none is', async () => {
    await open([file]);
    expect(await screen.findByText(/No feed is set/)).toBeTruthy();
    expect(screen.queryByRole('button', { name: 'Ask it now' })).toBeNull();
  });
});
