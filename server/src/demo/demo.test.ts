import { createHash } from 'node:crypto';
import { describe, expect, it } from 'vitest';
import { fold, lastVerdict, type Actor } from '@lanternwright/core/traveller';
import { openShop } from '../testing/shop.ts';
import { verifyChain } from '../record/verify-chain.ts';
import { generateDemo } from './generate.ts';
import { loadDemo } from './load.ts';

const people: Actor[] = [
  { id: '00000000-0000-4000-8000-000000000001', name: 'Sup', role: 'supervisor' },
  { id: '00000000-0000-4000-8000-000000000002', name: 'A', role: 'technician' },
  { id: '00000000-0000-4000-8000-000000000003', name: 'B', role: 'technician' },
];
const today = '2026-11-25';
/** Days of a past long enough for wheel ends to be seen twice. */
const SHORT = 400;
const demo = generateDemo(people, today);
const jobs = demo.jobs.map((j) => fold(j.events));

describe('the demo shop', () => {
  it('is the same every time, about 115 units, and ends today', () => {
    const hash = (d: typeof demo) => createHash('sha256').update(JSON.stringify(d)).digest('hex');
    const short = () => hash(generateDemo(people, today, { days: SHORT }));
    expect(short()).toBe(short());
    expect(demo.units.length).toBeGreaterThanOrEqual(105);
    expect(demo.units.length).toBeLessThanOrEqual(120);
    const times = demo.jobs.flatMap((j) => j.events.map((e) => e.at)).sort();
    expect(times.at(-1)! <= `${today}T23:59:59Z`).toBe(true);
    expect(times[0]! < '2023-03-01').toBe(true);
  }, 180_000);

  it('has wheel ends that wear: found looser than the last job left them, as a rule', () => {
    const byEnd = new Map<string, { found: number; left: number; at: string }[]>();
    for (const job of jobs) {
      for (const w of job.wheelEnds) {
        const of = (round: number) => {
          const readings = w.readings.filter((r) => r.round === round);
          return readings.reduce((sum, r) => sum + Math.abs(r.pull.si - r.push.si), 0) / readings.length;
        };
        const key = `${job.unitId}/${w.position}`;
        byEnd.set(key, [
          ...(byEnd.get(key) ?? []),
          { found: of(0), left: of(w.rounds.length), at: job.opened.at },
        ]);
      }
    }
    const steps = [...byEnd.values()]
      .flatMap((visits) => visits.slice(1).map((v, i) => v.found - visits[i]!.left))
      .filter(Number.isFinite);
    expect(steps.filter((s) => s > 0).length / steps.length).toBeGreaterThan(0.9);
  });

  it('tells the story of the tang that was never bent: recorded as locked, found open and loose at the next visit', () => {
    const found = jobs.flatMap((job) =>
      job.wheelEnds.filter((w) =>
        w.records.some((r) => r.data?.kind === 'found' && r.data.signs.includes('not-locked')),
      ),
    );
    expect(found.length).toBeGreaterThan(0);
    expect(found.every((w) => w.sheet.family === 'A')).toBe(true);
    expect(
      found.every(
        (w) =>
          lastVerdict({
            ...w,
            rounds: w.rounds.slice(0, 1),
            readings: w.readings.filter((r) => r.round === 0),
          })?.result.verdict === 'loose',
      ),
    ).toBe(true);
  });

  it('has every release with nothing of the never-list against it', () => {
    const overridden = jobs.flatMap((job) => job.wheelEnds.flatMap((w) => w.release?.overridden ?? []));
    expect(overridden.length).toBeGreaterThan(0);
    expect(overridden.filter((o) => o.guard === 'never')).toEqual([]);
  });
});

it('loads once into the real database, with a whole chain, and never over what is there', async () => {
  const shop = await openShop();
  expect(await loadDemo(shop)).toBe(false);
  await shop.db.person.destroy({ where: {} });
  expect(await loadDemo(shop, SHORT)).toBe(true);
  expect(await loadDemo(shop)).toBe(false);
  expect(await shop.db.unit.count()).toBe(demo.units.length);
  expect(await verifyChain(shop.db)).toMatchObject({ ok: true });
  // Pictures stand beside the record, which holds their hash.
  const recorded = await shop.db.entry.count({ where: { body: { kind: 'photo-added' } } });
  expect(recorded).toBeGreaterThan(0);
  expect(await shop.db.photo.count()).toBe(recorded);
  const ids = await shop.fleet.ids(shop.supervisor.viewer);
  const states = (await shop.fleet.some(ids)).flatMap((u) => u.wheelEnds.map((w) => w.state));
  for (const state of ['in-band', 'loose', 'working', 'not-measured'] as const)
    expect(states).toContain(state);
  await shop.close();
}, 240_000);
