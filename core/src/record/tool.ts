import { z } from 'zod';
import { toolSchema, type Tool } from '../tool/index.ts';
import { begun, refuse, type Aggregate } from './aggregate.ts';
import { sameJson } from './canonical.ts';

const toolBodySchema = z.discriminatedUnion('kind', [
  z.object({ kind: z.literal('tool-kept'), tool: toolSchema }),
  /** It was on the list before tools had a record. */
  z.object({ kind: z.literal('tool-taken-over'), tool: toolSchema, retired: z.boolean() }),
  z.object({ kind: z.literal('tool-retired') }),
  /** It left its place with whoever recorded it. */
  z.object({ kind: z.literal('tool-taken') }),
  z.object({ kind: z.literal('tool-returned') }),
  /** It was found out of calibration: what was made with it since it was last found good is doubted. */
  z.object({
    kind: z.literal('tool-recalled'),
    lastGood: z.iso.date(),
    reason: z.string().trim().min(1).max(200),
  }),
]);
export type ToolBody = z.output<typeof toolBodySchema>;

export interface ListedToolState {
  tool: Tool;
  version: number;
  changedAt: string;
  changedBy: string;
  retiredAt: string | null;
  /** Who has it; null where it lies at its place. */
  holder: Holder | null;
  recalls: readonly Recall[];
}

/** Who has a tool, and since when. */
export interface Holder {
  id: string;
  name: string;
  since: string;
}

/** A tool found out of calibration, and the last day on which it was found good. */
export interface Recall {
  lastGood: string;
  reason: string;
  at: string;
  by: string;
}

export type ToolCommand =
  | { kind: 'keep'; tool: Tool }
  | { kind: 'retire' }
  | { kind: 'take'; by: { id: string } }
  | { kind: 'return' }
  | { kind: 'recall'; lastGood: string; reason: string };

/** A tool whose calibration counts: on the list, changed, taken off it. */
export const toolAggregate: Aggregate<ListedToolState, ToolCommand, ToolBody, ListedToolState> = {
  stream: 'tool',
  upcast: (body) => toolBodySchema.parse(body),

  decide(state, command) {
    if (command.kind === 'keep') {
      const asItIs = state?.retiredAt === null && sameJson(state.tool, command.tool);
      return { ok: true, bodies: asItIs ? [] : [{ kind: 'tool-kept', tool: command.tool }] };
    }
    const listed = begun(state, 'tool');
    if (listed.retiredAt) return refuse('This tool is off the list already');
    switch (command.kind) {
      case 'retire':
        return { ok: true, bodies: [{ kind: 'tool-retired' }] };
      case 'take':
        if (listed.holder?.id === command.by.id) return { ok: true, bodies: [] };
        return listed.holder
          ? refuse(`${listed.holder.name} has ${listed.tool.code}`)
          : { ok: true, bodies: [{ kind: 'tool-taken' }] };
      case 'return':
        return listed.holder
          ? { ok: true, bodies: [{ kind: 'tool-returned' }] }
          : refuse(`Nobody has ${listed.tool.code}`);
      case 'recall': {
        const { lastGood, reason } = command;
        return { ok: true, bodies: [{ kind: 'tool-recalled', lastGood, reason }] };
      }
    }
  },

  fold(state, { version, at, by, body }) {
    if (body.kind === 'tool-kept' || body.kind === 'tool-taken-over') {
      const gone = body.kind === 'tool-taken-over' && body.retired;
      const { holder = null, recalls = [] } = state ?? {};
      const kept = { tool: body.tool, version, changedAt: at, changedBy: by.name };
      return { ...kept, retiredAt: gone ? at : null, holder, recalls };
    }
    const listed = { ...begun(state, 'tool'), version };
    switch (body.kind) {
      case 'tool-retired':
        return { ...listed, retiredAt: at, holder: null };
      case 'tool-taken':
        return { ...listed, holder: { id: by.id, name: by.name, since: at } };
      case 'tool-returned':
        return { ...listed, holder: null };
      case 'tool-recalled': {
        const recall = { lastGood: body.lastGood, reason: body.reason, at, by: by.name };
        // Nobody chooses it before it has a calibration again.
        const tool = { ...listed.tool, calibratedUntil: null };
        return { ...listed, tool, changedAt: at, changedBy: by.name, recalls: [...listed.recalls, recall] };
      }
    }
  },

  project: (state) => state,
};
