import { createHash, randomUUID } from 'node:crypto';
import { QueryTypes } from 'sequelize';
import type { Command, Job } from '@lanternwright/core/traveller';
import type { Database } from '../database/connect.ts';
import { notFound, refused } from '../http/problem.ts';
import { seesOwner, type Viewer } from '../http/viewer.ts';
import type { Clock } from '../shop/clock.ts';

const LARGEST_BYTES = 1_500_000;
/** Smaller than any picture a camera makes. */
const SMALLEST_BYTES = 100;
const JPEG_START = Buffer.from([0xff, 0xd8, 0xff]);

/** Photos of a job that wait for the record that names them. */
const MOST_WAITING = 100;
/** Most pictures on one paper. */
const MOST_ON_PAPER = 12;
/** How long one waits: a tablet may be away for a week between the photo and its record. */
const WAITS_MS = 14 * 24 * 3_600_000;

const UNRECORDED = `job_id = :jobId
  and not exists (select 1 from entry e where e.body ->> 'photoId' = photo.id ::text)`;

/** Photos of jobs: the bytes beside the record, which holds their hash. */
export function photosService(db: Database, clock: Clock) {
  async function jobSeen(id: string, viewer: Viewer): Promise<boolean> {
    const job = await db.job.findByPk(id, { attributes: ['id'], include: [{ model: db.unit, as: 'unit' }] });
    return job?.unit != null && seesOwner(viewer, job.unit.ownerId);
  }

  /** Photos that were sent and never recorded do not pile up. @throws HttpProblem 422 when too many wait */
  async function makeRoom(jobId: string): Promise<void> {
    const before = new Date(clock.now().getTime() - WAITS_MS);
    await db.sequelize.query(`delete from photo where at < :before and ${UNRECORDED}`, {
      replacements: { jobId, before },
    });
    const [row] = await db.sequelize.query<{ count: number }>(
      `select count(*)::int as count from photo where ${UNRECORDED}`,
      { type: QueryTypes.SELECT, replacements: { jobId } },
    );
    if (row!.count >= MOST_WAITING)
      throw refused(`${MOST_WAITING} photos of this job wait for their record already`, 'jpeg');
  }

  return {
    /** Keeps a JPEG for a job. @returns its id and SHA-256, for the event that puts it into the record */
    async add(jobId: string, base64: string, viewer: Viewer): Promise<{ id: string; sha256: string }> {
      if (!(await jobSeen(jobId, viewer))) throw notFound('job');
      const jpeg = Buffer.from(base64, 'base64');
      if (!jpeg.subarray(0, 3).equals(JPEG_START)) throw refused('This is no JPEG picture', 'jpeg');
      if (jpeg.length < SMALLEST_BYTES) throw refused('The picture is empty', 'jpeg');
      if (jpeg.length > LARGEST_BYTES)
        throw refused('This picture is over 1.5 MB. Choose a smaller one', 'jpeg');
      await makeRoom(jobId);
      const id = randomUUID();
      const sha256 = createHash('sha256').update(jpeg).digest('hex');
      await db.photo.create({ id, jobId, jpeg, sha256, at: clock.now() });
      return { id, sha256 };
    },

    async jpeg(id: string, viewer: Viewer): Promise<Buffer<ArrayBuffer>> {
      const row = await db.photo.findByPk(id);
      if (!row || !(await jobSeen(row.jobId, viewer))) throw notFound('photo');
      return row.jpeg;
    },

    /** The first pictures that stand in a job's record, by id; whoever asks has shown that they may see the job. */
    async ofJob({ id, wheelEnds }: Job): Promise<Map<string, Buffer>> {
      const wanted = wheelEnds.flatMap((w) => w.photos.map((p) => p.photoId)).slice(0, MOST_ON_PAPER);
      const rows = await db.photo.findAll({ where: { id: wanted, jobId: id }, attributes: ['id', 'jpeg'] });
      return new Map(rows.map((row) => [row.id, row.jpeg]));
    },

    /** @throws HttpProblem 422 when the photo is not there, belongs to another job or has another hash */
    async verify(jobId: string, command: Command): Promise<void> {
      if (command.kind !== 'photo-added') return;
      const row = await db.photo.findByPk(command.photoId, { attributes: ['jobId', 'sha256'] });
      if (row?.jobId !== jobId || row.sha256 !== command.sha256)
        throw refused('This photo is not kept for this job', 'command.photoId');
    },
  };
}
export type PhotosService = ReturnType<typeof photosService>;
