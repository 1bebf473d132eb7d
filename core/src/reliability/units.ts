import { z } from 'zod';
import { BadInput, LONGEST } from '../calculation/index.ts';

const time = z.number().positive().max(1e9);
const age = z.number().nonnegative().max(1e9);

/**
 * Parts by the time they ran and whether they failed then; the others still ran. `from` and `to`: the failure was found
 * between two visits, after the first and not after the second (`time`, where `to` is left out). `entry`: known only from
 * that age on.
 */
export const unitsSchema = z
  .array(
    z.object({
      time: time.optional(),
      failed: z.boolean().optional(),
      from: age.optional(),
      to: time.optional(),
      entry: age.optional(),
    }),
  )
  .min(1)
  .max(LONGEST);
export type LifeUnit = z.output<typeof unitsSchema>[number];

/** What is known of one life: it ended at `to`, or after `from` and not after `to`; `to` is infinite while it runs. */
export interface Life {
  from: number;
  to: number;
  /** The age from which it was watched; 0 from new. */
  entry: number;
}

const isExact = ({ from, to }: Life) => from === to;
const stillRuns = ({ to }: Life) => to === Infinity;
/** A life whose end is known only to lie between two visits. */
export const isBetweenVisits = (life: Life) => !isExact(life) && !stillRuns(life);

function lifeOf({ time: ran, failed, from, to, entry = 0 }: LifeUnit, path: string): Life {
  if (from === undefined && to === undefined) {
    if (ran === undefined) throw new BadInput('is needed, or from and to', `${path}.time`);
    if (failed === undefined) throw new BadInput('is needed: true or false', `${path}.failed`);
    if (entry >= ran) throw new BadInput('must be before the time it ran to', `${path}.entry`);
    return { from: ran, to: failed ? ran : Infinity, entry };
  }
  const end = to ?? ran;
  if (failed === false) throw new BadInput('must be true where from and to are given', `${path}.failed`);
  if (end === undefined) throw new BadInput('is needed beside from', `${path}.to`);
  // A part that was watched only from an age on had not failed before it.
  const begin = Math.max(from ?? 0, entry);
  if (begin >= end) throw new BadInput('must be after from and entry', `${path}.to`);
  if (ran !== undefined && (ran < (from ?? 0) || ran > end))
    throw new BadInput('must be between from and to', `${path}.time`);
  return { from: begin, to: end, entry };
}

/** @throws BadInput naming the unit and the field */
export const livesOf = (units: readonly LifeUnit[]): Life[] =>
  units.map((unit, i) => lifeOf(unit, `units.${i}`));
