import { z } from 'zod';
import { readingSchema, torqueSchema } from '../quantity/index.ts';

/** Tools whose calibration counts. */
export const toolKinds = {
  'torque-wrench': 'Torque wrench',
  'dial-indicator': 'Dial indicator',
  'pull-scale': 'Pull scale',
  thermometer: 'Hub thermometer',
} as const;
export type ToolKind = keyof typeof toolKinds;

const common = {
  id: z.uuid(),
  /** What is written on it, as TW-03. */
  code: z
    .string()
    .trim()
    .regex(/^[A-Za-z0-9][A-Za-z0-9 ./-]{0,19}$/, 'letters, figures and dashes, up to 20'),
  title: z.string().trim().min(1).max(80),
  /** Last day of its calibration; null where none is on record. */
  calibratedUntil: z.iso.date().nullable(),
};

/** A tool of the shop. It is copied into every record it was used for, as it stood that day. */
export const toolSchema = z.discriminatedUnion('kind', [
  z
    .object({ kind: z.literal('torque-wrench'), ...common, min: torqueSchema, max: torqueSchema })
    .refine((t) => t.min.si < t.max.si, { message: 'must be over the lower end', path: ['max', 'value'] }),
  z.object({ kind: z.literal('dial-indicator'), ...common, graduation: readingSchema }),
  z.object({ kind: z.literal('pull-scale'), ...common }),
  z.object({ kind: z.literal('thermometer'), ...common }),
]);
export type Tool = z.output<typeof toolSchema>;
