import type { Capability } from '@lanternwright/core/access';

interface Place {
  to: string;
  title: string;
  needs: Capability;
  /** Reached another way by whoever may do this. */
  unless?: Capability;
}

/** The places that somebody may see. */
export const placesFor = (able: (capability: Capability) => boolean): Place[] =>
  places.filter((p) => able(p.needs) && !(p.unless && able(p.unless)));

/** Places that work. A place is added when it does, never as a stub; the first that somebody may see is their first page. */
const places: readonly Place[] = [
  { to: '/overview', title: 'Overview', needs: 'see-own-ahead' },
  { to: '/floor', title: 'Floor', needs: 'see-plan' },
  { to: '/fleet', title: 'Fleet', needs: 'see-units' },
  { to: '/jobs', title: 'Jobs', needs: 'see-jobs' },
  { to: '/plan', title: 'Plan', needs: 'see-plan' },
  { to: '/stores', title: 'Stores', needs: 'see-stores' },
  { to: '/fleet/sheets', title: 'Sheets', needs: 'see-sheets', unless: 'see-units' },
  { to: '/reckoner', title: 'Reckoner', needs: 'run-sums' },
];
