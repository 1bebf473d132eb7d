import { afterAll, beforeAll, expect, it } from 'vitest';
import { describeCalculation } from '@lanternwright/core/reckoner';
import { openShop, type Shop } from '../testing/shop.ts';

let shop: Shop;
beforeAll(async () => {
  shop = await openShop();
});
afterAll(() => shop.close());

const post = (name: string, body: object) => shop.anyone().post(`/api/reckon/${name}`).send(body);

it('lists and describes every calculation', async () => {
  const list = (await shop.anyone().get('/api/reckon').expect(200)).body as { name: string }[];
  expect(list.length).toBe(25);
  expect((await shop.anyone().get('/api/reckon/due').expect(200)).body).toMatchObject({
    name: 'due',
    inputSchema: { type: 'object' },
  });
  await shop.anyone().get('/api/reckon/astrology').expect(404);
});

it('answers, and names the field that is wrong, in the form of the command line', async () => {
  expect((await post('nut-travel', { thread: { pitchMm: 2 }, turns: -0.25 }).expect(200)).body).toEqual({
    travelMm: -0.5,
  });
  const bad = await post('seal-speed', {
    journalDiameterMm: -1,
    speedKmh: 90,
    rollingCircumferenceMm: 3200,
  }).expect(422);
  expect(bad.body.error.issues[0].path).toBe('journalDiameterMm');
});

it('runs long sums in a thread: others are answered meanwhile, and no more than two run at once', async () => {
  const example = describeCalculation('shop-plan')!.example as { jobs: { id: string }[] };
  const jobs = Array.from({ length: 40 }, (_, i) => ({ ...example.jobs[i % 3]!, id: `job ${i}` }));
  const long = () => post('shop-plan', { ...example, jobs, tries: 60_000 });
  const started = performance.now();
  const plans = [long(), long()].map((p) =>
    p.then((answer) => ({ answer, at: performance.now() - started })),
  );
  await new Promise((resolve) => setTimeout(resolve, 50));
  const third = await long();
  const quick = await post('nut-travel', { thread: { pitchMm: 2 }, turns: 1 });
  const quickAt = performance.now() - started;
  const done = await Promise.all(plans);
  expect(quick.status).toBe(200);
  expect(third.status).toBe(503);
  expect(done.map((d) => d.answer.status)).toEqual([200, 200]);
  for (const { answer, at } of done) {
    expect(at).toBeGreaterThan(quickAt);
    expect(answer.body.bookings).toHaveLength(40);
  }
});

it('ends a long sum when whoever asked has left, so that others find room', async () => {
  const example = describeCalculation('shop-plan')!.example as { jobs: { id: string; dueMin: number }[] };
  const jobs = Array.from({ length: 40 }, (_, i) => ({ ...example.jobs[i % 3]!, id: `job ${i}` }));
  const asked = [1, 2].map(() => post('shop-plan', { ...example, jobs, tries: 3_000_000 }));
  for (const request of asked) request.end(() => undefined);
  await new Promise((resolve) => setTimeout(resolve, 400));
  await post('shop-plan', example).expect(503);
  for (const request of asked) request.abort();
  await expect.poll(async () => (await post('shop-plan', example)).status, { timeout: 5000 }).toBe(200);
});
