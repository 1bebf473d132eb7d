import { describe, expect, it } from 'vitest';
import { componentOf, components, conditionOf, decisionsOn } from './index.ts';

describe('what a supervisor can decide on a part', () => {
  it('fits the part: cone and cup together only for a bearing, both sides only for what is kept alike', () => {
    expect(decisionsOn('cups-and-rollers')).toEqual(['reuse', 'replace', 'replace-set']);
    expect(decisionsOn('lining')).toEqual(['reuse', 'replace', 'replace-pair']);
    expect(decisionsOn('spindle-shoulder')).toEqual(['reuse', 'replace']);
    expect(decisionsOn('seal-seat')).toEqual(['reuse', 'dress', 'sleeve', 'replace']);
  });

  it('is never to ask again', () => {
    for (const { id } of components) expect(decisionsOn(id)).not.toContain('ask');
  });
});

it('a condition that is not offered any more is still read as it was written', () => {
  expect(conditionOf('cone-and-journal', 'loose-cone')?.words).toBe('The cone no longer grips');
  expect(componentOf('cone-and-journal')?.conditions.map((c) => c.id)).not.toContain('loose-cone');
  expect(conditionOf('cone-and-journal', 'planned')?.words).toBe('Renewed as planned');
  expect(conditionOf('cone-and-journal', 'gone')).toBeUndefined();
});
