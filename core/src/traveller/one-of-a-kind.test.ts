import { expect, it } from 'vitest';
import { familySheet } from '../procedure/index.ts';
import { fold } from './index.ts';
import { openingOn, TestJob } from './testing/work.ts';

it('jobs read from the record share the sheets and stacks that say the same, and no others', () => {
  const read = (t: TestJob) => fold(JSON.parse(JSON.stringify(t.job.events)) as typeof t.job.events);
  const [a, b] = [
    read(new TestJob(openingOn(['1L'], 'a-trailer'))),
    read(new TestJob(openingOn(['1L'], 'a-trailer'))),
  ];
  const [one, other] = [a.wheelEnds[0]!, b.wheelEnds[0]!];
  expect(one.sheet).toBe(other.sheet);
  expect(one.plan.stack).toBe(other.plan.stack);
  expect(one.sheet).toEqual(familySheet('a-trailer'));
  const light = read(new TestJob(openingOn(['1L'], 'd-towed'))).wheelEnds[0]!;
  expect(light.sheet).not.toBe(one.sheet);
  expect(light.sheet).toEqual(familySheet('d-towed'));
});
