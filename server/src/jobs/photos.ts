import { createHash, randomUUID } from 'node:crypto';
import type { Command } from '@lanternwright/core/traveller';
import type { Database } from '../database/connect.ts';
import { notFound, refused } from '../http/problem.ts';
import type { Clock } from './service.ts';

const LARGEST_BYTES = 1_500_000;
const JPEG_START = Buffer.from([0xff, 0xd8, 0xff]);

/** Photos of jobs: the bytes beside the record, which holds their hash. */
export function photosService(db: Database, clock: Clock) {
  return {
    /** Keeps a JPEG for a job. @returns its id and SHA-256, for the event that puts it into the record */
    async add(jobId: string, base64: string): Promise<{ id: string; sha256: string }> {
      if (!(await db.job.findByPk(jobId, { attributes: ['id'] }))) throw notFound('job');
      const jpeg = Buffer.from(base64, 'base64');
      if (!jpeg.subarray(0, 3).equals(JPEG_START)) throw refused('This is no JPEG picture', 'jpeg');
      if (jpeg.length > LARGEST_BYTES) throw refused('The picture is over 1.5 MB: make it smaller', 'jpeg');
      const id = randomUUID();
      const sha256 = createHash('sha256').update(jpeg).digest('hex');
      await db.photo.create({ id, jobId, jpeg, sha256, at: clock.now() });
      return { id, sha256 };
    },

    async jpeg(id: string): Promise<Buffer<ArrayBuffer>> {
      const row = await db.photo.findByPk(id);
      if (!row) throw notFound('photo');
      return row.jpeg;
    },

    /** @throws HttpProblem 422 when the photo is not there, belongs to another job or has another hash */
    async prove(jobId: string, command: Command): Promise<void> {
      if (command.kind !== 'photo-added') return;
      const row = await db.photo.findByPk(command.photoId, { attributes: ['jobId', 'sha256'] });
      if (row?.jobId !== jobId || row.sha256 !== command.sha256)
        throw refused('This photo is not kept for this job', 'command.photoId');
    },
  };
}
export type PhotosService = ReturnType<typeof photosService>;
