import fc from 'fast-check';
import highsLoader from 'highs';
import { describe, expect, it } from 'vitest';
import { relax } from './bound.ts';
import { bucketAt, bucketsOf } from './buckets.ts';
import { calendarOf } from './calendar.ts';
import { aloneIn } from './others-fixed.ts';
import { toProblem } from './problem.ts';
import { planShopNow, shopPlanInput, type ShopPlan, type ShopPlanInput } from './index.ts';
import { shopWithHours } from './testing/shop-with-hours.ts';

/** The solver's types describe its CommonJS face; as an ES module the loader is the default export itself. */
const loadHighs = highsLoader as unknown as () => Promise<{
  solve: (lp: string, options: { time_limit: number }) => { Status: string; ObjectiveValue: number };
}>;

type Span = { fromMin: number; untilMin: number };
const works = (spans: readonly Span[] | undefined, minute: number) =>
  !spans || spans.some((s) => s.fromMin <= minute && minute < s.untilMin);
const touches = (spans: readonly Span[] | undefined, from: number, until: number) =>
  (spans ?? []).some((s) => s.fromMin < until && from < s.untilMin);

/** Everything that a plan must keep to, minute by minute in steps of five, against the input alone. */
function check(input: ShopPlanInput, plan: ShopPlan): void {
  expect([...plan.bookings.map((b) => b.job), ...plan.unplaced].sort()).toEqual(
    input.jobs.map((j) => j.id).sort(),
  );
  for (const b of plan.bookings) {
    const job = input.jobs.find((j) => j.id === b.job)!;
    const bay = input.bays.find((x) => x.id === b.bay)!;
    const crew = b.people.map((id) => input.people.find((p) => p.id === id)!);
    const tools = (job.tools ?? []).map((id) => input.tools!.find((t) => t.id === id)!);
    expect(bay.kinds).toContain(job.bayKind);
    expect(crew[0]!.skills).toContain(job.skill);
    expect(new Set(b.people).size).toBe(job.people ?? 1);
    expect(b.startMin).toBeGreaterThanOrEqual(job.releaseMin);
    if (job.stays)
      expect(job.stays.some((s) => s.fromMin <= b.startMin && b.endMin <= s.untilMin)).toBe(true);
    for (const taken of [bay, ...crew, ...tools].map((r) => r.taken))
      expect(touches(taken, b.startMin, b.endMin)).toBe(false);
    let minutes = 0;
    for (let m = b.startMin; m < b.endMin; m += 5) if (crew.every((p) => works(p.works, m))) minutes += 5;
    expect(minutes).toBeCloseTo(job.minutes, 6);
    expect(crew.every((p) => works(p.works, b.startMin) && works(p.works, b.endMin - 1))).toBe(true);
    for (const other of plan.bookings) {
      if (other === b || other.startMin >= b.endMin || b.startMin >= other.endMin) continue;
      expect(other.bay).not.toBe(b.bay);
      expect(b.people.filter((p) => other.people.includes(p))).toEqual([]);
      const theirs = input.jobs.find((j) => j.id === other.job)!.tools ?? [];
      expect((job.tools ?? []).filter((t) => theirs.includes(t))).toEqual([]);
    }
  }
  expect(plan.lowerBound).toBeLessThanOrEqual(plan.cost + 1e-6);
}

/**
 * The same shop as a time-indexed model: a yes or no for each job, bay, crew and start on a grid of slots, each
 * resource once in each slot. Written from the input alone, sharing nothing with the planner.
 */
function asLp(input: ShopPlanInput, slot: number): string {
  const end = Math.max(...input.people.flatMap((p) => (p.works ?? []).map((s) => s.untilMin)));
  const objective: string[] = [];
  const names: string[] = [];
  const once: string[] = [];
  const busy = new Map<string, string[]>();
  input.jobs.forEach((job, j) => {
    const mine: string[] = [];
    const able = input.people.filter((p) => p.skills.includes(job.skill));
    const crews =
      job.people === 2
        ? able.flatMap((a) => input.people.flatMap((b) => (a === b ? [] : [[a, b]])))
        : able.map((a) => [a]);
    for (const bay of input.bays.filter((b) => b.kinds.includes(job.bayKind))) {
      for (const crew of crews) {
        for (let start = 0; start < end; start += slot) {
          if (start < job.releaseMin || !crew.every((p) => works(p.works, start))) continue;
          let until = start;
          for (let left = job.minutes; left > 0 && until < end; until += slot)
            if (crew.every((p) => works(p.works, until))) left -= slot;
          const done = crew.every((p) => works(p.works, until - slot));
          const tools = (job.tools ?? []).map((id) => input.tools!.find((t) => t.id === id)!);
          const free = [bay, ...crew, ...tools].every((r) => !touches(r.taken, start, until));
          const here = !job.stays || job.stays.some((s) => s.fromMin <= start && until <= s.untilMin);
          const worked = Array.from({ length: (until - start) / slot }, (_, k) => start + k * slot).filter(
            (m) => crew.every((p) => works(p.works, m)),
          ).length;
          if (!done || !free || !here || worked * slot < job.minutes) continue;
          const name = `x${names.length}`;
          names.push(name);
          mine.push(name);
          objective.push(`${job.weight * Math.max(0, until - job.dueMin)} ${name}`);
          for (let m = start; m < until; m += slot) {
            for (const r of [bay, ...crew, ...tools]) {
              const key = `${r.id}@${m}`;
              busy.set(key, [...(busy.get(key) ?? []), name]);
            }
          }
        }
      }
    }
    once.push(` j${j}: ${mine.join(' + ')} = 1`);
  });
  const limits = [...busy.values()].map((list, i) => ` r${i}: ${list.join(' + ')} <= 1`);
  return `Minimize\n obj: ${objective.join(' + ')}\nSubject To\n${[...once, ...limits].join('\n')}\nBinary\n ${names.join(' ')}\nEnd\n`;
}

/** One bay and one person who always works: what the textbooks settle. */
function oneBay(seed: number, goal: ShopPlanInput['goal'], dueAtOnce: boolean): ShopPlanInput {
  let state = seed;
  const next = () => (state = (state * 48271) % 2147483647) / 2147483647;
  return shopPlanInput.parse({
    bays: [{ id: 'bay', kinds: ['any'] }],
    people: [{ id: 'one', skills: ['any'] }],
    goal,
    jobs: Array.from({ length: 14 }, (_, i) => ({
      id: `job ${i}`,
      minutes: 15 + Math.floor(next() * 200),
      releaseMin: 0,
      dueMin: dueAtOnce ? 0 : 60 + Math.floor(next() * 1200),
      weight: goal === undefined ? 1 + Math.floor(next() * 9) : 1,
      bayKind: 'any',
      skill: 'any',
    })),
  });
}

describe('a shop with hours', () => {
  it('equals the optimum of a time-indexed model on small shops (HiGHS)', async () => {
    const highs = await loadHighs();
    let late = 0;
    for (let seed = 1; seed <= 6; seed++) {
      const input = shopWithHours(seed, { bays: 2, people: 3, jobs: 4 + (seed % 2), days: 3, slot: 60 });
      const plan = planShopNow(input);
      check(input, plan);
      const solved = highs.solve(asLp(input, 60), { time_limit: 30 });
      expect(solved.Status).toBe('Optimal');
      expect(plan.cost).toBeCloseTo(solved.ObjectiveValue, 3);
      late += plan.cost;
    }
    expect(late).toBeGreaterThan(0);
  }, 240_000);

  it('has a bound that no plan beats, and that is of use', () => {
    let [bounds, costs] = [0, 0];
    for (let seed = 1; seed <= 40; seed++) {
      const size = { bays: 1 + (seed % 2), people: 2 + (seed % 3), jobs: 4 + (seed % 4), days: 1, slot: 30 };
      const input = shopWithHours(seed, size);
      const problem = toProblem(input);
      const { cost, unplaced } = planShopNow(input);
      if (unplaced.length > 0) continue;
      const alone = problem.tasks.map((t) => aloneIn(problem, t));
      const relaxing = relax(problem, alone, () => 2 * cost + 1, 4 * 1440, 200);
      let step = relaxing.next();
      while (!step.done) step = relaxing.next();
      // Up to eight jobs the plan is proved to be the best there is.
      expect(step.value.bound).toBeLessThanOrEqual(cost + 1e-6);
      bounds += step.value.bound;
      costs += cost;
    }
    expect(costs).toBeGreaterThan(0);
    expect(bounds / costs).toBeGreaterThan(0.6);
  }, 120_000);

  it('keeps to shifts, breaks, pairs, tools, what is booked and when a unit may come, whatever the shop', () => {
    for (let seed = 1; seed <= 25; seed++) {
      const input = shopWithHours(seed, { bays: 3, people: 4, jobs: 18, days: 12, slot: 15 });
      check(input, planShopNow({ ...input, tries: 300 }));
    }
  }, 60_000);

  it('stays near its bound with hours, pairs and tools', () => {
    for (const [jobs, tries, share] of [
      [60, 4000, 0.95],
      [300, 8000, 0.95],
    ] as const) {
      const input = shopWithHours(7, { bays: 6, people: 9, jobs, days: jobs / 4, slot: 15 });
      const plan = planShopNow({ ...input, tries });
      check(input, plan);
      expect(plan.unplaced).toEqual([]);
      expect(plan.lowerBound / plan.cost).toBeGreaterThan(share);
    }
  }, 240_000);

  it('does the heaviest for its minutes first, where all wait (Smith 1956)', () => {
    for (let seed = 1; seed <= 10; seed++) {
      const input = oneBay(seed, undefined, true);
      const ratio = (j: ShopPlanInput['jobs'][number]) => j.minutes / j.weight;
      let clock = 0;
      const least = input.jobs
        .toSorted((a, b) => ratio(a) - ratio(b))
        .reduce((sum, j) => sum + j.weight * (clock += j.minutes), 0);
      expect(planShopNow(input).cost).toBeCloseTo(least, 6);
    }
  }, 60_000);

  it('has the least greatest lateness by due date (Jackson 1955), and the fewest late (Moore and Hodgson 1968)', () => {
    for (let seed = 1; seed <= 10; seed++) {
      const dated = oneBay(seed, 'greatest-lateness', false);
      let clock = 0;
      const byDate = dated.jobs.toSorted((a, b) => a.dueMin - b.dueMin);
      const greatest = Math.max(0, ...byDate.map((j) => (clock += j.minutes) - j.dueMin));
      expect(planShopNow(dated).cost).toBeCloseTo(greatest, 6);
      // The fewest late by trying every set: a set is in time exactly when it is by due date.
      let most = 0;
      for (let set = 0; set < 1 << byDate.length; set++) {
        let at = 0;
        let count = 0;
        const inTime = byDate.every((j, i) => {
          if (!(set & (1 << i))) return true;
          count++;
          return (at += j.minutes) <= j.dueMin;
        });
        if (inTime) most = Math.max(most, count);
      }
      expect(planShopNow({ ...dated, goal: 'number-late' }).cost).toBe(dated.jobs.length - most);
    }
  });

  it('says what decided each start', () => {
    const day = { fromMin: 0, untilMin: 480 };
    const job = { minutes: 120, releaseMin: 0, dueMin: 600, weight: 1, bayKind: 'any', skill: 'hubs' };
    const plan = planShopNow(
      shopPlanInput.parse({
        bays: [
          { id: 'Bay 1', kinds: ['any'] },
          { id: 'Bay 2', kinds: ['any'], taken: [{ fromMin: 0, untilMin: 480 }] },
        ],
        people: [
          { id: 'Ann', skills: ['hubs'], works: [day, { fromMin: 1440, untilMin: 1920 }] },
          { id: 'Bob', skills: [], works: [day] },
        ],
        jobs: [
          { ...job, id: 'first', dueMin: 100 },
          { ...job, id: 'second', dueMin: 200 },
          { ...job, id: 'waits for its part', releaseMin: 300, dueMin: 400 },
          { ...job, id: 'comes tomorrow', stays: [{ fromMin: 1500, untilMin: 1920 }] },
          { ...job, id: 'too long', minutes: 2000 },
        ],
      }),
    );
    const of = (id: string) => plan.bookings.find((b) => b.job === id)!;
    expect(of('first').because).toEqual({ kind: 'release' });
    expect(of('second')).toMatchObject({ startMin: 120, because: { kind: 'several' } });
    expect(of('waits for its part')).toMatchObject({ startMin: 300, because: { kind: 'release' } });
    expect(of('comes tomorrow')).toMatchObject({ startMin: 1500, because: { kind: 'stay' } });
    expect(plan.unplaced).toEqual(['too long']);
  });
});

describe('the time that is priced', () => {
  it('is cut wherever hours begin or end, and a minute is found in its bucket', () => {
    const spans = fc.array(
      fc.record({ fromMin: fc.nat({ max: 3000 }), minutes: fc.integer({ min: 1, max: 600 }) }),
      { maxLength: 8 },
    );
    fc.assert(
      fc.property(fc.array(spans, { maxLength: 3 }), fc.integer({ min: 60, max: 4000 }), (all, horizon) => {
        const hours = all.map((list) =>
          calendarOf(list.map(({ fromMin, minutes }) => ({ fromMin, untilMin: fromMin + minutes }))),
        );
        const buckets = bucketsOf(hours, horizon);
        const edges = [...buckets.edges];
        expect(edges).toEqual([...new Set(edges)].sort((a, b) => a - b));
        expect([edges[0], edges.at(-1)]).toEqual([0, horizon]);
        for (const at of hours.flatMap((h) => [...h.from, ...h.until]))
          if (at < horizon) expect(edges).toContain(at);
        for (let minute = 0; minute < horizon; minute += horizon / 37) {
          const k = bucketAt(buckets, minute);
          expect(edges[k]! <= minute && minute < edges[k + 1]!).toBe(true);
        }
      }),
    );
  });
});
