import { cleanup, screen, waitFor } from '@testing-library/react';
import { afterEach, expect, it, vi } from 'vitest';
import { familySheet } from '@lanternwright/core/procedure';
import { sessionOf } from '../people/testing/session.ts';
import { serveWith, show } from '../testing/fake-server.tsx';
import { BehindSection } from './behind-section.tsx';

afterEach(() => {
  cleanup();
  vi.unstubAllGlobals();
});

const newest = { ...familySheet('a-drive-dowel')!, revision: 3 };
const session = sessionOf({
  id: '00000000-0000-4000-8000-000000000001',
  name: 'I. Okonedo',
  login: 'okonedo',
  role: 'supervisor',
});
const unit = (n: number, own: number) => ({
  ...{ id: `00000000-0000-4000-8000-00000000001${n}`, name: `Tern ${n}`, owner: 'Tern & Hollow Haulage' },
  ...{ version: n, axles: [{ number: 2, revision: 1, own }] },
});

it('names the units with what they have of their own, carries them over as seen, and says which stayed', async () => {
  let units = [unit(4, 0), unit(5, 2)];
  const asked = serveWith(({ method }) => {
    if (method === 'GET') return { body: { total: units.length, units } };
    units = [unit(5, 2)];
    return { body: { carried: 1, left: [unit(5, 2).id] } };
  });
  const { user } = await show(<BehindSection newest={newest} />, session);
  expect(await screen.findByText('2 units go by an earlier revision')).toBeTruthy();
  expect(screen.getByText('axle 2 by revision 1, 2 figures of its own')).toBeTruthy();
  await user.click(screen.getByRole('button', { name: 'Carry 2 units over to revision 3' }));
  expect(await screen.findByText(/1 unit was carried over\. 1 was left: it was changed/)).toBeTruthy();
  await waitFor(() => expect(screen.getByText('1 unit goes by an earlier revision')).toBeTruthy());
  expect(asked.find((a) => a.method === 'POST')!.body).toEqual({
    to: 3,
    units: [
      { id: unit(4, 0).id, seenVersion: 4 },
      { id: unit(5, 2).id, seenVersion: 5 },
    ],
  });
});

it('says nothing while every axle goes by it', async () => {
  const asked = serveWith(() => ({ body: { total: 0, units: [] } }));
  await show(<BehindSection newest={newest} />, session);
  await waitFor(() => expect(asked).toHaveLength(1));
  expect(screen.queryByRole('region')).toBeNull();
  expect(screen.queryByRole('button')).toBeNull();
});
