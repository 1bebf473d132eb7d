import { z } from 'zod';
import { toolSchema, type Tool } from '../tool/index.ts';
import { begun, refuse, type Aggregate } from './aggregate.ts';
import { sameJson } from './canonical.ts';

const toolBodySchema = z.discriminatedUnion('kind', [
  z.object({ kind: z.literal('tool-kept'), tool: toolSchema }),
  /** It was on the list before tools had a record. */
  z.object({ kind: z.literal('tool-taken-over'), tool: toolSchema, retired: z.boolean() }),
  z.object({ kind: z.literal('tool-retired') }),
]);
export type ToolBody = z.output<typeof toolBodySchema>;

export interface ListedToolState {
  tool: Tool;
  version: number;
  changedAt: string;
  changedBy: string;
  retiredAt: string | null;
}

export type ToolCommand = { kind: 'keep'; tool: Tool } | { kind: 'retire' };

/** A tool whose calibration counts: on the list, changed, taken off it. */
export const toolAggregate: Aggregate<ListedToolState, ToolCommand, ToolBody, ListedToolState> = {
  stream: 'tool',
  upcast: (body) => toolBodySchema.parse(body),

  decide(state, command) {
    if (command.kind === 'keep') {
      const asItIs = state?.retiredAt === null && sameJson(state.tool, command.tool);
      return { ok: true, bodies: asItIs ? [] : [{ kind: 'tool-kept', tool: command.tool }] };
    }
    return begun(state, 'tool').retiredAt
      ? refuse('This tool is off the list already')
      : { ok: true, bodies: [{ kind: 'tool-retired' }] };
  },

  fold(state, { version, at, by, body }) {
    if (body.kind === 'tool-retired') return { ...begun(state, 'tool'), version, retiredAt: at };
    const gone = body.kind === 'tool-taken-over' && body.retired;
    return { tool: body.tool, version, changedAt: at, changedBy: by.name, retiredAt: gone ? at : null };
  },

  project: (state) => state,
};
