import type { Work } from '../../stack/index.ts';
import { whatIsLeft } from '../index.ts';
import { openingOn, TestJob } from './work.ts';

/** The next job on the side that another left. */
export function next(t: TestJob, position: string, sheetId: string, works: Work[]): TestJob {
  const began = whatIsLeft(t.job, t.at(position)) ?? undefined;
  const opening = openingOn([position], sheetId, works);
  return new TestJob({ ...opening, wheelEnds: [{ ...opening.wheelEnds[0]!, began }] });
}
