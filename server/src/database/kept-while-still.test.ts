import { afterAll, beforeAll, expect, it } from 'vitest';
import type { FleetOverview, FleetPage } from '@lanternwright/contract/fleet';
import { addUnit, openShop, type Shop } from '../testing/shop.ts';
import { keptWhileStill } from './kept-while-still.ts';

let shop: Shop;
beforeAll(async () => {
  shop = await openShop();
  await addUnit(shop, 'Tern 900');
});
afterAll(() => shop.close());

it('works an answer out once for all who ask, anew once something is recorded or it is about something else', async () => {
  let works = 0;
  const kept = keptWhileStill(() => Promise.resolve((works += 1)));
  expect(await Promise.all([1, 2, 3].map(() => kept(shop.db)))).toEqual([1, 1, 1]);
  expect(await kept(shop.db)).toBe(1);
  await addUnit(shop, 'Tern 901');
  expect(await kept(shop.db)).toBe(2);
  expect(await kept(shop.db, '2026-11-28')).toBe(3);
});

it('keeps no failure', async () => {
  let works = 0;
  const kept = keptWhileStill(() => {
    works += 1;
    return works === 1 ? Promise.reject(new Error('the connection is gone')) : Promise.resolve('here');
  });
  await expect(kept(shop.db)).rejects.toThrow('gone');
  expect(await kept(shop.db)).toBe('here');
});

it('whoever added a unit sees it counted at once, on every page of the fleet', async () => {
  const call = shop.supervisor.call;
  const count = async () => {
    const page = (await call.get('/api/fleet/units').expect(200)).body as FleetPage;
    const overview = (await call.get('/api/fleet/overview').expect(200)).body as FleetOverview;
    return [
      page.total,
      page.fleet.units,
      overview.fleet.units,
      overview.owners.reduce((n, o) => n + o.units, 0),
    ];
  };
  const [before] = await count();
  for (let nth = 1; nth <= 3; nth++) {
    await addUnit(shop, `Tern 91${nth}`);
    expect(await count()).toEqual(Array.from({ length: 4 }, () => before! + nth));
  }
});
