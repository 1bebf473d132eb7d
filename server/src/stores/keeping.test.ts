import { randomUUID } from 'node:crypto';
import { afterAll, beforeAll, describe, expect, it } from 'vitest';
import { partSchema, type Part } from '@lanternwright/core/part';
import { addDays } from '@lanternwright/core/interval';
import type { JobParts, StorePart } from '@lanternwright/contract/stores';
import { compareProjections } from '../record/rebuild.ts';
import { addUnit, fetchJob, openJobOn, openShop, setBays, send, type Shop } from '../testing/shop.ts';

const LINE = 'part:hub-seal';
let shop: Shop;
let sheetId: string;
let units = 0;
const newUnit = () => addUnit(shop, `Tern ${700 + units++}`);

beforeAll(async () => {
  shop = await openShop();
  await setBays(shop);
  const first = await openJobOn(shop, await newUnit(), ['2L']);
  sheetId = (await fetchJob(shop.technician.call, first)).wheelEnds[0]!.sheet.sheetId;
}, 60_000);
afterAll(() => shop.close());

/** A seal that fits the sheet of all jobs here, and no other. */
async function onlySeal(number: string, here: number): Promise<Part> {
  for (const { id, part, version } of (
    await shop.db.sequelize.query(`select id, part, version from part where part ->> 'kind' = 'seal'`)
  )[0] as { id: string; part: Part; version: number }[])
    await shop.supervisor.call
      .put('/api/stores/parts')
      .send({ seenVersion: version, part: { ...part, id, fits: [] } })
      .expect(200);
  const part = partSchema.parse({
    ...{ id: randomUUID(), kind: 'seal', title: 'Hub seal', number, fits: [{ sheetId, line: LINE }] },
  });
  await shop.supervisor.call.put('/api/stores/parts').send({ seenVersion: 0, part }).expect(200);
  if (here > 0) await receive(part, here);
  return part;
}
const receive = (part: Part, quantity: number) =>
  shop.supervisor.call
    .post(`/api/stores/parts/${part.id}/movements`)
    .send({ recordId: randomUUID(), movement: { what: 'received', quantity, place: 'A3' } })
    .expect(200);

/** Hours after now, ISO 8601. */
const at = (hours: number) => new Date(shop.clock.now().getTime() + hours * 3_600_000).toISOString();
async function book(jobId: string, unitId: string, inDays: number, bayId = 'bay-1'): Promise<string> {
  const from = at(inDays * 24 + 1);
  const until = at(inDays * 24 + 3);
  const booking = { bayId, unitId, jobId, people: [], tools: [], from, until, note: '' };
  const { body } = await shop.supervisor.call.post('/api/plan/bookings').send(booking).expect(200);
  await shop.keeper.settled();
  return (body as { id: string }).id;
}
async function keptFor(jobId: string): Promise<[string, number, boolean][]> {
  await shop.keeper.settled();
  const lines = (await shop.technician.call.get(`/api/stores/jobs/${jobId}`).expect(200)).body as JobParts[];
  return lines
    .filter((l) => l.line === LINE)
    .flatMap((l) => l.kept.map((k) => [l.position, k.quantity, k.planned] as [string, number, boolean]));
}
const look = async (part: Part) =>
  (await shop.supervisor.call.get(`/api/stores/parts/${part.id}`).expect(200)).body as StorePart;

describe('parts are kept by themselves', () => {
  it('for a job that is booked within two weeks, the soonest first; a cancelled booking lets them go', async () => {
    const part = await onlySeal('90-1', 2);
    const [unitA, unitB, unitC] = [await newUnit(), await newUnit(), await newUnit()];
    const far = await openJobOn(shop, unitC, ['2L']);
    await book(far, unitC, 20);
    const later = await openJobOn(shop, unitA, ['2L', '2R']);
    await book(later, unitA, 5);
    expect(await keptFor(later)).toEqual([
      ['2L', 1, true],
      ['2R', 1, true],
    ]);
    const sooner = await openJobOn(shop, unitB, ['2L']);
    const bookingId = await book(sooner, unitB, 2);
    // What is kept stays with whom it is kept for; what comes goes to the one that comes in first.
    expect(await keptFor(sooner)).toEqual([]);
    await receive(part, 1);
    await shop.keeper.keep();
    expect([await keptFor(sooner), await keptFor(far)]).toEqual([[['2L', 1, true]], []]);
    expect(await look(part)).toMatchObject({ onHand: 3, reserved: 3 });
    await shop.supervisor.call
      .post(`/api/plan/bookings/${bookingId}/cancel`)
      .send({ seenVersion: 1, reason: 'The owner needs it' })
      .expect(200);
    expect(await keptFor(sooner)).toEqual([]);
    expect(await look(part)).toMatchObject({ onHand: 3, reserved: 2 });
  });

  it('for a wheel end that went deeper, at once; what somebody let go stays so, and a closed job keeps nothing', async () => {
    const part = await onlySeal('90-2', 3);
    const unitId = await newUnit();
    const jobId = await openJobOn(shop, unitId, ['2L', '2R'], ['check']);
    expect(await keptFor(jobId)).toEqual([]);
    const command = { kind: 'work-added', position: '2L', work: 'seal', reason: 'It weeps' } as const;
    await send(shop.technician.call, jobId, 1, command).expect(200);
    expect(await keptFor(jobId)).toEqual([['2L', 1, true]]);
    const [kept] = (await look(part)).reservations;
    await shop.technician.call.delete(`/api/stores/parts/${part.id}/reservations/${kept!.id}`).expect(200);
    await shop.keeper.keep();
    expect(await keptFor(jobId)).toEqual([]);
    const reservation = { id: randomUUID(), jobId, position: '2L', line: LINE, quantity: 2 };
    await shop.technician.call
      .post(`/api/stores/parts/${part.id}/reservations`)
      .send({ reservation })
      .expect(200);
    await shop.keeper.keep();
    expect(await keptFor(jobId)).toEqual([['2L', 2, false]]);
    await send(shop.supervisor.call, jobId, 2, { kind: 'job-voided', reason: 'The owner fetched it' }).expect(
      200,
    );
    await shop.keeper.keep();
    expect(await look(part)).toMatchObject({ onHand: 3, reserved: 0, reservations: [] });
  });

  it('two servers that keep at once keep it once', async () => {
    const part = await onlySeal('90-3', 5);
    const unitId = await newUnit();
    const jobId = await openJobOn(shop, unitId, ['2L']);
    await book(jobId, unitId, 3, 'bay-2');
    await Promise.all([1, 2, 3, 4].map(() => shop.keeper.keep()));
    expect((await look(part)).reservations).toHaveLength(1);
  });

  it('one that is kept for another job is taken with a word; sent twice it is taken once, and no half of it', async () => {
    const part = await onlySeal('90-4', 1);
    const [unitId, jobId] = [await newUnit(), await openJobOn(shop, await newUnit(), ['2L'])];
    const robbed = await openJobOn(shop, unitId, ['2L']);
    await book(robbed, unitId, 6, 'bay-2');
    const lines = (await shop.technician.call.get(`/api/stores/jobs/${jobId}`).expect(200))
      .body as JobParts[];
    const [kept] = lines.find((l) => l.line === LINE)!.fitting[0]!.keptFor;
    const day = shop.clock.today();
    expect(kept).toMatchObject({ quantity: 1, unit: `Tern ${700 + units - 2}` });
    expect([addDays(day, 6), addDays(day, 7)]).toContain(kept!.day);
    const movement = { what: 'used', quantity: 1, place: 'A3', jobId, position: '2L', line: LINE };
    const use = (more: object, recordId: string = randomUUID()) =>
      shop.technician.call.post(`/api/stores/parts/${part.id}/uses`).send({ recordId, movement, ...more });
    expect((await use({}).expect(422)).body.issues[0].message).toMatch(/^1 of them is kept for other jobs/);
    await use({ instead: [kept!.id], movement: { ...movement, quantity: 2 } }).expect(422);
    expect(await look(part)).toMatchObject({ onHand: 1, reserved: 1 });
    const recordId = randomUUID();
    await use({ instead: [kept!.id] }, recordId).expect(200);
    await use({ instead: [kept!.id] }, recordId).expect(200);
    expect(await look(part)).toMatchObject({ onHand: 0, reserved: 0 });
    expect(await keptFor(robbed)).toEqual([]);
  });

  it('stands in the record: a rebuild finds the same', async () => {
    expect(await compareProjections(shop.db)).toMatchObject({ differs: null, aside: [] });
  });
});
