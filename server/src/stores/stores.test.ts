import { randomUUID } from 'node:crypto';
import { QueryTypes } from 'sequelize';
import { afterAll, beforeAll, describe, expect, it } from 'vitest';
import { partSchema, type Part } from '@lanternwright/core/part';
import { stockMoves, type Movement, type StockMove } from '@lanternwright/core/record';
import { quantity } from '@lanternwright/core/quantity';
import type { Found, Visit } from '@lanternwright/contract/fleet';
import type { BatchUse, MeasuredPart, PartsPage, StorePart, UnitCosts } from '@lanternwright/contract/stores';
import { seededRandom } from '../demo/random.ts';
import { compareProjections, rebuildProjections } from '../record/rebuild.ts';
import { verifyChain } from '../record/verify-chain.ts';
import { addUnit, openJobOn, openShop, send, type Caller, type Shop } from '../testing/shop.ts';
import { changeStock } from './stock.ts';

let shop: Shop;
let keeper: Awaited<ReturnType<Shop['signedIn']>>;
let jobId: string;
beforeAll(async () => {
  shop = await openShop();
  keeper = await shop.signedIn({
    name: 'P. Quill',
    login: 'quill',
    role: 'storekeeper',
    password: 'ship shape store',
  });
  jobId = await openJobOn(shop, await addUnit(shop, 'Tern 650'), ['2L']);
});
afterAll(() => shop.close());

const sized = (bore: number, outside: number, width: number) => ({
  dims: { bore: quantity(bore, 'mm'), outside: quantity(outside, 'mm'), width: quantity(width, 'mm') },
});
const seal = (number: string, more: object = {}): Part =>
  partSchema.parse({
    ...{ id: randomUUID(), kind: 'seal', title: 'Hub seal of the drive axle', number },
    ...{ price: { currency: 'USD', minor: 4185 }, ...sized(82.5, 127, 20) },
    ...more,
  });

async function list(part: Part, seenVersion = 0, call = keeper.call): Promise<Part> {
  await call.put('/api/stores/parts').send({ seenVersion, part }).expect(200);
  return part;
}
const moving = (call: Caller, part: Part, movement: Partial<Movement>, id: string = randomUUID()) =>
  call
    .post(`/api/stores/parts/${part.id}/movements`)
    .send({ recordId: id, movement: { place: 'A3', ...movement } });
const using = (call: Caller, part: Part, quantity: number, more: object = {}) =>
  call.post(`/api/stores/parts/${part.id}/uses`).send({
    recordId: randomUUID(),
    movement: { what: 'used', quantity, place: 'A3', jobId, position: '2L', line: 'part:hub-seal', ...more },
  });
const look = async (part: Part, call = keeper.call) =>
  (await call.get(`/api/stores/parts/${part.id}`).expect(200)).body as StorePart;
const find = async (text: string) =>
  ((await shop.technician.call.get('/api/stores/parts').query({ text }).expect(200)).body as PartsPage).parts;

describe('the store', () => {
  it('a part is put on the list, received, used on a job and returned; who may do what', async () => {
    const part = seal('50-1001');
    await shop.technician.call.put('/api/stores/parts').send({ seenVersion: 0, part }).expect(403);
    await list(part);
    await moving(shop.technician.call, part, { what: 'received', quantity: 4 }).expect(403);
    await moving(keeper.call, part, { what: 'received', quantity: 4 }).expect(200);
    await using(shop.technician.call, part, 1).expect(200);
    await using(shop.technician.call, part, 1, { what: 'returned' }).expect(200);
    const found = await look(part);
    expect(found).toMatchObject({ onHand: 4, places: [{ place: 'A3', quantity: 4 }], version: 4 });
    expect(found.movements.map((m) => [m.what, m.change, m.byName])).toEqual([
      ['returned', 1, 'D. Achterberg'],
      ['used', -1, 'D. Achterberg'],
      ['received', 4, 'P. Quill'],
    ]);
    expect(found.movements[1]).toMatchObject({ jobId, position: '2L', price: { minor: 4185 } });
  });

  it('what was used stands with its batch among the visits of its wheel end, and is found by it', async () => {
    const part = await list(seal('50-1003'));
    await moving(keeper.call, part, { what: 'received', quantity: 3 }).expect(200);
    await using(shop.technician.call, part, 2, { batch: 'L 4712' }).expect(200);
    await using(shop.technician.call, part, 1, { what: 'returned', batch: 'L 4712' }).expect(200);
    const { unitId, ownerId } = (
      await shop.db.sequelize.query<{ unitId: string; ownerId: string }>(
        `select unit_id as "unitId", owner_id as "ownerId" from job join unit u on u.id = unit_id where job.id = $1`,
        { bind: [jobId], type: QueryTypes.SELECT },
      )
    )[0]!;
    const visits = async (search: string, call = shop.technician.call) =>
      (await call.get(`/api/fleet/units/${unitId}/visits`).query({ position: '2L', search }).expect(200))
        .body as {
        total: number;
        rows: Visit[];
      };
    const { rows } = await visits('seal 4712');
    expect(rows).toMatchObject([{ jobId, works: ['seal'], asFoundMm: null, verdict: null, photos: [] }]);
    expect(rows[0]!.parts).toContainEqual({
      ...{ id: part.id, number: '50-1003', title: part.title, quantity: 1, batch: 'L 4712' },
    });
    expect((await visits(`${new Date().getFullYear()} RENEW`)).total).toBe(1);
    expect((await visits('50-1003 kingpin')).total).toBe(0);
    expect((await visits('100%')).total).toBe(0);
    // From the batch to the units that it is on, and back.
    const uses = async () =>
      (
        await shop.technician.call
          .get(`/api/stores/parts/${part.id}/batch`)
          .query({ batch: 'L 4712' })
          .expect(200)
      ).body as BatchUse[];
    expect(await uses()).toMatchObject([{ unitId, unit: 'Tern 650', position: '2L', jobId, quantity: 1 }]);
    const found = (await shop.technician.call.get('/api/find').query({ text: 'l 47' }).expect(200))
      .body as Found;
    expect(found.batches).toContainEqual({
      ...{ partId: part.id, batch: 'L 4712', number: '50-1003', title: part.title, units: 1 },
    });
    await using(shop.technician.call, part, 1, { what: 'returned', batch: 'L 4712' }).expect(200);
    expect(await uses()).toEqual([]);
    await using(shop.technician.call, part, 1, { batch: 'L 4712' }).expect(200);
    // An owner’s contact sees the visit, and nothing of the store.
    const contact = await shop.signedIn({
      ...{ name: 'O. Contact', login: 'visits', role: 'owner-contact', password: 'correct horse battery' },
      owners: [ownerId],
    });
    expect((await visits('', contact.call)).rows).toMatchObject([{ jobId, parts: [] }]);
  });

  it('prices are shown to whom they concern', async () => {
    const part = seal('50-1002');
    await list(part);
    await moving(keeper.call, part, {
      what: 'received',
      quantity: 1,
      price: { currency: 'USD', minor: 3000 },
    });
    expect((await look(part)).part.price).toEqual({ currency: 'USD', minor: 4185 });
    const seen = await look(part, shop.technician.call);
    expect([seen.part.price, seen.movements[0]!.price]).toEqual([null, null]);
  });

  it('what was paid is told to whom it concerns, the newest first; a batch stands with what came', async () => {
    const part = await list(seal('50-1010', { kind: 'lubricant', dims: {}, thickener: 'lithium-complex' }));
    for (const [minor, batch] of [
      [980, 'L 4710'],
      [1105, 'L 4711'],
    ] as const)
      await moving(keeper.call, part, {
        ...{ what: 'received', quantity: 6, batch, price: { currency: 'USD', minor } },
      }).expect(200);
    await moving(keeper.call, part, { what: 'received', quantity: 1 }).expect(200);
    const found = await look(part);
    expect(found.paid.map((p) => p.price.minor)).toEqual([1105, 980]);
    expect(found.movements.map((m) => m.batch)).toEqual([null, 'L 4711', 'L 4710']);
    expect((await look(part, shop.technician.call)).paid).toEqual([]);
    const notGrease = seal('50-1011', { kind: 'other' });
    await keeper.call
      .put('/api/stores/parts')
      .send({ seenVersion: 0, part: { ...notGrease, thickener: 'lithium' } })
      .expect(422);
  });

  it('a part is replaced by one that is there, and never by what it replaces itself', async () => {
    const [old, next] = [await list(seal('50-1012')), await list(seal('50-1013'))];
    const replace = (part: Part, supersededBy: string, seenVersion = 1) =>
      keeper.call.put('/api/stores/parts').send({ seenVersion, part: { ...part, supersededBy } });
    expect((await replace(old, randomUUID()).expect(422)).body.issues).toMatchObject([
      { path: 'part.supersededBy' },
    ]);
    await replace(old, next.id).expect(200);
    await replace(next, old.id).expect(422);
    expect((await look(old)).supersededBy).toEqual({ id: next.id, number: '50-1013' });
  });

  it('what a wheel end costs follows from the bills of its jobs, over the distance that is known', async () => {
    const unitId = await addUnit(shop, 'Tern 651');
    const billed = await openJobOn(shop, unitId, ['2L', '2R']);
    const lines = [{ group: 'labour', what: 'Hubs', per: 'wheel', quantity: 2, unitMinor: 21_500 }] as const;
    const bill = { currency: 'USD', lines: [...lines], suppliesPercent: 0, taxes: [] };
    const costs = async () =>
      (await keeper.call.get(`/api/stores/units/${unitId}/costs`).expect(200)).body as UnitCosts;
    await send(shop.supervisor.call, billed, 1, { kind: 'bill-written', as: 'estimate', bill }).expect(200);
    expect((await costs()).wheelEnds).toEqual([]);
    await send(shop.supervisor.call, billed, 2, { kind: 'bill-written', as: 'actual', bill }).expect(200);
    expect(await costs()).toMatchObject({
      ...{ currency: 'USD', otherCurrency: 0 },
      wheelEnds: [
        { position: '2L', jobs: 1, minor: 21_500 },
        { position: '2R', jobs: 1, minor: 21_500 },
      ],
    });
    await shop.technician.call.get(`/api/stores/units/${unitId}/costs`).expect(403);
    await keeper.call.get(`/api/stores/units/${randomUUID()}/costs`).expect(404);
  });

  it('what is sent twice happens once; what was changed meanwhile is told', async () => {
    const part = seal('50-1003');
    await list(part);
    const id = randomUUID();
    for (let i = 0; i < 2; i++)
      await moving(keeper.call, part, { what: 'received', quantity: 2 }, id).expect(200);
    expect((await look(part)).onHand).toBe(2);
    await keeper.call
      .put('/api/stores/parts')
      .send({ seenVersion: 1, part: { ...part, title: 'Other' } })
      .expect(409);
    const elsewhere = seal('50-1004');
    await list(elsewhere);
    await moving(keeper.call, elsewhere, { what: 'received', quantity: 2 }, id).expect(422);
  });

  it('a refusal names its field and changes nothing', async () => {
    const part = seal('50-1005');
    await list(part);
    const { body } = await using(shop.technician.call, part, 1).expect(422);
    expect(body.detail).toBe('None lies at A3');
    const counted = await moving(keeper.call, part, { what: 'counted', quantity: 3 }).expect(422);
    expect(counted.body.issues).toMatchObject([{ path: 'reason' }]);
    await using(shop.technician.call, part, 1, { position: '3R' }).expect(422);
    await using(shop.technician.call, part, 1, { jobId: randomUUID() }).expect(404);
    expect((await look(part)).movements).toEqual([]);
  });

  it('50 people take of the last three at once: three get one', async () => {
    const part = seal('50-1006');
    await list(part);
    await moving(keeper.call, part, { what: 'received', quantity: 3 }).expect(200);
    const answers = await Promise.all(Array.from({ length: 50 }, () => using(shop.technician.call, part, 1)));
    const states = answers.map((a) => a.status).sort();
    expect(states).toEqual([
      ...Array.from({ length: 3 }, () => 200),
      ...Array.from({ length: 47 }, () => 422),
    ]);
    expect(await look(part)).toMatchObject({ onHand: 0, places: [] });
  }, 60_000);
});

describe('a part is found', () => {
  it('by its number, a crossing, what can be read of it, and what is nearly it', async () => {
    const part = await list(seal('63-4418 B', { crossings: ['HSX 9917'] }));
    const how = async (text: string) => {
      const line = (await find(text)).find((p) => p.id === part.id);
      return line && [line.found.how, line.found.number];
    };
    expect(await how('634418b')).toEqual(['same', '63-4418 B']);
    expect(await how('hsx-99 17')).toEqual(['crossing', 'HSX 9917']);
    expect(await how('63-44')).toEqual(['like', '63-4418 B']);
    expect(await how('6?44*B')).toEqual(['like', '63-4418 B']);
    expect(await how('63-4413 B')).toEqual(['near', '63-4418 B']);
    expect(await how('63-441B')).toEqual(['near', '63-4418 B']);
    expect(await how('99-9999')).toBeUndefined();
    const titled = (await find('drive seal')).find((p) => p.id === part.id);
    expect(titled?.found.how).toBe('title');
  });

  it('from everywhere: by what its number begins with; who may not see the store finds none', async () => {
    const part = await list(seal('77-5519'));
    const everywhere = async (call: Caller, text: string) =>
      ((await call.get('/api/find').query({ text }).expect(200)).body as Found).parts.map((p) => p.id);
    expect(await everywhere(shop.technician.call, '77 55')).toEqual([part.id]);
    expect(await everywhere(shop.technician.call, '77')).toEqual([]);
    const trainee = await shop.signedIn({
      name: 'L. Osei',
      login: 'osei',
      role: 'trainee',
      password: 'practice makes it',
    });
    expect(await everywhere(trainee.call, '77 55')).toEqual([]);
  });

  it('by measuring: what fits first, what is near with its difference, nothing of another kind', async () => {
    const fits = await list(seal('63-5001', sized(101.6, 150, 22)));
    const wide = await list(seal('63-5002', sized(101.6, 150, 26)));
    const { bore, outside } = sized(101.6, 150, 22).dims;
    const unmeasured = await list(seal('63-5004', { dims: { bore, outside } }));
    const cup = await list(seal('63-5003', { kind: 'cup', ...sized(101.6, 150, 22) }));
    const { body } = await shop.technician.call
      .get('/api/stores/by-measure')
      .query({ kind: 'seal', bore: 101.5, outside: 150.1, width: 22 })
      .expect(200);
    const found = body as MeasuredPart[];
    expect(found[0]).toMatchObject({ id: fits.id, fit: { fits: true } });
    const near = found.find((p) => p.id === wide.id)!.fit;
    expect(near.fits).toBe(false);
    expect(near.off.width).toBeCloseTo(4, 9);
    const half = found.find((p) => p.id === unmeasured.id);
    expect(half?.fit).toMatchObject({ fits: false, unknown: ['width'] });
    expect(found.some((p) => p.id === cup.id)).toBe(false);
  });
});

it('stock is what 10,000 random movements come to, and a rebuild finds the same', async () => {
  const random = seededRandom(13);
  const parts = Array.from({ length: 30 }, (_, i) => seal(`70-${i}`));
  for (const part of parts) await list(part);
  const by = { id: keeper.person.id, name: keeper.person.name, role: 'storekeeper' as const };
  const moves = Object.keys(stockMoves) as StockMove[];
  let taken = 0;
  const all = async (n: number) => {
    for (let i = 0; i < n; i++) {
      const what = random.next() < 0.4 ? 'received' : random.pick(moves);
      const movement = {
        ...{
          what,
          quantity: random.whole(0, 5),
          place: random.pick(['A3', 'B1']),
          to: random.pick(['A3', 'C2']),
        },
        ...{ who: 'The yard', jobId, position: '2L', reason: 'because' },
      } as Movement;
      const asked = { by, at: new Date().toISOString(), id: randomUUID() };
      try {
        await changeStock(shop.db, random.pick(parts).id, { kind: 'move', movement }, asked);
        taken += 1;
      } catch (error) {
        if ((error as { status?: number }).status !== 422) throw error;
      }
    }
  };
  await Promise.all([all(3_334), all(3_333), all(3_333)]);
  expect(taken).toBeGreaterThan(4_000);
  for (const part of parts) {
    const [row] = await shop.db.sequelize.query<{ moved: number; here: number; shelves: number }>(
      `select (select sum(change) from stock_movement where part_id = p.id) ::int as moved, p.on_hand as here,
         (select coalesce(sum(quantity), 0) from stock where part_id = p.id and what = 'place') ::int as shelves
       from part p where p.id = $1`,
      { type: QueryTypes.SELECT, bind: [part.id] },
    );
    expect([row!.here, row!.shelves]).toEqual([row!.moved, row!.moved]);
  }
  expect(await compareProjections(shop.db)).toMatchObject({ differs: null, aside: [] });
  await rebuildProjections(shop.db);
  expect(await verifyChain(shop.db)).toMatchObject({ ok: true });
}, 240_000);
