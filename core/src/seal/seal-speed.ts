import { z } from 'zod';
import { defineCalculation } from '../calculation/index.ts';

const inputSchema = z.object({
  journalDiameterMm: z.number().positive().max(2000),
  speedKmh: z.number().nonnegative().max(1000),
  rollingCircumferenceMm: z.number().min(10).max(20_000),
});
const outputSchema = z.object({ metresPerSecond: z.number(), rpm: z.number() });

/**
 * Speed of the journal under the lip at a road speed.
 * @returns surface speed in m/s and wheel speed in turns a minute
 * @source geometry
 */
export function sealSpeed(input: z.output<typeof inputSchema>): z.output<typeof outputSchema> {
  const rpm = (input.speedKmh * 1e6) / 60 / input.rollingCircumferenceMm;
  return { rpm, metresPerSecond: (Math.PI * input.journalDiameterMm * rpm) / 60_000 };
}

/** `seal-speed`: how fast the journal runs under the lip. */
export const sealSpeedCalculation = defineCalculation({
  name: 'seal-speed',
  title: 'Seal speed',
  summary: 'Tells how fast the journal runs under the seal’s lip at a road speed.',
  inputSchema,
  outputSchema,
  sources: [{ text: 'Geometry', mark: 'published' }],
  example: { journalDiameterMm: 110, speedKmh: 90, rollingCircumferenceMm: 3200 },
  compute: sealSpeed,
});
