import fc from 'fast-check';
import highsLoader from 'highs';
import { describe, expect, it } from 'vitest';
import {
  planShop,
  planShopNow,
  shopPlanInput,
  type PlanProgress,
  type ShopPlan,
  type ShopPlanInput,
} from './index.ts';

/** The solver's types describe its CommonJS face; as an ES module the loader is the default export itself. */
const loadHighs = highsLoader as unknown as () => Promise<{
  solve: (lp: string, options: { time_limit: number }) => { Status: string; ObjectiveValue: number };
}>;

const kinds = ['heavy', 'light'];
const skills = ['hubs', 'brakes', 'seals'];

/** A made-up shop of a size, the same for the same seed. */
function shopOf(seed: number, bays: number, people: number, jobs: number, tightness = 1): ShopPlanInput {
  let state = seed;
  const next = () => (state = (state * 48271) % 2147483647) / 2147483647;
  const pick = <T>(list: readonly T[]) => list[Math.floor(next() * list.length)]!;
  const span = (jobs * 110) / Math.min(bays, people);
  return shopPlanInput.parse({
    bays: Array.from({ length: bays }, (_, i) => ({
      id: `bay ${i}`,
      kinds: i === 0 ? kinds : [pick(kinds), 'heavy'],
    })),
    people: Array.from({ length: people }, (_, i) => ({
      id: `person ${i}`,
      skills: i === 0 ? skills : [pick(skills), pick(skills)],
    })),
    jobs: Array.from({ length: jobs }, (_, i) => {
      const releaseMin = Math.floor(next() * span * 0.5);
      const minutes = 30 + 15 * Math.floor(next() * 12);
      return {
        id: `job ${i}`,
        minutes,
        releaseMin,
        dueMin: releaseMin + minutes + Math.floor((next() * span * 0.5) / tightness),
        weight: 1 + Math.floor(next() * 5),
        bayKind: pick(kinds),
        skill: pick(skills),
      };
    }),
  });
}

/** Everything a plan must keep to, checked against the input alone. */
function check(input: ShopPlanInput, plan: ShopPlan): void {
  expect(plan.bookings.map((b) => b.job).sort()).toEqual(input.jobs.map((j) => j.id).sort());
  let cost = 0;
  for (const booking of plan.bookings) {
    const job = input.jobs.find((j) => j.id === booking.job)!;
    expect(input.bays.find((b) => b.id === booking.bay)!.kinds).toContain(job.bayKind);
    expect(input.people.find((p) => p.id === booking.person)!.skills).toContain(job.skill);
    expect(booking.startMin).toBeGreaterThanOrEqual(job.releaseMin);
    expect(booking.endMin - booking.startMin).toBeCloseTo(job.minutes, 9);
    cost += job.weight * Math.max(0, booking.endMin - job.dueMin);
    for (const other of plan.bookings) {
      if (other === booking || (other.bay !== booking.bay && other.person !== booking.person)) continue;
      expect(other.startMin >= booking.endMin - 1e-9 || other.endMin <= booking.startMin + 1e-9).toBe(true);
    }
  }
  expect(plan.weightedLateness).toBeCloseTo(cost, 6);
  expect(plan.lowerBound).toBeLessThanOrEqual(plan.weightedLateness + 1e-6);
}

/** The same problem as a mixed-integer model in LP format: assignment, order of every pair, big-M. */
function asLp({ bays, people, jobs }: ShopPlanInput): string {
  const far = jobs.reduce((s, j) => s + j.minutes, 0) + Math.max(...jobs.map((j) => j.releaseMin));
  const lines: string[] = [];
  const binaries: string[] = [];
  const resources = [
    ...bays.map((b, k) => ({
      name: `b${k}`,
      fits: (j: (typeof jobs)[number]) => b.kinds.includes(j.bayKind),
    })),
    ...people.map((p, k) => ({
      name: `p${k}`,
      fits: (j: (typeof jobs)[number]) => p.skills.includes(j.skill),
    })),
  ];
  jobs.forEach((job, i) => {
    for (const letter of ['b', 'p']) {
      const mine = resources
        .filter((r) => r.name.startsWith(letter) && r.fits(job))
        .map((r) => `x${i}${r.name}`);
      lines.push(`${mine.join(' + ')} = 1`);
      binaries.push(...mine);
    }
    lines.push(`s${i} >= ${job.releaseMin}`, `t${i} - s${i} >= ${job.minutes - job.dueMin}`);
  });
  for (let i = 0; i < jobs.length; i++) {
    for (let j = i + 1; j < jobs.length; j++) {
      binaries.push(`z${i}_${j}`);
      for (const r of resources.filter((r) => r.fits(jobs[i]!) && r.fits(jobs[j]!))) {
        lines.push(
          `s${j} - s${i} - ${far} z${i}_${j} - ${far} x${i}${r.name} - ${far} x${j}${r.name} >= ${jobs[i]!.minutes - 3 * far}`,
        );
        lines.push(
          `s${i} - s${j} + ${far} z${i}_${j} - ${far} x${i}${r.name} - ${far} x${j}${r.name} >= ${jobs[j]!.minutes - 2 * far}`,
        );
      }
    }
  }
  const objective = jobs.map((job, i) => `${job.weight} t${i}`).join(' + ');
  return `Minimize\n obj: ${objective}\nSubject To\n${lines.map((l, i) => ` c${i}: ${l}`).join('\n')}\nBinary\n ${binaries.join(' ')}\nEnd\n`;
}

describe('planShop', () => {
  it('equals the optimum of a mixed-integer model on small shops (HiGHS)', async () => {
    const highs = await loadHighs();
    for (let seed = 1; seed <= 6; seed++) {
      const input = shopOf(seed, 2, 3, 4 + (seed % 4), 2);
      const plan = planShopNow(input);
      check(input, plan);
      const solved = highs.solve(asLp(input), { time_limit: 20 });
      expect(solved.Status).toBe('Optimal');
      expect(plan.weightedLateness).toBeCloseTo(solved.ObjectiveValue, 3);
      expect(plan.lowerBound).toBe(plan.weightedLateness);
    }
  }, 240_000);

  it('never overlaps, never books outside skills or kinds, and never beats its bound', () => {
    const size = fc.integer({ min: 1, max: 5 });
    fc.assert(
      fc.property(
        fc.integer({ min: 1, max: 1e6 }),
        size,
        size,
        fc.integer({ min: 0, max: 25 }),
        (seed, bays, people, jobs) => {
          const input = { ...shopOf(seed, bays, people, jobs, 3), tries: 200 };
          check(input, planShopNow(input));
        },
      ),
      { numRuns: 40 },
    );
  }, 240_000);

  it('stays within 5 % of its proved bound on 60 and 300 jobs, the same every time', () => {
    for (const [jobs, tries] of [
      [60, 20_000],
      [300, 12_000],
    ] as const) {
      const input = { ...shopOf(11, 6, 9, jobs, 4), tries };
      const plan = planShopNow(input);
      check(input, plan);
      if (jobs === 60) expect(planShopNow(input)).toEqual(plan);
      expect(plan.lowerBound / plan.weightedLateness).toBeGreaterThan(0.95);
    }
  }, 240_000);

  it('reports progress that never goes back, plans that never get worse, and can be left at any time', () => {
    const running = planShop({ ...shopOf(5, 4, 4, 40, 4), tries: 5000 });
    const seen: PlanProgress[] = [];
    for (let step = running.next(); !step.done; step = running.next()) seen.push(step.value);
    expect(seen.length).toBeGreaterThan(5);
    const sorted = (key: keyof PlanProgress) => seen.map((s) => s[key]).sort((a, b) => a - b);
    expect(seen.map((s) => s.done)).toEqual(sorted('done'));
    expect(seen.map((s) => s.lowerBound)).toEqual(sorted('lowerBound'));
    expect(seen.map((s) => s.cost)).toEqual(sorted('cost').reverse());
    for (const { done } of seen) expect(done).toBeLessThanOrEqual(1);
  });

  it('ends with the best so far when its time has gone, and leaves half of it to the search', () => {
    let gone = 0;
    const input = { ...shopOf(5, 4, 4, 40, 4), tries: 100_000 };
    const running = planShop(input, () => gone);
    const seen: number[] = [];
    let step = running.next();
    for (; !step.done; step = running.next()) {
      seen.push(step.value.done);
      gone += 1 / 60;
    }
    check(input, step.value);
    expect(seen.length).toBeLessThan(62);
    expect(seen.filter((done) => done >= 0.5).length).toBeGreaterThan(20);
  });

  it('says which job cannot be planned, and plans nothing in no time', () => {
    const input = shopOf(3, 2, 2, 3);
    expect(() => planShopNow({ ...input, jobs: [{ ...input.jobs[0]!, skill: 'magic' }] })).toThrow(
      /nobody has this skill/,
    );
    expect(() => planShopNow({ ...input, jobs: [input.jobs[0]!, input.jobs[0]!] })).toThrow(/named twice/);
    expect(planShopNow({ ...input, jobs: [] })).toEqual({
      ...{ bookings: [], unplaced: [], weightedLateness: 0 },
      ...{ cost: 0, lowerBound: 0 },
    });
  });
});
