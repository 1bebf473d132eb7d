import { isDeepStrictEqual } from 'node:util';
import { UniqueConstraintError } from 'sequelize';
import type { ListedTool } from '@lanternwright/contract/tools';
import { toolSchema, type Tool } from '@lanternwright/core/tool';
import { toolAggregate, type ListedToolState } from '@lanternwright/core/record';
import type { BodyOf, Command, EventBody, Job } from '@lanternwright/core/traveller';
import type { Database } from '../database/connect.ts';
import { inTransaction } from '../database/in-transaction.ts';
import { notFound, refused } from '../http/problem.ts';
import { change, type Asked } from '../record/append.ts';
import type { ToolRow } from './model.ts';

/** A row of an old shape is read through today's schema. */
const toListed = ({ tool, changedAt, changedBy, version }: ToolRow): ListedTool => ({
  version,
  tool: toolSchema.parse(tool),
  changedAt: changedAt.toISOString(),
  changedBy,
});

type Replacement = NonNullable<BodyOf<'correction'>['replacement']>;

/** The tool that a record, or a correction of one, says was used. */
function toolUsed(body: EventBody | Command | Replacement): Tool | undefined {
  if (body.kind === 'correction') return body.replacement ? toolUsed(body.replacement) : undefined;
  if (body.kind === 'retorque-recorded') return body.listed;
  if (body.kind !== 'step-recorded') return undefined;
  const { data } = body;
  return data.kind === 'torque' || data.kind === 'measure' ? data.listed : undefined;
}

const toRow = ({ tool, changedAt, retiredAt, ...rest }: ListedToolState) => ({
  ...rest,
  id: tool.id,
  code: tool.code,
  tool,
  changedAt: new Date(changedAt),
  retiredAt: retiredAt === null ? null : new Date(retiredAt),
});

/** The shop's list of tools whose calibration counts. */
export function toolsService(db: Database) {
  return {
    async list(): Promise<ListedTool[]> {
      return (await db.tool.findAll({ where: { retiredAt: null }, order: ['code'] })).map(toListed);
    },

    /** Puts a tool on the list, or changes the one of its id. 422 when another one has its code, 409 when it was changed since. */
    async keep(tool: Tool, asked: Asked): Promise<ListedTool> {
      try {
        return await inTransaction(db, async () => {
          const state = await change(db, toolAggregate, tool.id, { kind: 'keep', tool }, asked);
          const [row] = await db.tool.upsert(toRow(state));
          return toListed(row);
        });
      } catch (error) {
        if (error instanceof UniqueConstraintError)
          throw refused(`There is a ${tool.code} already`, 'tool.code');
        throw error;
      }
    },

    /** @throws HttpProblem 404, or 409 when it was changed since */
    async retire(id: string, asked: Asked): Promise<void> {
      await inTransaction(db, async () => {
        if ((await db.tool.count({ where: { id, retiredAt: null } })) === 0) throw notFound('tool');
        const state = await change(db, toolAggregate, id, { kind: 'retire' }, asked);
        await db.tool.upsert(toRow(state));
      });
    },

    /**
     * A record names a tool only as the list has it now; a correction also as the corrected record had it.
     * @throws HttpProblem 422 when it is not on the list, or stands there otherwise
     */
    async verify(command: Command, job: Job): Promise<void> {
      const used = toolUsed(command);
      if (!used) return;
      const corrected = command.kind === 'correction' && job.events.find((e) => e.id === command.corrects);
      if (corrected && isDeepStrictEqual(toolUsed(corrected.body), used)) return;
      const row = await db.tool.findOne({ where: { id: used.id, retiredAt: null } });
      if (!row || !isDeepStrictEqual(toListed(row).tool, used))
        throw refused(
          `${used.code} is not as the tool list has it now: choose it again`,
          'command.data.listed',
        );
    },
  };
}
export type ToolsService = ReturnType<typeof toolsService>;
