import { openingOn, TestJob } from './work.ts';
import type { StoredEvent } from '../index.ts';

/** The first so many records of a job on four wheel ends whose hubs are opened again and again. */
export function longJob(records: number): StoredEvent[] {
  const positions = ['2L', '2R', '3L', '3R'];
  const work = new TestJob(openingOn(positions, 'a-drive-tang', ['seal', 'linings']));
  while (work.job.events.length < records) {
    for (const position of positions) work.workTo(position);
    for (const position of positions)
      work.do({ kind: 'layer-opened', position, layer: 'hub', reason: 'Once more' });
  }
  return work.job.events.slice(0, records);
}

export { fold } from '../index.ts';
