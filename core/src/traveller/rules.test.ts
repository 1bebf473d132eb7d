import { expect, it } from 'vitest';
import { upcast } from './index.ts';
import { RULES } from './rules.ts';
import { release } from './testing/ways.ts';
import { openingOn, supervisor, TestJob } from './testing/work.ts';

it('a release of every number of rules that ever was is read back, and of none to come', () => {
  const t = new TestJob(openingOn(['2L'], 'a-trailer', ['adjust']));
  t.workTo('2L');
  t.do(release('2L'), supervisor);
  const { body } = t.job.events.at(-1)!;
  const read = (rules: number) => upcast({ ...body, rules });
  for (let rules = 1; rules <= RULES; rules++) expect(read(rules)).toMatchObject({ rules });
  for (const rules of [0, RULES + 1, 2.5]) expect(() => read(rules)).toThrow();
});
