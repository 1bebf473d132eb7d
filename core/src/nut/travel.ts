import { z } from 'zod';
import { defineCalculation, threadSchema, type Thread } from '../calculation/index.ts';

/** Pitch of a thread in mm: 25.4 / threads per inch, or as given. */
export function pitchOf(thread: Thread): number {
  return 'pitchMm' in thread ? thread.pitchMm : 25.4 / thread.threadsPerInch;
}

/**
 * How far a nut moves along the spindle.
 * @param turns positive tightens
 * @returns travel in mm, positive towards the bearing
 * @source geometry: one turn moves a nut by one pitch
 * @example nutTravel({ threadsPerInch: 12 }, 1) // 2.1167 mm, 0.0833 in
 */
export function nutTravel(thread: Thread, turns: number): number {
  return turns * pitchOf(thread);
}

/** `nut-travel`: the way a nut moves for a part of a turn. */
export const nutTravelCalculation = defineCalculation({
  name: 'nut-travel',
  title: 'Nut travel',
  summary: 'Tells how far the nut moves along the spindle for a turn or part of a turn.',
  inputSchema: z.object({ thread: threadSchema, turns: z.number().min(-1000).max(1000) }),
  outputSchema: z.object({ travelMm: z.number() }),
  sources: [{ text: 'Geometry: turns times pitch; 1 in = 25.4 mm (NIST SP 811)', mark: 'published' }],
  example: { thread: { threadsPerInch: 12 }, turns: -0.25 },
  compute: ({ thread, turns }) => ({ travelMm: nutTravel(thread, turns) }),
});
