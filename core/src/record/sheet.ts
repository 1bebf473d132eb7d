import { z } from 'zod';
import { sheetSchema, type Sheet } from '../procedure/index.ts';
import { refuse, StreamError, type Aggregate } from './aggregate.ts';

const revision = z.object({ sheet: sheetSchema, note: z.string() });
const sheetBodySchema = z.discriminatedUnion('kind', [
  revision.extend({ kind: z.literal('sheet-revised') }),
  /** Revisions from before sheets had a record, with whoever made them. */
  z.object({
    kind: z.literal('sheet-taken-over'),
    revisions: z.array(revision.extend({ at: z.iso.datetime(), by: z.string() })).min(1),
  }),
]);
export type SheetBody = z.output<typeof sheetBodySchema>;

interface Revision {
  sheet: Sheet;
  at: string;
  by: string;
  note: string;
}
export interface SheetState {
  version: number;
  revisions: Revision[];
}

/** @property basedOn revision the change was made on; 0 for a copy under a new name */
export interface SheetCommand {
  basedOn: number;
  sheet: Sheet;
  note: string;
}

/** The shop's own revisions of a sheet. One that came with the product stands at revision 1 without a record. */
export const sheetAggregate: Aggregate<SheetState, SheetCommand, SheetBody, Revision[]> = {
  stream: 'sheet',
  upcast: (body) => sheetBodySchema.parse(body),

  decide(state, { basedOn, sheet, note }) {
    const newest = state?.revisions.at(-1)?.sheet.revision;
    if (newest !== undefined && newest !== basedOn) return refuse('The sheet was revised since');
    return {
      ok: true,
      bodies: [{ kind: 'sheet-revised', sheet: { ...sheet, revision: basedOn + 1 }, note }],
    };
  },

  fold(state, { version, at, by, body }) {
    if (body.kind === 'sheet-taken-over') {
      if (state) throw new StreamError('A sheet is taken over once');
      return { version, revisions: body.revisions };
    }
    const before = state?.revisions ?? [];
    const { sheet, note } = body;
    if (before.some((r) => r.sheet.revision >= sheet.revision))
      throw new StreamError(`Revision ${sheet.revision} is there already`);
    return { version, revisions: [...before, { sheet, note, at, by: by.name }] };
  },

  project: ({ revisions }) => revisions,
};
