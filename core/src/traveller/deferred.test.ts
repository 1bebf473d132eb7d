import { expect, it } from 'vitest';
import { jobAggregate } from '../record/index.ts';
import { type Command } from './index.ts';
import { openingOn, supervisor, TestJob } from './testing/work.ts';

const until = '2027-03-01';
const later = { answer: 'defer', until, risk: 'It weeps at a steady level' } as const;
const answer = { kind: 'owner-answered', answer: 'do-now', name: 'Q. Fenmoor' } as const;
const lines = [
  { group: 'labour' as const, what: 'Seals', per: 'wheel' as const, quantity: 2, unitMinor: 100 },
];
const bill = { currency: 'USD', lines, suppliesPercent: 0, taxes: [] };

/** A job on both sides of a drive axle, with an estimate that the owner answers so. */
function answered(...answers: Command[]): TestJob {
  const t = new TestJob(openingOn(['2L', '2R'], 'a-drive-tang', ['seal', 'studs']));
  t.do({ kind: 'bill-written', as: 'estimate', bill }, supervisor);
  for (const said of answers) t.do(said, supervisor);
  return t;
}
const deferred = (t: TestJob) =>
  jobAggregate.project(t.job).job.deferred.map((d) => `${d.position} ${d.work} ${d.until}`);

it('a work that the owner deferred is kept with its day, and is none once it is back in the job', () => {
  const t = answered({ ...answer, works: [{ position: '2L', work: 'studs', ...later }] });
  const on = t.job.money.answer!.at.slice(0, 10);
  const { axleId } = t.job.wheelEnds[0]!;
  expect(jobAggregate.project(t.job).job.deferred).toEqual([
    { axleId, position: '2L', work: 'studs', on, until },
  ]);
  t.do({ kind: 'work-added', position: '2L', work: 'studs', reason: 'The owner rang' }, supervisor);
  expect(deferred(t)).toEqual([]);
});

it('one that the owner declined is not asked for again', () => {
  expect(
    deferred(answered({ ...answer, works: [{ position: '2L', work: 'studs', answer: 'decline' }] })),
  ).toEqual([]);
});

it('a side that is deferred whole is left out, and asked for', () => {
  const works = (['seal', 'studs'] as const).map((work) => ({ position: '2R' as const, work, ...later }));
  const t = answered({ ...answer, works });
  expect(t.job.leftOut.map((w) => w.position)).toEqual(['2R']);
  expect(deferred(t)).toEqual([`2R seal ${until}`, `2R studs ${until}`]);
});

it('an estimate that is deferred whole defers what is not done, until it is answered anew', () => {
  const t = answered({ ...answer, ...later });
  expect(deferred(t)).toEqual([
    `2L seal ${until}`,
    `2L studs ${until}`,
    `2R seal ${until}`,
    `2R studs ${until}`,
  ]);
  t.do(answer, supervisor);
  expect(deferred(t)).toEqual([]);
});

it('a job that was opened in error defers nothing', () => {
  const t = answered({ ...answer, ...later });
  t.do({ kind: 'job-voided', reason: 'It is another truck' }, supervisor);
  expect(deferred(t)).toEqual([]);
});
