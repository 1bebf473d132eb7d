import { compareProjections, rebuildProjections } from '../record/rebuild.ts';
import { afterAll, beforeAll, describe, expect, it } from 'vitest';
import type { RevisedSheet } from '@lanternwright/contract/sheets';
import { familySheet, type Sheet } from '@lanternwright/core/procedure';
import { quantity } from '@lanternwright/core/quantity';
import { addUnit, asSuperuser, fetchJob, openJobOn, openShop, type Shop } from '../testing/shop.ts';

let shop: Shop;
beforeAll(async () => {
  shop = await openShop();
});
afterAll(() => shop.close());

const sheets = async (): Promise<RevisedSheet[]> =>
  (await shop.technician.call.get('/api/sheets').expect(200)).body as RevisedSheet[];
const find = async (id: string) => (await sheets()).find((s) => s.sheetId === id)!;

describe('revising a sheet', () => {
  const tang = familySheet('a-drive-tang')!;
  const figure = {
    ...tang.jamTorque!,
    min: quantity(250, 'lbf-ft'),
    mark: 'shop',
    source: 'Nut maker’s sheet',
  };
  const changed = { ...tang, jamTorque: figure } as Sheet;
  const body = { basedOn: 1, sheet: changed, note: 'The nut maker asks for 250' };

  it('is a supervisor’s, keeps what was, and a running job keeps the revision it opened with', async () => {
    const jobId = await openJobOn(shop, await addUnit(shop, 'Tern 650'));
    await shop.technician.call.post('/api/sheets/a-drive-tang').send(body).expect(403);
    const answer = await shop.supervisor.call.post('/api/sheets/a-drive-tang').send(body).expect(200);
    expect(answer.body).toMatchObject({ sheet: { revision: 2 }, by: 'I. Okonedo', note: body.note });
    const { revisions } = await find('a-drive-tang');
    expect(revisions.map((r) => [r.sheet.revision, r.sheet.jamTorque?.min.value, r.by])).toEqual([
      [2, 250, 'I. Okonedo'],
      [1, 200, null],
    ]);
    const job = await fetchJob(shop.technician.call, jobId);
    expect(job.wheelEnds[0]!.sheet).toMatchObject({ revision: 1, jamTorque: { min: { value: 200 } } });
  });

  it('made on an older revision is answered 409 and keeps nothing', async () => {
    const stale = await shop.supervisor.call.post('/api/sheets/a-drive-tang').send(body).expect(409);
    expect(stale.body.detail).toMatch(/revised since you opened it/);
    expect((await find('a-drive-tang')).revisions).toHaveLength(2);
  });

  it('names the field that is wrong', async () => {
    const wrong = {
      ...body,
      basedOn: 2,
      note: ' ',
      sheet: { ...changed, jamTorque: { ...figure, max: quantity(1, 'Nm') } },
    };
    const answer = await shop.supervisor.call.post('/api/sheets/a-drive-tang').send(wrong).expect(422);
    expect(answer.body.issues.map((i: { path: string }) => i.path).sort()).toEqual([
      'note',
      'sheet.jamTorque.max.value',
    ]);
    await shop.supervisor.call
      .post('/api/sheets/no-such')
      .send({ ...body, basedOn: 1 })
      .expect(404);
  });

  it('is in the record: what is changed in the table alone is found, and put right by a rebuild', async () => {
    expect((await compareProjections(shop.db)).differs).toBeNull();
    await asSuperuser(shop.databaseName, `update sheet_revision set note = 'x'`);
    expect((await compareProjections(shop.db)).differs).toMatchObject({ table: 'sheet_revision' });
    await rebuildProjections(shop.db);
    expect((await compareProjections(shop.db)).differs).toBeNull();
  });
});

describe('copying a sheet', () => {
  it('makes a sheet of its own, whose name is taken only once', async () => {
    const copy = { from: 'b-other', sheetId: 'b-steer-marsh', title: 'Marsh steer axle' };
    await shop.supervisor.call.post('/api/sheets').send(copy).expect(200);
    expect((await find('b-steer-marsh')).revisions[0]).toMatchObject({
      sheet: { family: 'B', revision: 1, title: 'Marsh steer axle' },
      note: 'Copied from Steer or trailer axle, one-piece nut: enter the nut maker’s back-off',
    });
    await shop.supervisor.call.post('/api/sheets').send(copy).expect(422);
  });

  it('is known to the fleet file', async () => {
    const csv = [
      'owner,unit,kind,plate,distance,hours,axle,role,wheels,brake,sheet',
      'Saltmarsh Drainage Board,Marsh 90,rigid,,,,1,steer,single,drum,b-steer-marsh',
    ].join('\n');
    const { body } = await shop.supervisor.call.post('/api/exchange/fleet/preview').send({ csv }).expect(200);
    expect(body.good).toMatchObject([{ name: 'Marsh 90' }]);
  });
});

describe('axles that go by an earlier revision', () => {
  const behind = async () =>
    (await shop.supervisor.call.get('/api/sheets/a-drive-dowel/behind').expect(200)).body;
  const carry = (to: number, units: { id: string; seenVersion: number }[]) =>
    shop.supervisor.call.post('/api/sheets/a-drive-dowel/carry').send({ to, units });
  const dowel = familySheet('a-drive-dowel')!;
  const own = { ...dowel.jamTorque!, min: quantity(333, 'lbf-ft'), max: quantity(333, 'lbf-ft') };

  it('are named, and carried over with what they say of their own; one that was changed meanwhile stays', async () => {
    const plain = await addUnit(shop, 'Tern 661');
    const special = await addUnit(shop, 'Tern 662');
    const axlesOf = async (id: string) => (await shop.supervisor.call.get(`/api/fleet/units/${id}`)).body;
    const put = async (id: string, sheet: Sheet) => {
      const { axles, version } = await axlesOf(id);
      const changed = axles.map((a: { number: number }) => (a.number === 2 ? { ...a, sheet } : a));
      await shop.supervisor.call
        .put(`/api/fleet/units/${id}/axles`)
        .send({ seenVersion: version, axles: changed })
        .expect(200);
    };
    await put(plain, dowel);
    await put(special, { ...dowel, jamTorque: own });
    expect(await behind()).toEqual({ total: 0, units: [] });
    const revised = { ...dowel, title: 'Drive, newer dowel', seatTorque: own };
    await shop.supervisor.call
      .post('/api/sheets/a-drive-dowel')
      .send({ basedOn: 1, sheet: revised, note: 'Newer dowel' })
      .expect(200);
    const { total, units } = await behind();
    expect(total).toBe(2);
    expect(units).toMatchObject([
      { id: plain, name: 'Tern 661', axles: [{ number: 2, revision: 1, own: 0 }] },
      { id: special, name: 'Tern 662', axles: [{ number: 2, revision: 1, own: 1 }] },
    ]);
    await carry(3, [{ id: plain, seenVersion: units[0].version }]).expect(409);
    await shop.technician.call.get('/api/sheets/a-drive-dowel/behind').expect(403);
    const answer = await carry(2, [
      { id: plain, seenVersion: units[0].version - 1 },
      { id: special, seenVersion: units[1].version },
    ]).expect(200);
    expect(answer.body).toEqual({ carried: 1, left: [plain] });
    const sheetOf = async (id: string) => (await axlesOf(id)).axles[1].sheet as Sheet;
    expect(await sheetOf(special)).toMatchObject({
      ...{ revision: 2, title: 'Drive, newer dowel', jamTorque: { min: { value: 333 } } },
      seatTorque: { min: { value: 333 } },
    });
    expect(await sheetOf(plain)).toMatchObject({ revision: 1 });
    await carry(2, [{ id: plain, seenVersion: units[0].version }]).expect(200);
    expect(await behind()).toEqual({ total: 0, units: [] });
    expect((await compareProjections(shop.db)).differs).toBeNull();
  });
});
