import { z } from 'zod';
import { dimensionSchema, readingSchema, torqueSchema } from '../quantity/index.ts';

/** Tools that are listed one by one: those whose calibration counts, sockets and torque adapters. */
export const toolKinds = {
  'torque-wrench': 'Torque wrench',
  'dial-indicator': 'Dial indicator',
  'pull-scale': 'Pull scale',
  thermometer: 'Hub thermometer',
  socket: 'Socket',
  adapter: 'Torque adapter',
} as const;
export type ToolKind = keyof typeof toolKinds;

/** Whether a kind of tool is used only while it is calibrated. */
export const isCalibrated = (kind: ToolKind): boolean => kind !== 'socket' && kind !== 'adapter';

/** Square drives, inches across flats. @source ISO 1174 */
export const drives = ['1/4', '3/8', '1/2', '3/4', '1'] as const;
/** Points of a socket. */
export const socketPoints = [4, 6, 8, 12] as const;

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
    .object({
      ...{ kind: z.literal('torque-wrench'), ...common, min: torqueSchema, max: torqueSchema },
      drive: z.enum(drives).optional(),
      /** From the middle of the grip to the middle of the drive: an adapter changes what is set by it. */
      length: dimensionSchema.optional(),
    })
    .refine((t) => t.min.si < t.max.si, { message: 'must be over the lower end', path: ['max', 'value'] }),
  z.object({ kind: z.literal('dial-indicator'), ...common, graduation: readingSchema }),
  z.object({ kind: z.literal('pull-scale'), ...common }),
  z.object({ kind: z.literal('thermometer'), ...common }),
  z.object({
    ...{ kind: z.literal('socket'), ...common, drive: z.enum(drives) },
    /** Across the flats of the nut. */
    size: dimensionSchema,
    points: z.literal(socketPoints),
  }),
  z.object({
    ...{ kind: z.literal('adapter'), ...common, drive: z.enum(drives) },
    /** From the middle of the drive to the middle of the nut. */
    length: dimensionSchema,
  }),
]);
export type Tool = z.output<typeof toolSchema>;
