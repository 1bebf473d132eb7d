import type { Verdict } from '../end-play/index.ts';
import type { Actor } from '../access/index.ts';
import type { EventBody } from './event.ts';
import { refusal, type Refusal } from './refusal.ts';

/** The event that follows from a command, or why it cannot be. */
export type Decision = { ok: true; event: EventBody } | { ok: false; refusal: Refusal };

export interface DecideContext {
  by: Actor;
  /** Date of the decision in the shop's zone. */
  today: string;
  /** The moment of the decision, ISO. */
  now: string;
  /** What the wheel end at hand read last, in any job, and when; null where it was never measured. Where nobody looked it is not there. */
  lastReading?: { verdict: Verdict; at: string } | null;
  /** A later job has the wheel end in it, which was left out of this one; unknown in the browser. */
  inLaterJob?: boolean;
}

/** A refusal for a reason that is found already. */
export const refuseFor = (why: Refusal): Decision => ({ ok: false, refusal: why });
/** A refusal, by its code and what that is about. */
export const refuse = <Code extends Refusal['code']>(...why: Parameters<typeof refusal<Code>>): Decision =>
  refuseFor(refusal(...why));
/** What is recorded. */
export const accept = (event: EventBody): Decision => ({ ok: true, event });
