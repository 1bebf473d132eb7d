import { z } from 'zod';
import { actorSchema, roles } from '../access/index.ts';

/** What the record of the shop is made of: a stream for each job, unit, tool … */
export const streams = [
  'job',
  'meter',
  'booking',
  'absence',
  'stock',
  'order',
  'tool',
  'sheet',
  'unit',
  'person',
  'shop',
  'batch',
] as const;
export type StreamKind = (typeof streams)[number];

/** Who made a record: a person as they were called then, or the program itself. */
export const recorderSchema = actorSchema.extend({
  role: z.enum([...(Object.keys(roles) as [keyof typeof roles]), 'program']),
});
export type Recorder = z.output<typeof recorderSchema>;

/** The program, where nobody asked: what it found when it began to keep a record of something. */
export const program: Recorder = {
  id: '00000000-0000-0000-0000-000000000000',
  name: 'Lanternwright',
  role: 'program',
};

/** One record: place `version` of its stream, from 1, without gaps. */
export interface Entry<Body = unknown> {
  id: string;
  stream: StreamKind;
  streamId: string;
  version: number;
  /** ISO 8601, UTC. */
  at: string;
  by: Recorder;
  body: Body;
}
