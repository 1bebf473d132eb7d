import type { Capability } from '@lanternwright/core/access';

interface Place {
  to: string;
  title: string;
  needs: Capability;
}

/** Places that work. A place is added when it does, never as a stub; the first that somebody may see is their first page. */
export const places: readonly Place[] = [
  { to: '/fleet', title: 'Fleet', needs: 'see-units' },
  { to: '/jobs', title: 'Jobs', needs: 'see-jobs' },
  { to: '/reckoner', title: 'Reckoner', needs: 'run-sums' },
];
