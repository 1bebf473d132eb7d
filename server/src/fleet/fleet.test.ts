import { afterAll, beforeAll, expect, it } from 'vitest';
import { numbered } from '@lanternwright/core/axle-plan';
import { addUnit, axlesOf, fetchJob, openJobOn, openShop, type Shop } from '../testing/shop.ts';

let shop: Shop;
beforeAll(async () => {
  shop = await openShop();
});
afterAll(() => shop.close());

it('adds a unit with its axles; the owner is made once, whatever the case', async () => {
  const id = await addUnit(shop, 'Tern 1');
  const body = {
    owner: 'TERN & hollow haulage',
    name: 'Tern 2',
    kind: 'tractor',
    axles: axlesOf('tractor-2'),
  };
  await shop.technician.call.post('/api/fleet/units').send(body).expect(200);
  expect((await shop.technician.call.get('/api/fleet/owners')).body).toHaveLength(1);
  const unit = (await shop.technician.call.get(`/api/fleet/units/${id}`).expect(200)).body;
  expect(unit.axles.map((a: { role: string }) => a.role)).toEqual(['steer', 'drive', 'drive']);
  expect(unit.wheelEnds.map((w: { position: string; state: string }) => `${w.position} ${w.state}`)[0]).toBe(
    '1L not-measured',
  );
});

it('takes whatever an owner is called', async () => {
  const axles = axlesOf('tractor-2');
  for (const owner of ['${7*7}', "O'Hara :id $1", '%_\\'])
    for (const name of ['A', 'B'])
      await shop.technician.call
        .post('/api/fleet/units')
        .send({ owner, name, kind: 'tractor', axles })
        .expect(200);
  const owners = (await shop.technician.call.get('/api/fleet/owners')).body as { name: string }[];
  expect(owners.map((o) => o.name)).toEqual(expect.arrayContaining(['${7*7}', "O'Hara :id $1", '%_\\']));
});

it('refuses the same name twice for one owner and says which field', async () => {
  await addUnit(shop, 'Tern 9');
  const body = {
    owner: 'Tern & Hollow Haulage',
    name: 'tern 9',
    kind: 'tractor',
    axles: axlesOf('tractor-2'),
  };
  const answer = await shop.technician.call.post('/api/fleet/units').send(body).expect(422);
  expect(answer.body.issues[0]).toMatchObject({ path: 'name' });
  const bad = await shop.technician.call
    .post('/api/fleet/units')
    .send({ ...body, name: 'x', axles: [{ ...axlesOf('tractor-2')[0], role: 'pilot' }] })
    .expect(422);
  expect(bad.body.issues[0].path).toBe('axles.0.role');
});

it('changes axles for new jobs only: a running job keeps its sheets', async () => {
  const id = await addUnit(shop);
  const jobId = await openJobOn(shop, id, ['2L']);
  await shop.technician.call
    .put(`/api/fleet/units/${id}/axles`)
    .send({ seenVersion: 1, axles: numbered(axlesOf('semi-3')) })
    .expect(403);
  await shop.supervisor.call
    .put(`/api/fleet/units/${id}/axles`)
    .send({ seenVersion: 1, axles: numbered(axlesOf('semi-3')) })
    .expect(200);
  expect((await fetchJob(shop.technician.call, jobId)).wheelEnds[0]?.sheet.sheetId).toBe('a-drive-tang');
  expect((await shop.technician.call.get(`/api/fleet/units/${id}`)).body.axles[1].sheet.sheetId).toBe(
    'a-trailer',
  );
});

it('knows nothing of units that are not there', async () => {
  await shop.technician.call.get('/api/fleet/units/00000000-0000-4000-8000-000000000000').expect(404);
  expect((await shop.technician.call.get('/api/fleet/units/what').expect(422)).body.issues[0].path).toBe(
    'id',
  );
});
