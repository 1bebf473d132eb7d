import { QueryTypes } from 'sequelize';
import type { StreamKind } from '@lanternwright/core/record';
import type { Database } from '../database/connect.ts';
import { workPool, type WorkPool } from '../pool/pool.ts';
import { entriesOfAll } from './append.ts';
import { fromBatches, withBatches } from './beginning.ts';
import { foldStreams, JOBS_TO_FOLD, type Folded } from './fold-streams.ts';
import { jobsNumberedSchema, type Kind } from './kinds.ts';

/** Streams, or rows of batches, that are read at once. */
export const A_PAGE = 200;

/** A page of streams that is being folded. */
export interface Page {
  ids: readonly string[];
  folded: Promise<Folded>;
}

export const hasBatches = (stream: StreamKind): stream is keyof typeof withBatches => stream in withBatches;

/** Numbers that a migration gave to jobs from before a job's opening named its own. */
async function jobNumbers(db: Database): Promise<ReadonlyMap<string, number>> {
  const rows = await db.entry.findAll({ where: { stream: 'shop' }, attributes: ['body'], raw: true });
  return new Map(
    rows.flatMap(({ body }) => {
      const numbered = jobsNumberedSchema.safeParse(body);
      return numbered.success ? Object.entries(numbered.data.numbers) : [];
    }),
  );
}

/** Reads streams a page at a time and folds them; full pages of jobs, which are most of a record, on two threads. */
export async function openFolding(db: Database) {
  const numbers = await jobNumbers(db);
  let pool: WorkPool | null = null;
  let turn = 0;

  async function onThread(ids: readonly string[]): Promise<Page> {
    const [read] = await db.sequelize.query<{ json: string }>(JOBS_TO_FOLD, {
      type: QueryTypes.SELECT,
      bind: [ids],
    });
    pool ??= workPool();
    turn += 1;
    const input = { json: read!.json, numbers };
    const folded = pool.run('fold-jobs', input, { person: `rebuild ${turn % 2}`, takes: 'long' });
    // Thrown where its rows are written, be it a page later.
    folded.catch(() => undefined);
    return { ids, folded };
  }

  return {
    numbers,

    /** Reads a page of streams; it is folded from then on. */
    async begin(kind: Kind<unknown>, ids: readonly string[]): Promise<Page> {
      const { stream } = kind.aggregate;
      if (stream === 'job' && ids.length === A_PAGE) return onThread(ids);
      const entries = await entriesOfAll(db, stream, ids);
      if (!hasBatches(stream)) return { ids, folded: Promise.resolve(foldStreams(kind, entries)) };
      const held = await fromBatches(db, ids);
      // A unit of a fleet file that said nothing of its meters has none.
      const folded = foldStreams(kind, entries, (list, id) => withBatches[stream](list, held.get(id)!));
      return { ids, folded: Promise.resolve(folded) };
    },

    close: async () => pool?.close(),
  };
}
export type Folding = Awaited<ReturnType<typeof openFolding>>;
