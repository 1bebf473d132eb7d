import { sameJson, type JobRows } from '@lanternwright/core/record';
import { asColumns } from '../record/insert-rows.ts';

/** What the states of a unit's wheel ends hang on. */
const standing = ({ job, readings }: JobRows) => ({
  readings,
  closed: job.closedAt,
  stopped: job.stopped,
  leaves: job.leaves,
  wheelEnds: job.wheelEnds.map(({ axleId, position, released, inDoubt, yardOnly }) => ({
    ...{ axleId, position, released, inDoubt, yardOnly },
  })),
});

/** What has to be written of a job's rows: null where nothing changed, JSON as the database takes it else. */
export interface Changed {
  job: string;
  readings: string | null;
  followUps: string | null;
  /** Whether the states of wheel ends may be others now. */
  stands: boolean;
}

/** @param before the rows as they stand; null where there are none yet */
export function changedRows(before: JobRows | null, rows: JobRows): Changed {
  const { job, readings, followUps } = rows;
  return {
    job: JSON.stringify(job),
    readings: sameJson(readings, before?.readings ?? []) ? null : asColumns(readings),
    followUps: sameJson(followUps, before?.followUps ?? []) ? null : asColumns(followUps),
    stands: before === null || !sameJson(standing(rows), standing(before)),
  };
}
