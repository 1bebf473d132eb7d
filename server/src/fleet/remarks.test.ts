import { randomUUID } from 'node:crypto';
import { afterAll, beforeAll, describe, expect, it } from 'vitest';
import type { UnitDetail } from '@lanternwright/contract/fleet';
import { intervalFigureSchema } from '@lanternwright/core/procedure';
import { compareProjections } from '../record/rebuild.ts';
import { addUnit, axlesOf, openShop, type Shop } from '../testing/shop.ts';

let shop: Shop;
beforeAll(async () => {
  shop = await openShop();
});
afterAll(() => shop.close());

const head = 'owner,unit,kind,plate,distance,hours,axle,role,wheels,brake,sheet,remarks,last_done';
const fileOf = (unit: string, remarks: string, lastDone: string) =>
  [
    head,
    `Tern,${unit},tractor,,100 km,,1,steer,single,drum,d-steer-18,"${remarks}","${lastDone}"`,
    `Tern,${unit},tractor,,100 km,,2,drive,dual,drum,a-drive-dowel,,`,
  ].join('\n');
const bringIn = (csv: string) => shop.supervisor.call.post('/api/exchange/fleet').send({ csv });
const detail = async (name: string, as = shop.supervisor): Promise<UnitDetail> => {
  const { units } = (await shop.supervisor.call.get(`/api/fleet/units?search=${name}`).expect(200)).body as {
    units: { id: string }[];
  };
  return (await as.call.get(`/api/fleet/units/${units[0]!.id}`).expect(200)).body as UnitDetail;
};
const toldOf = (id: string) =>
  shop.db.sequelize
    .query(`select position, date ::text, works from service_told where unit_id = '${id}' order by nth`)
    .then(([rows]) => rows);

describe('what an office knows of its units', () => {
  it('comes in with the fleet file: remarks, and what was done last on all wheel ends that have a part for it', async () => {
    await bringIn(fileOf('Tern 1', 'Keys in the office', 'repack 2025-03-12; seal 2024-06-01')).expect(200);
    const unit = await detail('Tern 1');
    expect(unit.remarks).toBe('Keys in the office');
    const told = await toldOf(unit.id);
    expect(told).toHaveLength(8);
    expect(told[0]).toEqual({ position: '1L', date: '2025-03-12', works: ['repack'] });
    // The day of its next work rests on it, and the whole of it follows from the record.
    expect((await compareProjections(shop.db)).differs).toBeNull();
  });

  it('comes in by hand too, each wheel end with a record of its own', async () => {
    const unit = { owner: 'Tern', name: 'Tern 2', kind: 'tractor', axles: axlesOf('tractor-2') };
    const told = [{ date: '2025-03-12', works: ['seal'] }];
    const { body } = await shop.supervisor.call
      .post('/api/fleet/units')
      .send({ ...unit, remarks: 'Ours', told })
      .expect(200);
    expect(await toldOf(body.id)).toHaveLength(4);
    expect((await detail('Tern 2')).remarks).toBe('Ours');
    const early = [{ date: '2999-01-01', works: ['seal'] }];
    await shop.supervisor.call
      .post('/api/fleet/units')
      .send({ ...unit, name: 'Tern 9', told: early })
      .expect(422);
  });

  it.each([
    ['swivels 2025-03-12', /none of its wheel ends has a part for/],
    ['seal yesterday', /write “seal yesterday” as “seal 2025-03-12”/],
    ['paint 2025-03-12', /write “paint 2025-03-12” as/],
  ])('refuses “%s” and keeps nothing', async (lastDone, why) => {
    const { body } = await bringIn(fileOf('Tern 3', '', lastDone)).expect(422);
    expect(body.title).toBe('Nothing to bring in');
    const seen = await shop.supervisor.call
      .post('/api/exchange/fleet/preview')
      .send({ csv: fileOf('Tern 3', '', lastDone) })
      .expect(200);
    expect(seen.body.bad[0].reason).toMatch(why);
  });

  it('is changed by a supervisor who saw the newest, exported to the shop, and not told to owners', async () => {
    const unit = await detail('Tern 1');
    const path = `/api/fleet/units/${unit.id}/remarks`;
    const body = { seenVersion: unit.version, remarks: ' Keys with the driver ' };
    await shop.technician.call.put(path).send(body).expect(403);
    await shop.supervisor.call
      .put(path)
      .send({ ...body, remarks: 'x'.repeat(501) })
      .expect(422);
    await shop.supervisor.call.put(path).send(body).expect(200);
    await shop.supervisor.call.put(path).send(body).expect(409);
    expect((await detail('Tern 1')).remarks).toBe('Keys with the driver');
    const { text } = await shop.supervisor.call.get('/api/exchange/fleet.csv').expect(200);
    expect(text).toContain('Keys with the driver');
    expect((await compareProjections(shop.db)).differs).toBeNull();
  });

  it('is told of many units at once, only where nobody knows it, all of it or nothing', async () => {
    const ids = [await addUnit(shop, 'Kite 1', 'semi-2'), await addUnit(shop, 'Kite 2', 'semi-2')];
    const { body: plan } = await shop.supervisor.call.get('/api/plan/due').expect(200);
    // No sheet of this shop says how often: that is said, and not that nothing is due.
    expect(plan).toMatchObject({ total: 0, withoutIntervals: 4 });
    const yearly = intervalFigureSchema.parse({ work: 'seal', months: 12, mark: 'shop', source: 'Ours' });
    for (const id of ids) {
      const { version: seenVersion, axles } = (await shop.supervisor.call.get(`/api/fleet/units/${id}`))
        .body as UnitDetail;
      const wanted = axles.map((a) => ({ ...a, sheet: { ...a.sheet, intervals: [yearly] } }));
      await shop.supervisor.call
        .put(`/api/fleet/units/${id}/axles`)
        .send({ seenVersion, axles: wanted })
        .expect(200);
    }
    const dueOf = async (id: string) =>
      ((await shop.supervisor.call.get(`/api/fleet/units/${id}`).expect(200)).body as UnitDetail).due;
    const known = { position: '1L', date: '2026-01-02', works: ['seal'] };
    await shop.technician.call.post(`/api/fleet/units/${ids[0]}/services`).send(known).expect(200);
    const tell = (body: object) => shop.technician.call.post('/api/fleet/services').send(body);
    const body = { unitIds: ids, date: '2025-06-01', works: ['seal'] };
    await tell({ ...body, date: '2999-01-01' }).expect(422);
    await tell({ ...body, unitIds: [...ids, randomUUID()] }).expect(404);
    await tell({ ...body, unitIds: [] }).expect(422);
    expect((await dueOf(ids[1]!)).map((d) => d.missing)).toEqual(Array(4).fill(['last']));
    const { body: told } = await tell(body).expect(200);
    expect(told).toEqual({ wheelEnds: 7, units: 2 });
    const lastOn = Object.fromEntries((await dueOf(ids[0]!)).map((d) => [d.position, d.lastOn]));
    expect(lastOn).toEqual({ '1L': '2026-01-02', '1R': body.date, '2L': body.date, '2R': body.date });
    // Told again it is known already.
    expect((await tell(body).expect(200)).body).toEqual({ wheelEnds: 0, units: 0 });
    expect((await compareProjections(shop.db)).differs).toBeNull();
  });
});
