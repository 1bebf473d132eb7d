import { describe, expect, it } from 'vitest';
import { mendPlan, planShopNow, shopPlanInput, type Place, type ShopPlanInput } from './index.ts';
import { shopWithHours } from './testing/shop-with-hours.ts';

const hours = [0, 1, 2, 3].map((day) => ({ fromMin: day * 1440 + 480, untilMin: day * 1440 + 960 }));
const base = shopPlanInput.parse({
  bays: ['Bay 1', 'Bay 2'].map((id) => ({ id, kinds: ['any'] })),
  people: ['Ann', 'Bob', 'Cid'].map((id) => ({ id, skills: ['hubs'], works: hours })),
  jobs: ['a', 'b', 'c', 'd'].map((id) => ({
    ...{ id, minutes: 240, releaseMin: 0, dueMin: 2 * 1440, weight: 1, bayKind: 'any', skill: 'hubs' },
  })),
});
const at = (job: string, bay: string, person: string, startMin: number): Place => ({
  ...{ job, bay, people: [person], startMin, endMin: startMin + 240 },
});
const places = [
  at('a', 'Bay 1', 'Ann', 480),
  at('b', 'Bay 1', 'Ann', 720),
  at('c', 'Bay 2', 'Bob', 480),
  at('d', 'Bay 2', 'Bob', 720),
];
const taking = (
  input: ShopPlanInput,
  what: 'bays' | 'people',
  id: string,
  fromMin: number,
  untilMin: number,
) => ({
  ...input,
  [what]: input[what].map((x) =>
    x.id === id ? { ...x, taken: [...(x.taken ?? []), { fromMin, untilMin }] } : x,
  ),
});

describe('mending a plan', () => {
  it('moves nothing that still stands', () => {
    expect(mendPlan(base, places)).toMatchObject({ moved: [], unplaced: [], places });
  });

  it('gives the work of somebody who is ill to another, in the same bay at the same time', () => {
    const { moved } = mendPlan(taking(base, 'people', 'Bob', 0, 5 * 1440), places);
    expect(moved.map((m) => [m.job, m.to.people, m.to.bay, m.to.startMin, m.because.kind])).toEqual([
      ['c', ['Cid'], 'Bay 2', 480, 'people'],
      ['d', ['Cid'], 'Bay 2', 720, 'people'],
    ]);
  });

  it('moves what a job that takes longer runs into, and nothing else', () => {
    const { moved, after } = mendPlan(taking(base, 'bays', 'Bay 1', 480, 780), [
      ...places.filter((p) => p.job !== 'a'),
      at('a', 'Bay 1', 'Ann', 1440 + 480),
    ]);
    expect(moved).toMatchObject([
      { job: 'b', because: { kind: 'bay' }, to: { bay: 'Bay 1', startMin: 1440 + 720 } },
    ]);
    expect(after).toBe(0);
  });

  it('lets another make room where that saves more than it costs', () => {
    const urgent = {
      ...base,
      bays: base.bays.slice(0, 1),
      people: base.people.slice(0, 1),
      jobs: base.jobs
        .slice(0, 2)
        .map((j) =>
          j.id === 'b' ? { ...j, releaseMin: 0, dueMin: 1440, weight: 9 } : { ...j, weight: 1, dueMin: 9000 },
        ),
    };
    const shop = taking(urgent, 'bays', 'Bay 1', 0, 1440 + 480);
    const { moved } = mendPlan({ ...shop, jobs: shop.jobs.map((j) => ({ ...j, releaseMin: 0 })) }, [
      at('a', 'Bay 1', 'Ann', 1440 + 480),
      at('b', 'Bay 1', 'Ann', 480),
    ]);
    expect(moved.map((m) => [m.job, m.to.startMin, m.because])).toEqual([
      ['a', 1440 + 720, { kind: 'room', jobs: ['b'] }],
      ['b', 1440 + 480, { kind: 'bay' }],
    ]);
  });

  it('says what finds no place any more, and refuses a job that stands nowhere', () => {
    const gone = { ...base, people: base.people.map((p) => ({ ...p, works: hours.slice(0, 1) })) };
    const { unplaced, moved } = mendPlan(taking(gone, 'bays', 'Bay 1', 0, 5000), places);
    expect(unplaced.length).toBeGreaterThan(0);
    expect(unplaced.length + moved.length).toBeGreaterThanOrEqual(2);
    expect(() => mendPlan(base, places.slice(1))).toThrow(/stands nowhere/);
  });

  it('moves few of sixty jobs when somebody is away for two days', () => {
    const input = shopWithHours(7, { bays: 6, people: 9, jobs: 60, days: 15, slot: 15 });
    const plan = planShopNow({ ...input, tries: 2000 });
    const stands = plan.bookings.map(({ job, bay, people, startMin, endMin }) => ({
      job,
      bay,
      people,
      startMin,
      endMin,
    }));
    const ill = taking(input, 'people', 'person 0', 1440, 3 * 1440);
    const mended = mendPlan(ill, stands);
    const lost = stands.filter(
      (p) => p.people.includes('person 0') && p.startMin < 3 * 1440 && p.endMin > 1440,
    );
    expect(lost.length).toBeGreaterThan(0);
    expect(mended.moved.length).toBeLessThanOrEqual(2 * lost.length);
    // What was mended holds: mending it again moves nothing.
    expect(mendPlan(ill, mended.places).moved).toEqual([]);
  }, 60_000);
});
