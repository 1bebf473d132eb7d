import { createHash } from 'node:crypto';
import { isDeepStrictEqual } from 'node:util';
import { QueryTypes, UniqueConstraintError } from 'sequelize';
import type { ListedTool, ToolRecord } from '@lanternwright/contract/tools';
import { toolSchema, type Tool } from '@lanternwright/core/tool';
import type { TorqueVia } from '@lanternwright/core/torque';
import type { ReaderUnits } from '@lanternwright/core/quantity';
import { jobAggregate, replay, toolAggregate, type ListedToolState } from '@lanternwright/core/record';
import {
  describeEvent,
  wheelEndAt,
  type BodyOf,
  type Command,
  type EventBody,
  type Job,
} from '@lanternwright/core/traveller';
import type { Database } from '../database/connect.ts';
import { inTransaction } from '../database/in-transaction.ts';
import { notFound, refused } from '../http/problem.ts';
import { change, entriesOfAll, type Asked } from '../record/append.ts';
import type { ToolRow } from './model.ts';

/** A row of an old shape is read through today's schema. */
const toListed = (row: ToolRow): ListedTool => ({
  version: row.version,
  holder: row.holder,
  missing: row.missing,
  recalls: [...row.recalls],
  certificates: row.certificates.map(({ id, name, type, until, at, by }) => ({
    id,
    name,
    type,
    until,
    at,
    by,
  })),
  tool: toolSchema.parse(row.tool),
  changedAt: row.changedAt.toISOString(),
  changedBy: row.changedBy,
});

const LARGEST_BYTES = 1_500_000;
/** What files of each type begin with. */
const starts = { 'application/pdf': Buffer.from('%PDF-'), 'image/jpeg': Buffer.from([0xff, 0xd8, 0xff]) };
interface Certificate {
  certificateId: string;
  name: string;
  type: keyof typeof starts;
  /** In base64. */
  file: string;
  until: string;
}

type ToolCommand = Parameters<typeof toolAggregate.decide>[1];
type Replacement = NonNullable<BodyOf<'correction'>['replacement']>;

type Adapter = NonNullable<TorqueVia['adapter']>;
interface Used {
  tool?: Tool;
  /** Between wrench and nut, where it was chosen from the list. */
  adapter?: Adapter & { code: string };
}

/** What a record, or a correction of one, says was used of the tool list. */
function toolsUsed(body: EventBody | Command | Replacement): Used {
  if (body.kind === 'correction') return body.replacement ? toolsUsed(body.replacement) : {};
  if (body.kind === 'retorque-recorded') return body.listed ? { tool: body.listed } : {};
  if (body.kind !== 'step-recorded') return {};
  const { data } = body;
  if (data.kind !== 'torque' && data.kind !== 'measure') return {};
  const adapter = data.kind === 'torque' ? data.via?.adapter : undefined;
  return {
    ...(data.listed ? { tool: data.listed } : {}),
    ...(adapter?.code ? { adapter: { ...adapter, code: adapter.code } } : {}),
  };
}

const notAsListed = (code: string, field: string) =>
  refused(`${code} is not as the tool list has it now: choose it again`, `command.data.${field}`);

/** Lengths that are typed by hand differ by no more than this, mm. */
const SAME_LENGTH_MM = 0.1;

const toRow = ({ tool, changedAt, retiredAt, ...rest }: ListedToolState) => ({
  ...rest,
  id: tool.id,
  code: tool.code,
  tool,
  changedAt: new Date(changedAt),
  retiredAt: retiredAt === null ? null : new Date(retiredAt),
});

/** Records named at most; a tool that made more since it was good is long overdue. */
const MOST_RECORDS = 500;

/** SQL: jobs in which a tool ($1) was used since a moment ($2), with the records. */
const RECORDS = `
  select e.stream_id as "jobId", array_agg(e.id) as ids, j.number as "jobNumber", u.name as unit
  from entry e join job j on j.id ::text = e.stream_id join unit u on u.id = j.unit_id
  where e.stream = 'job' and e.at >= $2 ::date
    and (e.body -> 'data' -> 'listed' ->> 'id' = $1 or e.body -> 'listed' ->> 'id' = $1
      or e.body -> 'replacement' -> 'data' -> 'listed' ->> 'id' = $1)
  group by e.stream_id, j.number, u.name order by max(e.seq) desc limit ${MOST_RECORDS}`;

/** The shop's list of tools whose calibration counts. */
export function toolsService(db: Database) {
  /** Decides a command on a tool that is on the list. @throws HttpProblem 404, 409 or 422 */
  async function tell(id: string, command: ToolCommand, asked: Asked): Promise<ListedTool> {
    return inTransaction(db, async () => {
      if ((await db.tool.count({ where: { id, retiredAt: null } })) === 0) throw notFound('tool');
      const state = await change(db, toolAggregate, id, command, asked);
      const [row] = await db.tool.upsert(toRow(state));
      return toListed(row);
    });
  }

  return {
    take: (id: string, asked: Asked) => tell(id, { kind: 'take', by: asked.by }, asked),
    giveBack: (id: string, asked: Asked) => tell(id, { kind: 'return' }, asked),
    recall: (id: string, told: { lastGood: string; reason: string }, asked: Asked) =>
      tell(id, { kind: 'recall', ...told }, asked),

    missing: (id: string, asked: Asked) => tell(id, { kind: 'missing' }, asked),
    found: (id: string, asked: Asked) => tell(id, { kind: 'found' }, asked),

    /**
     * Records a calibration with its certificate, both or neither.
     * @throws HttpProblem 404, 409 when the tool was changed since, 422 for what is no PDF and no JPEG
     */
    async certify(
      toolId: string,
      { certificateId: id, name, type, file, until }: Certificate,
      asked: Asked,
    ): Promise<ListedTool> {
      const bytes = Buffer.from(file, 'base64');
      if (!bytes.subarray(0, starts[type].length).equals(starts[type]))
        throw refused(`This is no ${type === 'image/jpeg' ? 'JPEG picture' : 'PDF'}`, 'file');
      if (bytes.length > LARGEST_BYTES)
        throw refused('This file is over 1.5 MB. Choose a smaller one', 'file');
      const sha256 = createHash('sha256').update(bytes).digest('hex');
      return inTransaction(db, async () => {
        await db.sequelize.query(
          `insert into certificate (id, tool_id, type, bytes, sha256, at) values ($1, $2, $3, $4, $5, $6)
             on conflict (id) do nothing`,
          { bind: [id, toolId, type, bytes, sha256, asked.at] },
        );
        return tell(toolId, { kind: 'certify', certificate: { id, name, type, sha256, until } }, asked);
      });
    },

    /** @throws HttpProblem 404 */
    async certificate(toolId: string, id: string): Promise<{ type: string; bytes: Buffer<ArrayBuffer> }> {
      const [row] = await db.sequelize.query<{ type: string; bytes: Buffer<ArrayBuffer> }>(
        'select type, bytes from certificate where id = $1 and tool_id = $2',
        { type: QueryTypes.SELECT, bind: [id, toolId] },
      );
      if (!row) throw notFound('certificate');
      return row;
    },

    /** What was made with a tool since a day, struck-out records left out. */
    async records(id: string, since: string, reader: ReaderUnits): Promise<ToolRecord[]> {
      const jobs = await db.sequelize.query<
        Pick<ToolRecord, 'jobId' | 'jobNumber' | 'unit'> & { ids: string[] }
      >(RECORDS, { type: QueryTypes.SELECT, bind: [id, since] });
      const entries = await entriesOfAll(
        db,
        'job',
        jobs.map((j) => j.jobId),
      );
      return jobs
        .flatMap(({ jobId, jobNumber, unit, ids }) => {
          const job = replay(jobAggregate, entries.get(jobId) ?? []);
          if (!job) return [];
          const struck = new Set(
            job.events.flatMap(({ body }) => (body.kind === 'correction' ? [body.corrects] : [])),
          );
          return job.events
            .filter((event) => ids.includes(event.id) && !struck.has(event.id))
            .map((event) => {
              const position = 'position' in event.body ? (event.body.position ?? '') : '';
              return {
                ...{ jobId, jobNumber, unit, position, at: event.at, by: event.by.name },
                text: describeEvent(job, event, reader),
                released: Boolean(wheelEndAt(job, position)?.release),
              };
            });
        })
        .sort((a, b) => b.at.localeCompare(a.at))
        .slice(0, MOST_RECORDS);
    },

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
      await tell(id, { kind: 'retire' }, asked);
    },

    /**
     * A record names a tool only as the list has it now; a correction also as the corrected record had it.
     * @throws HttpProblem 422 when it is not on the list, or stands there otherwise
     */
    async verify(command: Command, job: Job): Promise<void> {
      const { tool, adapter } = toolsUsed(command);
      const corrected =
        command.kind === 'correction' ? job.events.find((e) => e.id === command.corrects) : undefined;
      const before = corrected ? toolsUsed(corrected.body) : {};
      if (tool && !isDeepStrictEqual(tool, before.tool)) {
        const row = await db.tool.findOne({ where: { id: tool.id, retiredAt: null } });
        if (!row || !isDeepStrictEqual(toListed(row).tool, tool)) throw notAsListed(tool.code, 'listed');
      }
      if (adapter && !isDeepStrictEqual(adapter, before.adapter)) {
        const row = await db.tool.findOne({ where: { code: adapter.code, retiredAt: null } });
        const listed = row && toListed(row).tool;
        if (
          listed?.kind !== 'adapter' ||
          Math.abs(listed.length.si * 1000 - adapter.lengthMm) > SAME_LENGTH_MM
        )
          throw notAsListed(adapter.code, 'via.adapter');
        if (tool?.kind === 'torque-wrench' && tool.drive && tool.drive !== listed.drive)
          throw refused(
            `${adapter.code} is for a drive of ${listed.drive} in, ${tool.code} has one of ${tool.drive} in`,
            'command.data.via.adapter',
          );
      }
    },
  };
}
export type ToolsService = ReturnType<typeof toolsService>;
