import { shopPlanInput, type ShopPlanInput } from '../problem.ts';

interface Size {
  bays: number;
  people: number;
  jobs: number;
  days: number;
  /** Everything is a multiple of it, minutes. */
  slot: number;
}

const kinds = ['heavy', 'light'];
const skills = ['hubs', 'brakes', 'seals'];

/** A made-up shop with shifts and breaks, pairs, tools, bookings and units that come and go; the same for the same seed. */
export function shopWithHours(seed: number, { bays, people, jobs, days, slot }: Size): ShopPlanInput {
  let state = seed;
  const next = () => (state = (state * 48271) % 2147483647) / 2147483647;
  const pick = <T>(list: readonly T[]) => list[Math.floor(next() * list.length)]!;
  const at = (minute: number) => slot * Math.floor(minute / slot);
  const shift = (day: number, early: boolean) => {
    const begin = day * 1440 + (early ? 420 : 540);
    return [
      { fromMin: begin, untilMin: begin + 240 },
      { fromMin: begin + 300, untilMin: begin + 540 },
    ];
  };
  const span = days * 1440;
  return shopPlanInput.parse({
    bays: Array.from({ length: bays }, (_, i) => ({
      id: `bay ${i}`,
      kinds: i === 0 ? kinds : [pick(kinds), 'heavy'],
      ...(i === bays - 1 ? { taken: [{ fromMin: 0, untilMin: 600 }] } : {}),
    })),
    people: Array.from({ length: people }, (_, i) => ({
      id: `person ${i}`,
      skills: i === 0 ? skills : [pick(skills), pick(skills)],
      works: Array.from({ length: 3 * days }, (_, d) => d)
        .filter((d) => d % 7 < 5)
        .flatMap((d) => shift(d, i % 2 === 0)),
      ...(i === 1 ? { taken: [{ fromMin: 1440, untilMin: 2880 }] } : {}),
    })),
    tools: [{ id: 'press' }],
    jobs: Array.from({ length: jobs }, (_, i) => {
      const minutes = slot * Math.max(1, Math.floor((60 + next() * 300) / slot));
      const releaseMin = next() < 0.4 ? at(next() * span * 0.4) : 0;
      const comes = at(next() * span * 0.3);
      return {
        id: `job ${i}`,
        minutes,
        releaseMin,
        dueMin: at(releaseMin + minutes + next() * span * 0.35),
        weight: 1 + Math.floor(next() * 5),
        bayKind: pick(kinds),
        skill: pick(skills),
        people: next() < 0.2 ? 2 : 1,
        ...(next() < 0.15 ? { tools: ['press'] } : {}),
        ...(next() < 0.15 ? { stays: [{ fromMin: comes, untilMin: comes + 1.5 * span }] } : {}),
      };
    }),
  });
}
