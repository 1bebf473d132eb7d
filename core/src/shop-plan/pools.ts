import { cutsOf, type Buckets, type Cuts } from './buckets.ts';
import { workedWithin, type Calendar } from './calendar.ts';
import type { Alone } from './others-fixed.ts';
import { lateness, type Crew, type Problem, type Task } from './problem.ts';

/** Resources of one kind that share their tasks, whatever else these need. */
export interface Pool {
  /** Minutes it has to give in each bucket. */
  capacity: Float64Array;
  /** People are needed while they work; bays and tools from beginning to end, nights and breaks as well. */
  throughout: boolean;
}

/** A way in which a task can be done: by people of these hours, with what it then needs of each pool. */
export interface Track {
  cuts: Cuts;
  /** Its release and due minute as worked minutes. */
  release: number;
  due: number;
  /** The lateness it has at the least, times its weight. */
  least: number;
  /** Which of the needs. */
  needs: number;
}

/** What tracks need of every pool; tracks of the same hours that need the same have one. */
export interface Needs {
  cuts: Cuts;
  of: { pool: number; need: number }[];
}

/** With more different hours than these, everybody's are one: pairs would have too many ways. */
const MOST_HOURS = 5;

function capacityOf(
  { taken, hours }: Problem,
  members: readonly number[],
  { edges, count }: Buckets,
): Float64Array {
  const capacity = new Float64Array(count);
  for (const r of members) {
    for (let k = 0; k < count; k++) {
      const [from, until] = [edges[k]!, edges[k + 1]!];
      const open = hours[r] ? workedWithin(hours[r], from, until) : until - from;
      capacity[k]! += Math.max(0, open - (taken[r] ? workedWithin(taken[r], from, until) : 0));
    }
  }
  return capacity;
}

/** Numbers people by the hours they work. */
function classesOf({ hours, firstPerson, firstTool }: Problem): (person: number) => number {
  const different = [...new Set(hours.slice(firstPerson, firstTool))];
  return (person) => (different.length > MOST_HOURS ? 0 : different.indexOf(hours[person]!));
}

/**
 * The pools of a shop: sets of bays or people that some tasks can use no more than, all bays, all people of the same
 * hours, every tool. And for each task the ways in which it can be done.
 */
export function poolsAndTracks(
  problem: Problem,
  alone: readonly Alone[],
  buckets: Buckets,
): { pools: Pool[]; needs: Needs[]; tracks: Track[][] } {
  const { tasks, firstPerson, firstTool } = problem;
  const classOf = classesOf(problem);
  const pools: Pool[] = [];
  const known = new Map<string, number>();
  const poolOf = (members: readonly number[], throughout: boolean): number => {
    const key = `${throughout ? 'place' : 'people'} ${members.join()}`;
    const pool = known.get(key) ?? pools.length;
    if (pool === pools.length) {
      known.set(key, pool);
      pools.push({ throughout, capacity: capacityOf(problem, members, buckets) });
    }
    return pool;
  };
  const bays = Array.from({ length: firstPerson }, (_, r) => r);
  const people = Array.from({ length: firstTool - firstPerson }, (_, i) => firstPerson + i);
  const isSubset = (of: readonly number[], all: readonly number[]) => of.every((r) => all.includes(r));
  const baySets = [...new Map([bays, ...tasks.map((t) => t.bays)].map((s) => [s.join(), s])).values()];
  const leadsIn = (t: Task, c: number) =>
    [...new Set(t.crews.flatMap(({ lead }) => (classOf(lead) === c ? [lead] : [])))].sort((a, b) => a - b);
  const classes = [...new Set(people.map(classOf))];
  const leadSets = [
    ...new Map(tasks.flatMap((t) => classes.map((c) => leadsIn(t, c))).map((s) => [s.join(), s])).values(),
  ].filter((s) => s.length > 0);

  /** What a task needs with a crew of some hours: the same for every crew of the same classes. */
  function needsOf(task: Task, { lead, helper }: Crew): { pool: number; need: number }[] {
    const needs = new Map<number, number>();
    const take = (pool: number) => needs.set(pool, (needs.get(pool) ?? 0) + 1);
    for (const set of baySets) if (isSubset(task.bays, set)) take(poolOf(set, true));
    for (const tool of task.tools) take(poolOf([tool], true));
    const own = leadsIn(task, classOf(lead));
    const all = (c: number) => people.filter((p) => classOf(p) === c);
    for (const set of leadSets)
      if (set.length < all(classOf(lead)).length && isSubset(own, set)) take(poolOf(set, false));
    for (const person of helper < 0 ? [lead] : [lead, helper]) take(poolOf(all(classOf(person)), false));
    return [...needs].map(([pool, need]) => ({ pool, need })).sort((a, b) => a.pool - b.pool);
  }

  const cuts = new Map<Calendar, { nth: number; own: Cuts }>();
  const cutsFor = (hours: Calendar) => {
    const found = cuts.get(hours) ?? { nth: cuts.size, own: cutsOf(hours, buckets) };
    cuts.set(hours, found);
    return found;
  };
  const needs: Needs[] = [];
  const nths = new Map<string, number>();
  const tracks = tasks.map((task, i) => {
    const ways = new Map<string, Crew>();
    for (const crew of task.crews) {
      const helper = crew.helper < 0 ? '' : classOf(crew.helper);
      ways.set(`${cutsFor(crew.hours).nth} ${classOf(crew.lead)} ${helper}`, crew);
    }
    return [...ways.values()].map((crew): Track => {
      const of = needsOf(task, crew);
      const { nth: hours, own } = cutsFor(crew.hours);
      const key = `${hours} ${JSON.stringify(of)}`;
      const nth = nths.get(key) ?? needs.push({ cuts: own, of }) - 1;
      nths.set(key, nth);
      return {
        cuts: own,
        release: workedWithin(crew.hours, -Infinity, alone[i]!.start),
        due: workedWithin(crew.hours, -Infinity, Math.max(0, task.due)),
        least: lateness(task, alone[i]!.end),
        needs: nth,
      };
    });
  });
  return { pools, needs, tracks };
}
