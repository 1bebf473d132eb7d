import type { Sheet } from '../procedure/index.ts';
import type { LayerId, Reach, Stack, Work } from '../stack/index.ts';

/** What a route is derived from: how the wheel end is built, what is wanted, and what was found so far. */
export interface RouteState {
  stack: Stack;
  sheet: Sheet;
  works: readonly Work[];
  reach: Reach;
  /** Layers that were off when the unit came in. */
  alreadyOff: readonly LayerId[];
  /** Wheel, drum and hub in one on a dolly. */
  together: boolean;
  /** The wheel end is, was or will be lifted in this job, whatever its works. */
  inTheAir: boolean;
  /** Answers to choices so far, by step id. */
  chosen: Readonly<Record<string, string>>;
  /** Parts that are renewed: by the work, as judged, or as the supervisor decided. Ids. */
  renewed: ReadonlySet<string>;
  /** How the round of adjusting at hand began. */
  adjust: {
    from: 'start' | 'setting';
    /** Planned turn, positive tightens. */
    turns: number | null;
    /** The nut was locked when this round was asked for. */
    wasLocked: boolean;
    /** Not locked, but its second nut, ring or plate was on. */
    secured: boolean;
    /** Others set and locked it: the lock is looked at. */
    byOthers: boolean;
    /** The brake is on while the setting is measured. */
    brakeOn: boolean;
  };
}

export const wants = ({ works }: Pick<RouteState, 'works'>, ...some: Work[]): boolean =>
  some.some((work) => works.includes(work));
