import { UniqueConstraintError } from 'sequelize';
import type { z } from 'zod';
import type {
  copySheetSchema,
  RevisedSheet,
  reviseSheetSchema,
  SheetRevision,
} from '@lanternwright/contract/sheets';
import { familySheets, sheetSchema, type Sheet } from '@lanternwright/core/procedure';
import { sheetAggregate } from '@lanternwright/core/record';
import type { Database } from '../database/connect.ts';
import { inTransaction } from '../database/in-transaction.ts';
import { HttpProblem, notFound, refused } from '../http/problem.ts';
import { askingBy, type Viewer } from '../http/viewer.ts';
import { change } from '../record/append.ts';
import type { Clock } from '../shop/clock.ts';
import type { SheetRevisionRow } from './model.ts';

const shipped = (sheet: Sheet): SheetRevision => ({
  sheet,
  at: null,
  by: null,
  note: 'Came with Lanternwright',
});

/** A row of an old shape is read through today's schema. */
const toRevision = ({ sheet, at, by, note }: SheetRevisionRow): SheetRevision => ({
  sheet: sheetSchema.parse(sheet),
  at: at.toISOString(),
  by,
  note,
});

/** Family sheets as the shop has them: those that came with the product, its revisions and its own copies. */
export function sheetsService(db: Database, clock: Clock) {
  const asking = askingBy(clock);

  async function list(): Promise<RevisedSheet[]> {
    const rows = (await db.sheetRevision.findAll({ order: ['sheetId', 'revision'] })).map(toRevision);
    const all = [...familySheets.map(shipped), ...rows];
    const ids = [...new Set(all.map((r) => r.sheet.sheetId))];
    return ids
      .map((sheetId) => ({
        sheetId,
        revisions: all
          .filter((r) => r.sheet.sheetId === sheetId)
          .sort((a, b) => b.sheet.revision - a.sheet.revision),
      }))
      .sort((a, b) => (a.revisions[0]!.sheet.family < b.revisions[0]!.sheet.family ? -1 : 1));
  }

  /** The newest revision of every sheet, by its id. */
  async function newest(): Promise<Map<string, Sheet>> {
    return new Map((await list()).map(({ sheetId, revisions }) => [sheetId, revisions[0]!.sheet]));
  }

  async function store(basedOn: number, sheet: Sheet, note: string, viewer: Viewer): Promise<SheetRevision> {
    try {
      return await inTransaction(db, async () => {
        const command = { basedOn, sheet, note };
        const { revisions } = await change(db, sheetAggregate, sheet.sheetId, command, asking(viewer));
        const newest = revisions.at(-1)!;
        const { sheetId, revision } = newest.sheet;
        const row = { ...newest, sheetId, revision, at: new Date(newest.at) };
        return toRevision(await db.sheetRevision.create(row));
      });
    } catch (error) {
      if (error instanceof UniqueConstraintError) throw overtaken(sheet.sheetId);
      throw error;
    }
  }

  return {
    list,
    newest,

    /** Keeps a changed sheet as its next revision. 409 when somebody revised it since. */
    async revise(
      sheetId: string,
      { basedOn, sheet, note }: z.output<typeof reviseSheetSchema>,
      viewer: Viewer,
    ): Promise<SheetRevision> {
      const now = (await newest()).get(sheetId);
      if (!now) throw notFound('sheet');
      if (now.revision !== basedOn) throw overtaken(sheetId);
      if (sheet.family !== now.family) throw refused('A sheet stays with its family', 'sheet.family');
      return store(basedOn, { ...sheet, sheetId }, note, viewer);
    },

    async copy(
      { from, sheetId, title }: z.output<typeof copySheetSchema>,
      viewer: Viewer,
    ): Promise<SheetRevision> {
      const known = await newest();
      const source = known.get(from);
      if (!source) throw notFound('sheet');
      if (known.has(sheetId)) throw refused('There is a sheet of this name already', 'sheetId');
      return store(0, { ...source, sheetId, title }, `Copied from ${source.title}`, viewer);
    },
  };
}
export type SheetsService = ReturnType<typeof sheetsService>;

export function overtaken(sheetId: string): HttpProblem {
  return new HttpProblem(
    409,
    'Revised by somebody else',
    `${sheetId} was revised since you opened it. Nothing of yours was kept here: open it again and compare.`,
  );
}
