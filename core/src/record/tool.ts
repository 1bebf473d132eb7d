import { z } from 'zod';
import { toolSchema, type Tool } from '../tool/index.ts';
import { begun, refuse, type Aggregate } from './aggregate.ts';
import { sameJson } from './canonical.ts';

/** What whoever calibrated a tool wrote; its bytes stand beside the record. */
const certificateSchema = z.object({
  id: z.uuid(),
  /** Of its file. */
  name: z.string().trim().min(1).max(120),
  type: z.enum(['application/pdf', 'image/jpeg']),
  sha256: z.string().regex(/^[0-9a-f]{64}$/),
  /** Last day of the calibration. */
  until: z.iso.date(),
});
type Certificate = z.output<typeof certificateSchema>;

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
  /** Nobody finds it. */
  z.object({ kind: z.literal('tool-missing') }),
  z.object({ kind: z.literal('tool-found') }),
  /** It was calibrated, as its certificate says. */
  z.object({ kind: z.literal('tool-certified'), certificate: certificateSchema }),
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
  /** Since when nobody finds it; null where it is there or somebody has it. */
  missing: Missing | null;
  /** The newest last. */
  certificates: readonly KeptCertificate[];
}

export interface Missing {
  since: string;
  by: string;
}
export interface KeptCertificate extends Certificate {
  at: string;
  by: string;
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
  | { kind: 'missing' }
  | { kind: 'found' }
  | { kind: 'certify'; certificate: Certificate }
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
      case 'missing':
        return { ok: true, bodies: listed.missing ? [] : [{ kind: 'tool-missing' }] };
      case 'found':
        return { ok: true, bodies: listed.missing ? [{ kind: 'tool-found' }] : [] };
      case 'certify': {
        const { certificate } = command;
        const known = listed.certificates.some((c) => c.id === certificate.id);
        return { ok: true, bodies: known ? [] : [{ kind: 'tool-certified', certificate }] };
      }
      case 'recall': {
        const { lastGood, reason } = command;
        return { ok: true, bodies: [{ kind: 'tool-recalled', lastGood, reason }] };
      }
    }
  },

  fold(state, { version, at, by, body }) {
    if (body.kind === 'tool-kept' || body.kind === 'tool-taken-over') {
      const gone = body.kind === 'tool-taken-over' && body.retired;
      const { holder = null, recalls = [], missing = null, certificates = [] } = state ?? {};
      const kept = { tool: body.tool, version, changedAt: at, changedBy: by.name };
      return { ...kept, retiredAt: gone ? at : null, holder, recalls, missing, certificates };
    }
    const listed = { ...begun(state, 'tool'), version };
    switch (body.kind) {
      case 'tool-retired':
        return { ...listed, retiredAt: at, holder: null };
      case 'tool-taken':
        return { ...listed, holder: { id: by.id, name: by.name, since: at }, missing: null };
      case 'tool-returned':
        return { ...listed, holder: null, missing: null };
      // Whoever had it last does not have it.
      case 'tool-missing':
        return { ...listed, holder: null, missing: { since: at, by: by.name } };
      case 'tool-found':
        return { ...listed, missing: null };
      case 'tool-certified': {
        const certificate = { ...body.certificate, at, by: by.name };
        const tool = { ...listed.tool, calibratedUntil: certificate.until };
        const certificates = [...listed.certificates, certificate];
        return { ...listed, tool, changedAt: at, changedBy: by.name, certificates };
      }
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
