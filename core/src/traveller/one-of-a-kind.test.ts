import { expect, it } from 'vitest';
import { familySheet } from '../procedure/index.ts';
import { fold, upcast } from './index.ts';
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

it('what the record repeats is checked once, and what is wrong is refused each time', () => {
  const body = () => JSON.parse(JSON.stringify(new TestJob(openingOn(['1L'])).job.events[0]!.body)) as Opened;
  interface Opened {
    wheelEnds: { sheet: { title: string }; route: { stack: { layer: string }[] } }[];
  }
  const read = (b: Opened) => (upcast(b) as unknown as Opened).wheelEnds[0]!;
  const [one, other] = [read(body()), read(body())];
  expect(one.sheet).toBe(other.sheet);
  expect(one.route.stack).toBe(other.route.stack);
  const untitled = body();
  untitled.wheelEnds[0]!.sheet.title = '';
  for (let time = 0; time < 2; time++) expect(() => read(untitled)).toThrow(/title/);
  const renamed = body();
  renamed.wheelEnds[0]!.sheet.title = 'Another sheet';
  expect(read(renamed).sheet.title).toBe('Another sheet');
});
