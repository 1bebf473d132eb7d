import { isDeepStrictEqual } from 'node:util';
import { UniqueConstraintError } from 'sequelize';
import type { ListedTool } from '@lanternwright/contract/tools';
import { toolSchema, type Tool } from '@lanternwright/core/tool';
import type { Transaction } from 'sequelize';
import type { BodyOf, Command, EventBody, Job } from '@lanternwright/core/traveller';
import type { Database } from '../database/connect.ts';
import { notFound, refused } from '../http/problem.ts';
import type { Viewer } from '../http/viewer.ts';
import type { Clock } from '../shop/clock.ts';
import type { ToolRow } from './model.ts';

/** A row of an old shape is read through today's schema. */
const toListed = ({ tool, changedAt, changedBy }: ToolRow): ListedTool => ({
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

/** The shop's list of tools whose calibration counts. */
export function toolsService(db: Database, clock: Clock) {
  return {
    async list(): Promise<ListedTool[]> {
      return (await db.tool.findAll({ where: { retiredAt: null }, order: ['code'] })).map(toListed);
    },

    /** Puts a tool on the list, or changes the one of its id. 422 when another one has its code. */
    async keep(tool: Tool, { person }: Viewer): Promise<ListedTool> {
      const { id, code } = tool;
      try {
        const [row] = await db.tool.upsert({
          id,
          code,
          tool,
          changedAt: clock.now(),
          changedBy: person.name,
          retiredAt: null,
        });
        return toListed(row);
      } catch (error) {
        if (error instanceof UniqueConstraintError) throw refused(`There is a ${code} already`, 'code');
        throw error;
      }
    },

    async retire(id: string): Promise<void> {
      const [found] = await db.tool.update({ retiredAt: clock.now() }, { where: { id, retiredAt: null } });
      if (found === 0) throw notFound('tool');
    },

    /**
     * A record names a tool only as the list has it now; a correction also as the corrected record had it.
     * @param transaction of the recording: a second connection inside it would exhaust the pool
     * @throws HttpProblem 422 when it is not on the list, or stands there otherwise
     */
    async prove(command: Command, job: Job, transaction: Transaction): Promise<void> {
      const used = toolUsed(command);
      if (!used) return;
      const corrected = command.kind === 'correction' && job.events.find((e) => e.id === command.corrects);
      if (corrected && isDeepStrictEqual(toolUsed(corrected.body), used)) return;
      const row = await db.tool.findOne({ where: { id: used.id, retiredAt: null }, transaction });
      if (!row || !isDeepStrictEqual(toListed(row).tool, used))
        throw refused(
          `${used.code} is not as the tool list has it now: choose it again`,
          'command.data.listed',
        );
    },
  };
}
export type ToolsService = ReturnType<typeof toolsService>;
