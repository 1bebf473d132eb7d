import { z } from 'zod';
import { layerIds, stackSchema, type LayerId, type Stack } from '../stack/index.ts';

/** A record that changed something: its place in the job (0 where an earlier job has it), and who, when, in which job. */
const markSchema = z.object({
  seq: z.int().min(0),
  eventId: z.uuid(),
  jobId: z.uuid(),
  /** When it was done, ISO. */
  at: z.iso.datetime(),
  by: z.string().max(80),
});
export type Mark = z.output<typeof markSchema>;

const byOthersSchema = z.object({ who: z.string().max(80), mark: markSchema });
/** Who put a layer on that this record did not see put on, and the record that says so. */
export type ByOthers = z.output<typeof byOthersSchema>;

const yardOnlySchema = z.object({
  mm: z.number().positive(),
  leastMm: z.number().positive(),
  brake: z.string().max(40),
  mark: markSchema,
});
/** How thick a lining was left and how thick it has to be at least, mm, of which brake; and the release that took it. */
export type YardOnly = z.output<typeof yardOnlySchema>;

export const placeSchema = z.enum(['on', 'open', 'off']);
/** Where a layer is: on, open (a nut whose lock is undone) or off. */
export type LayerPlace = z.output<typeof placeSchema>;

const layerAtSchema = z.object({
  is: placeSchema,
  /** What moved it last since the side's last release; null where nothing did. */
  moved: markSchema.nullable(),
  /** Place of the record that moved it outward last; -1 where this job did not. */
  outSeq: z.int().min(-1),
  /** Where that record took it. */
  outTo: z.enum(['open', 'off']).optional(),
  /** Place of the record that moved it inward last. */
  onSeq: z.int().min(-1),
  /** Whether it came off by a record of its own; else it had to be off for something else, or came so. */
  own: z.boolean(),
});
export type LayerAt = z.output<typeof layerAtSchema>;

const madeSchema = z.object({
  /** Place from which on it holds: what rests on it has to be made after this. */
  first: z.int().min(0),
  last: markSchema,
  /** The part not used twice of which the old one went in: it holds for the yard, and for no release. */
  old: z.string().max(60).optional(),
});
/** A closure that is made. */
type Made = z.output<typeof madeSchema>;

const id = z.string().min(1).max(90);

/**
 * What is known of the metal of one side of an axle since its last release: where its layers are, which of its closures
 * are broken and which are made. What is not named is not known, and stands in nobody's way until it is moved.
 */
export const sideSchema = z.object({
  /** How it is built, as it was known last. */
  stack: stackSchema,
  layers: z.partialRecord(z.enum(layerIds), layerAtSchema),
  made: z.record(id, madeSchema),
  /** Closures that were broken, by what; still broken where they are not made since. */
  broken: z.record(id, markSchema),
  /** Steps that were left out, by closure. */
  skipped: z.record(id, markSchema),
  /** Place of the record that moved bearing nut or hub last; readings from before it are void. */
  nutMoved: z.int().min(0),
  /** Layers that others put on, as somebody said: what they did under them was not seen. */
  others: z.partialRecord(z.enum(layerIds), byOthersSchema).default({}),
  /** Why the job before ended out of service, where it did and nothing settled it since. */
  left: z
    .object({ reason: z.string().max(600), mark: markSchema })
    .nullable()
    .default(null),
  /** A lining at or under its minimum that a supervisor accepted for the yard; null where none is. */
  yardOnly: yardOnlySchema.nullable().default(null),
});
interface SideState {
  stack: Stack;
  layers: Partial<Record<LayerId, LayerAt>>;
  made: Record<string, Made>;
  broken: Record<string, Mark>;
  skipped: Record<string, Mark>;
  nutMoved: number;
  /** When that was done, where this job did it; ISO. */
  nutMovedAt?: string;
  others: Partial<Record<LayerId, ByOthers>>;
  left: { reason: string; mark: Mark } | null;
  yardOnly: YardOnly | null;
}
export type Side = Readonly<SideState>;
/** A side as the record holds it. */
export type StoredSide = z.output<typeof sideSchema>;

/** A side of which this record knows nothing. */
export const unknownSide = (stack: Stack): Side => ({
  stack,
  layers: {},
  made: {},
  broken: {},
  skipped: {},
  nutMoved: 0,
  others: {},
  left: null,
  yardOnly: null,
});

const untouched: LayerAt = { is: 'on', moved: null, outSeq: -1, onSeq: -1, own: true };

/** Where a layer is, and how it came there. */
export const layerAt = (side: Side, id: LayerId): LayerAt => side.layers[id] ?? untouched;

export const isOn = (side: Side, id: LayerId): boolean => layerAt(side, id).is === 'on';

/** A side whose bearing nut or hub was moved: readings from before it are void, and so is what was done to the nut. */
export function nutMovedBy(side: Side, { seq, at }: Mark): Side {
  const isLater = side.nutMovedAt === undefined || at > side.nutMovedAt;
  return { ...side, nutMoved: Math.max(side.nutMoved, seq), nutMovedAt: isLater ? at : side.nutMovedAt! };
}

/** Whether the cross pin, which holds the clips of both shafts, was out since the side's last release. */
export const wasPinOut = (side: Side): boolean =>
  side.broken['pin-bolt'] !== undefined || layerAt(side, 'shaft').moved !== null;

/** Layers that were moved since the side's last release, or are not on. */
export const movedLayers = (side: Side): LayerId[] =>
  side.stack
    .map((l) => l.layer)
    .filter((id) => layerAt(side, id).moved !== null || layerAt(side, id).is !== 'on');
