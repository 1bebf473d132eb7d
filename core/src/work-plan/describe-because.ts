import type { Work } from '../stack/index.ts';
import type { Because, MovedBecause } from '../shop-plan/index.ts';

/** What is to be done, for each work. */
const toDo: Record<Work, string> = {
  check: 'Check',
  'wheel-off': 'Take wheels off',
  retorque: 'Retorque wheel nuts',
  'oil-level': 'Check oil level',
  adjust: 'Adjust bearings',
  brakes: 'Service brakes',
  linings: 'Renew linings',
  seal: 'Renew seals',
  sleeve: 'Fit wear sleeves',
  bearings: 'Renew bearings',
  repack: 'Repack bearings',
  studs: 'Renew studs',
  hub: 'Renew hubs',
  'unit-hub': 'Renew unit hubs',
  shaft: 'Renew shafts',
  'spindle-bearing': 'Renew spindle bearings',
  spindle: 'Renew spindles',
  swivels: 'Renew swivel bearings',
  'knuckle-seal': 'Renew knuckle seals',
  kingpin: 'Renew kingpins and bushes',
};

/** Works with their wheel ends, each work once: “Renew seals 2L, 2R; Check 1L, 1R”. */
export function describeWorks(due: readonly { work: Work; position: string }[]): string {
  const at = new Map<Work, string[]>();
  for (const { work, position } of due) at.set(work, [...(at.get(work) ?? []), position]);
  return [...at].map(([work, positions]) => `${toDo[work]} ${positions.sort().join(', ')}`).join('; ');
}

/** What a visit waits for before it may begin at all. */
export type NotBefore = 'now' | 'interval' | 'part';

const until = (jobs: readonly string[] | undefined, nameOf: (unitId: string) => string) => {
  if (!jobs || jobs.length === 0) return 'until then';
  return `until ${jobs.map(nameOf).join(' and ')} ${jobs.length === 1 ? 'is' : 'are'} finished`;
};

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
        now: 'Starts when the shift begins.',
        interval: 'Two weeks before it is due: any sooner wastes part of the interval.',
        part: 'When the part on order is expected.',
      }[notBefore];
    case 'hours':
      return 'No technician is on shift earlier.';
    case 'stay':
      return 'The unit is away until then.';
    case 'taken':
      return 'What the job needs is booked or away until then.';
    case 'bay':
      return `Every bay is taken ${until(jobs, nameOf)}.`;
    case 'people':
      return `All technicians are busy ${until(jobs, nameOf)}.`;
    case 'tool':
      return `The tool for this job is in use ${until(jobs, nameOf)}.`;
    case 'unexplained':
      return 'The reason was not worked out: there are too many bays and people.';
    case 'several':
      return 'First time that a bay and a technician are both free.';
  }
}

/** Why a booking moves, in a sentence. */
export function describeMove(because: MovedBecause, nameOf: (unitId: string) => string): string {
  switch (because.kind) {
    case 'room':
      return because.jobs.length > 0
        ? `Makes room for ${because.jobs.map(nameOf).join(' and ')}.`
        : 'Makes room for a booking that has to move.';
    case 'people':
      return 'The technician is away or on another unit.';
    case 'bay':
      return 'The bay is taken for longer, or closed.';
    case 'tool':
      return 'The tool for this job is not available.';
    case 'stay':
      return 'The unit is away at that time.';
    case 'release':
      return 'The unit did not arrive at its booked time.';
    case 'hours':
      return 'The shop is closed at that time.';
  }
}
