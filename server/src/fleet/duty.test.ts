import { afterAll, beforeAll, expect, it } from 'vitest';
import type { UnitDetail } from '@lanternwright/contract/fleet';
import { intervalFigureSchema } from '@lanternwright/core/procedure';
import { compareProjections } from '../record/rebuild.ts';
import { addUnit, openShop, type Shop } from '../testing/shop.ts';

let shop: Shop;
beforeAll(async () => {
  shop = await openShop();
});
afterAll(() => shop.close());

it('a unit that works in water has its seals due sooner, with why; the record tells, and two do not overwrite each other', async () => {
  const id = await addUnit(shop, 'Tern 1', 'tractor-2');
  const path = `/api/fleet/units/${id}`;
  const read = async (): Promise<UnitDetail> => (await shop.technician.call.get(path).expect(200)).body;
  const yearly = intervalFigureSchema.parse({ work: 'seal', months: 12, mark: 'shop', source: 'Ours' });
  const { version, axles } = await read();
  await shop.supervisor.call
    .put(`${path}/axles`)
    .send({
      seenVersion: version,
      axles: axles.map((a) => ({ ...a, sheet: { ...a.sheet, intervals: [yearly] } })),
    })
    .expect(200);
  await shop.technician.call
    .post(`${path}/services`)
    .send({ position: '2L', date: '2026-01-15', works: ['seal'] })
    .expect(200);
  const seal = async () => (await read()).due.find((d) => d.position === '2L')!;
  expect(await seal()).toMatchObject({ dueOn: '2027-01-15', shortened: [] });

  const duty = [{ of: 'water', share: 0.5 }];
  const seenVersion = (await read()).version;
  await shop.technician.call.put(`${path}/duty`).send({ seenVersion, duty }).expect(403);
  await shop.supervisor.call.put(`${path}/duty`).send({ seenVersion, duty }).expect(200);
  expect(await seal()).toMatchObject({ dueOn: '2026-07-15', shortened: ['water'] });
  expect((await read()).duty).toEqual(duty);
  await shop.supervisor.call.put(`${path}/duty`).send({ seenVersion, duty: [] }).expect(409);
  expect((await compareProjections(shop.db)).differs).toBeNull();
});
