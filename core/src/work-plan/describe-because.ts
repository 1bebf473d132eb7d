import { works, type Work } from '../stack/index.ts';
import type { Because, MovedBecause } from '../shop-plan/index.ts';

/** Works with their wheel ends, each work once. */
export function describeWorks(due: readonly { work: Work; position: string }[]): string {
  const at = new Map<Work, string[]>();
  for (const { work, position } of due) at.set(work, [...(at.get(work) ?? []), position]);
  return [...at]
    .map(([work, positions]) => `${works[work].toLowerCase()} ${positions.sort().join(' ')}`)
    .join(', ');
}

/** What a visit waits for before it may begin at all. */
export type NotBefore = 'now' | 'interval' | 'part';

const named = (jobs: readonly string[] | undefined, nameOf: (unitId: string) => string, last: string) =>
  jobs && jobs.length > 0 ? `, ${last} by ${jobs.map(nameOf).join(' and ')}` : '';

/**
 * Why a job begins when it does, in a sentence.
 * @param nameOf the name of the unit a job is for
 */
export function describeBecause(
  { kind, jobs }: Because,
  notBefore: NotBefore,
  nameOf: (unitId: string) => string,
): string {
  switch (kind) {
    case 'release':
      return {
        now: 'As soon as people work.',
        interval: 'Two weeks before it is due: sooner would waste what is left of its interval.',
        part: 'When its part is to arrive.',
      }[notBefore];
    case 'hours':
      return 'Nobody works before.';
    case 'stay':
      return 'The unit is away before.';
    case 'taken':
      return 'What it needs is booked or away before.';
    case 'bay':
      return `Every bay is taken before${named(jobs, nameOf, 'last')}.`;
    case 'people':
      return `Everybody is on another unit before${named(jobs, nameOf, 'last')}.`.replace(' by ', ' on ');
    case 'tool':
      return `The tool it needs is taken before${named(jobs, nameOf, 'last')}.`;
    case 'unexplained':
      return 'Why was not looked for: there are too many bays and people.';
    case 'several':
      return 'A bay and people are free together only then.';
  }
}

/** Why a booking moves, in a sentence. */
export function describeMove(because: MovedBecause, nameOf: (unitId: string) => string): string {
  switch (because.kind) {
    case 'room':
      return because.jobs.length > 0
        ? `Makes room for ${because.jobs.map(nameOf).join(' and ')}.`
        : 'Makes room for what cannot stay.';
    case 'people':
      return 'Whoever was to do it is away or on another unit.';
    case 'bay':
      return 'Its bay is taken longer, or closed.';
    case 'tool':
      return 'The tool it needs is not there.';
    case 'stay':
      return 'The unit is away then.';
    case 'release':
      return 'Its time has passed and it has not come.';
    case 'hours':
      return 'Nobody works then.';
  }
}
