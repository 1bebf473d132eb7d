import type { EventBody } from './event.ts';

/**
 * Whether a correction changes what was done with the nut: torque, turn, position, done or not done. A corrected note,
 * tool or name disturbs nothing.
 */
export function disturbed(was: EventBody, is: EventBody): boolean {
  if (was.kind !== 'step-recorded' || is.kind !== 'step-recorded') return false;
  const [a, b] = [was.data, is.data];
  if (a.kind === 'torque' && b.kind === 'torque') return a.torque.si !== b.torque.si;
  if (a.kind === 'turn' && b.kind === 'turn') return a.turns !== b.turns;
  if (a.kind === 'choose' && b.kind === 'choose') return a.option !== b.option;
  if (a.kind === 'inspect' && b.kind === 'inspect') return a.ok !== b.ok;
  if (a.kind === 'lock' && b.kind === 'lock') return a.method !== b.method;
  return false;
}
