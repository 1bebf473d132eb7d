import { mkdtempSync, rmSync } from 'node:fs';
import { tmpdir } from 'node:os';
import { join } from 'node:path';
import { pathToFileURL } from 'node:url';
import highsLoader from 'highs';
import { rolldown } from 'rolldown';
import { buildCore } from '../scripts/lib/build.mjs';
import { root } from '../scripts/lib/run.mjs';

/**
 * Measured speed, each heavy calculation as a ratio to a baseline named beside it, in the same run.
 * `npm run bench`.
 */
await buildCore();
const { describeCalculation, listCalculations, reckon } = await import('@lanternwright/core/reckoner');

/** @param {number} seed @returns {() => number} */
function randomFrom(seed) {
  let state = seed;
  return () => (state = (state * 48271) % 2147483647) / 2147483647;
}

/** Best of some runs, ms. @param {() => unknown} work @param {number} [runs] */
function time(work, runs = 5) {
  let best = Infinity;
  for (let i = 0; i < runs; i++) {
    const started = performance.now();
    work();
    best = Math.min(best, performance.now() - started);
  }
  return best;
}

/** @param {string} name @param {unknown} input @returns {any} */
function result(name, input) {
  const answer = reckon(name, input);
  if (!answer.ok) throw new Error(`${name}: ${answer.error.message}`);
  return answer.result;
}

/** @param {string} what @param {number} ms @param {string} [more] */
function row(what, ms, more = '') {
  console.log(`${what.padEnd(48)} ${ms.toFixed(ms < 10 ? 2 : 0).padStart(8)} ms  ${more}`);
}

const random = randomFrom(618);
const units = Array.from({ length: 10_000 }, () => ({
  time: Math.ceil(1e5 * (-Math.log(random())) ** 0.5),
  failed: random() < 0.6,
}));

/** The baseline: a plain Nelder–Mead search on the log-likelihood, as one would write it in an afternoon. */
function plainWeibull() {
  const minus = ([a = 0, b = 0]) => {
    const [k, s] = [Math.exp(a), Math.exp(b)];
    let sum = 0;
    for (const { time: t, failed } of units) {
      sum += (t / s) ** k;
      if (failed) sum -= Math.log(k / s) + (k - 1) * Math.log(t / s);
    }
    return sum;
  };
  const at = (/** @type {number[]} */ x) => ({ x, f: minus(x) });
  let simplex = [at([0, 11]), at([0.5, 11]), at([0, 11.5])];
  for (let i = 0; i < 200; i++) {
    simplex.sort((p, q) => p.f - q.f);
    const [best, good, worst] = /** @type {[any, any, any]} */ (simplex);
    if (worst.f - best.f < 1e-7) break;
    const middle = [(best.x[0] + good.x[0]) / 2, (best.x[1] + good.x[1]) / 2];
    const towards = (/** @type {number} */ r) => at(middle.map((m, k) => m + r * (worst.x[k] - m)));
    const reflected = towards(-1);
    const tried = reflected.f < best.f ? [towards(-2), reflected] : [reflected, towards(0.5)];
    const next = tried.sort((p, q) => p.f - q.f)[0];
    if (next && next.f < worst.f) simplex[2] = next;
    else simplex = simplex.map((p) => at(p.x.map((v, k) => (v + best.x[k]) / 2)));
  }
  return Math.exp(simplex[0]?.x[0] ?? 0);
}

const ours = time(() => result('weibull-fit', { units }), 3);
const plain = time(plainWeibull, 3);
row(
  'weibull-fit, 10,000 units',
  ours,
  `${(ours / plain).toFixed(2)} of a plain Nelder–Mead search (${plain.toFixed(0)} ms)`,
);

const rows = /** @type {any} */ (describeCalculation('setting-life')?.example);
const settingsMm = Array.from({ length: 200 }, (_, i) => -0.1 + (i * 0.35) / 199);
row(
  'setting-life, 200 settings',
  time(() => result('setting-life', { ...rows, settingsMm }), 3),
  'aim 150 ms',
);

const points = units.map((u, i) => ({ x: i, y: u.time }));
row(
  'wear-trend, 10,000 points',
  time(() => result('wear-trend', { points, limit: 1e6 }), 1),
);

/** @param {number} jobs */
function shop(jobs) {
  const next = randomFrom(11);
  const pick = (/** @type {string[]} */ list) => list[Math.floor(next() * list.length)] ?? '';
  const kinds = ['heavy', 'light'];
  const skills = ['hubs', 'brakes', 'seals'];
  const span = (jobs * 110) / 6;
  return {
    bays: Array.from({ length: 6 }, (_, i) => ({
      id: `bay ${i}`,
      kinds: i === 0 ? kinds : [pick(kinds), 'heavy'],
    })),
    people: Array.from({ length: 9 }, (_, i) => ({
      id: `person ${i}`,
      skills: i === 0 ? skills : [pick(skills), pick(skills)],
    })),
    jobs: Array.from({ length: jobs }, (_, i) => {
      const releaseMin = Math.floor(next() * span * 0.5);
      const minutes = 30 + 15 * Math.floor(next() * 12);
      const dueMin = releaseMin + minutes + Math.floor((next() * span * 0.5) / 4);
      return {
        id: `job ${i}`,
        minutes,
        releaseMin,
        dueMin,
        weight: 1 + Math.floor(next() * 5),
        bayKind: pick(kinds),
        skill: pick(skills),
      };
    }),
  };
}

/** Minutes of one time slot of the model for HiGHS; every job takes a whole number of them. */
const SLOT = 15;

/**
 * The shop as a time-indexed mixed-integer model in LP format, kinder to the solver than to us: it need not
 * name who does a job, only keep every group of bays and people from being over-full.
 * @param {ReturnType<typeof shop>} input
 */
function timeIndexed({ bays, people, jobs }) {
  const horizon = Math.ceil(
    (jobs.reduce((s, j) => s + j.minutes, 0) / 5 + Math.max(...jobs.map((j) => j.releaseMin))) / SLOT,
  );
  /** @type {Map<string, string[]>} */
  const full = new Map();
  /** @type {Map<string, number>} */
  const capacity = new Map();
  /** @type {string[]} */
  const objective = [];
  /** @type {string[]} */
  const rows = [];
  /** @type {string[]} */
  const binaries = [];
  jobs.forEach((job, i) => {
    const slots = job.minutes / SLOT;
    const groups = [`b_${job.bayKind}`, `p_${job.skill}`];
    capacity.set(groups[0] ?? '', bays.filter((b) => b.kinds.includes(job.bayKind)).length);
    capacity.set(groups[1] ?? '', people.filter((p) => p.skills.includes(job.skill)).length);
    const mine = [];
    for (let t = Math.ceil(job.releaseMin / SLOT); t + slots <= horizon; t++) {
      const x = `x${i}_${t}`;
      mine.push(x);
      const late = Math.max(0, (t + slots) * SLOT - job.dueMin);
      if (late > 0) objective.push(`${late * job.weight} ${x}`);
      for (const g of [...groups, 'b_all', 'p_all']) {
        for (let k = t; k < t + slots; k++) full.set(`${g} ${k}`, [...(full.get(`${g} ${k}`) ?? []), x]);
      }
    }
    rows.push(`${mine.join(' + ')} = 1`);
    binaries.push(...mine);
  });
  capacity.set('b_all', bays.length).set('p_all', people.length);
  for (const [key, xs] of full) rows.push(`${xs.join(' + ')} <= ${capacity.get(key.split(' ')[0] ?? '')}`);
  const subject = rows.map((r, i) => ` c${i}: ${r}`).join('\n');
  return `Minimize\n obj: ${objective.join(' + ')}\nSubject To\n${subject}\nBinary\n ${binaries.join(' ')}\nEnd\n`;
}

const loadHighs = /** @type {() => Promise<{ solve: Function }>} */ (/** @type {unknown} */ (highsLoader));

for (const [jobs = 0, tries] of [
  [60, 20_000],
  [300, 12_000],
]) {
  const started = performance.now();
  const plan = result('shop-plan', { ...shop(jobs), tries });
  const ms = performance.now() - started;
  const gap = 100 * (1 - plan.lowerBound / plan.weightedLateness);
  row(
    `shop-plan, ${jobs} jobs`,
    ms,
    `${gap.toFixed(1)} % from its proved bound; cost ${Math.round(plan.weightedLateness)}, bound ${Math.round(plan.lowerBound)}`,
  );
  const model = timeIndexed(shop(jobs));
  const highs = await loadHighs();
  const begun = performance.now();
  let words;
  try {
    const solved = highs.solve(model, { time_limit: Math.max(1, ms / 1000) });
    words = `${solved.Status}, best plan ${Number.isFinite(solved.ObjectiveValue) ? Math.round(solved.ObjectiveValue) : 'none'}`;
  } catch (error) {
    words = `gave up: ${error instanceof Error ? error.message : error}`;
  }
  row(`  HiGHS stopped at the same time`, performance.now() - begun, words);
}

/**
 * The same shop with shifts, breaks, pairs, a press that exists once, and units that come late.
 * @param {number} jobs
 * @param {number} spread 1: more than the shop can do for weeks; 2.5: a shop that keeps up, some of it late
 */
function shopWithHours(jobs, spread) {
  const next = randomFrom(7);
  const { bays, people, jobs: plain } = shop(jobs);
  const days = Math.ceil(jobs / 4);
  const shift = (/** @type {number} */ begin) => [
    { fromMin: begin, untilMin: begin + 240 },
    { fromMin: begin + 300, untilMin: begin + 540 },
  ];
  return {
    bays,
    people: people.map((p, i) => ({
      ...p,
      works: Array.from({ length: 4 * days }, (_, d) => d)
        .filter((d) => d % 7 < 5)
        .flatMap((d) => shift(d * 1440 + (i % 2 === 0 ? 420 : 540))),
    })),
    tools: [{ id: 'press' }],
    jobs: plain.map((job) => ({
      ...job,
      releaseMin: 3 * spread * job.releaseMin,
      dueMin: 3 * spread * job.dueMin + 1440,
      people: next() < 0.2 ? 2 : 1,
      ...(next() < 0.15 ? { tools: ['press'] } : {}),
      ...(next() < 0.15
        ? { stays: [{ fromMin: 4 * spread * job.releaseMin, untilMin: 4 * days * 1440 }] }
        : {}),
    })),
  };
}

const { mendPlan, planShop, shopPlanInput } = await import('@lanternwright/core/shop-plan');
for (const [jobs = 0, spread = 1, kind] of /** @type {[number, number, string][]} */ ([
  [60, 1, 'keeps up'],
  [300, 2.5, 'keeps up'],
  [1000, 2.5, 'keeps up'],
  [300, 1, 'overloaded'],
  [1000, 1, 'overloaded'],
])) {
  const input = shopPlanInput.parse({ ...shopWithHours(jobs, spread), tries: 100_000 });
  const started = performance.now();
  const running = planShop(input, () => (performance.now() - started) / 5000);
  let step = running.next();
  while (!step.done) step = running.next();
  const { cost, lowerBound, unplaced, bookings } = step.value;
  row(
    `hours, pairs and tools, ${jobs} jobs, ${kind}`,
    performance.now() - started,
    `${(cost > 0 ? 100 * (1 - lowerBound / cost) : 0).toFixed(1)} % from its bound, aim 5 % in 5 s; ${unplaced.length} without a place`,
  );
  if (jobs !== 60) continue;
  const ill = {
    ...input,
    people: input.people.map((p, i) => (i === 0 ? { ...p, taken: [{ fromMin: 1440, untilMin: 4320 }] } : p)),
  };
  const mended = mendPlan(ill, bookings);
  row(
    'mended when somebody is away for two days',
    time(() => mendPlan(ill, bookings), 3),
    `${mended.moved.length} of 60 move; aim 1 s`,
  );
}

/** A job of the tests, bundled, since the built core has no tests in it. */
async function longJob() {
  const folder = mkdtempSync(join(tmpdir(), 'lanternwright-bench-'));
  const file = join(folder, 'long-job.mjs');
  const input = join(root, 'core/src/traveller/testing/long-job.ts');
  const bundle = await rolldown({ input, platform: 'node' });
  await bundle.write({ file });
  const { fold, longJob } = await import(pathToFileURL(file).href);
  rmSync(folder, { recursive: true });
  return { fold, records: longJob(400) };
}

const { fold, records } = await longJob();
row(
  'a job of 400 records, folded',
  time(() => fold(records), 300),
  'aim 5 ms',
);

console.log('\nEvery calculation on its example, aim 20 ms:');
for (const { name } of listCalculations()) {
  const example = describeCalculation(name)?.example;
  row(
    name,
    time(() => result(name, example)),
  );
}
