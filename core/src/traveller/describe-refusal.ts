import type { Position } from '../axle-plan/index.ts';
import type { Reader } from '../quantity/index.ts';
import { describeObjection } from './describe-objection.ts';
import { describeOff } from './describe-stopped.ts';
import { wheelEndEver, type Job } from './job.ts';
import { stepTitled } from './progress.ts';
import { linesToSay } from './ready-words.ts';
import { refusalWords, type Names } from './refusal-words.ts';
import type { Refusal } from './refusal.ts';

/**
 * Why something is refused, in words.
 * @param job what the command was about; null where there is none yet
 * @param reader whose units figures are told in; null for the units they were entered in
 */
export function describeRefusal({ code, params }: Refusal, job: Job | null, reader: Reader = null): string {
  const at = (position: string) => (job ? wheelEndEver(job, position as Position) : undefined);
  const names: Names = {
    step: ({ position, stage, step }) => stepTitled(at(position), stage, step)?.title ?? step,
    line: (position, what) => linesToSay(at(position), what),
    objections: (position, against) =>
      against.map((o) => describeObjection(at(position), o, reader)).join('. '),
    off: (position) => {
      const w = at(position);
      return w ? describeOff(w) : position;
    },
  };
  return (refusalWords[code] as (params: unknown, names: Names) => string)(params, names);
}
