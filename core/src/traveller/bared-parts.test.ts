import { describe, expect, it } from 'vitest';
import { everyStack } from '../stack/testing/stacks.ts';
import { layerOf, worksOf, type Stack, type Work } from '../stack/index.ts';
import { fold, linesToAnswer, openParts, partsToJudge, type JobOpened } from './index.ts';
import { codes, ids, release } from './testing/ways.ts';
import { openingOn, soundParts, supervisor, TestJob } from './testing/work.ts';

function on(name: string, works: Work[], change: (stack: Stack) => Stack = (s) => s): TestJob {
  const built = everyStack.find((b) => b.name === name)!;
  const opening: JobOpened = openingOn(['1L'], built.sheetId, works);
  const [w] = opening.wheelEnds;
  return new TestJob({
    ...opening,
    wheelEnds: [{ ...w!, route: { ...w!.route!, stack: [...change(built.stack)] } }],
  });
}

/** Every part sound but one. */
function judged(t: TestJob, component: string, seen: string, disposition: 'ask' | 'replace'): void {
  t.workTo('1L', 'judge-parts');
  const { findings } = soundParts(partsToJudge(t.at('1L')));
  const list = findings.map((f) => (f.component === component ? { ...f, seen, disposition } : f));
  expect(t.recordStep('1L', { kind: 'judge', hardWorked: false, findings: list })).toBeNull();
}

describe('a grooved seal journal', () => {
  const grooved = (decision: 'sleeve' | 'reuse') => {
    const t = on('heavy trailer', ['seal']);
    judged(t, 'seal-seat', 'groove', 'ask');
    const component = 'seal-seat';
    t.do(
      { kind: 'decision-made', position: '1L', component, decision, reason: 'A groove that a nail feels' },
      supervisor,
    );
    return t;
  };

  it('gets a sleeve where the supervisor says so: got, compared, on before the seal', () => {
    const t = grooved('sleeve');
    expect(linesToAnswer(t.at('1L')).map((l) => l.what)).toContain('part:wear-sleeve');
    expect(openParts(t.at('1L'), 'compare')).toContain('wear-sleeve');
    const order = ids(t, '1L');
    expect(order.indexOf('wear-sleeve')).toBeGreaterThan(order.indexOf('compare'));
    expect(order.indexOf('wear-sleeve')).toBeLessThan(order.indexOf('seal'));
    t.workTo('1L');
    expect(codes(t, '1L')).toEqual([]);
    expect(ids(grooved('reuse'), '1L')).not.toContain('wear-sleeve');
  });

  it('a seal that went in before its sleeve counts for nothing', () => {
    const t = grooved('sleeve');
    t.workTo('1L', 'wear-sleeve');
    const at = {
      kind: 'step-recorded',
      position: '1L',
      stage: 'assemble',
      stepId: 'seal',
      round: 1,
    } as const;
    t.do({ ...at, data: { kind: 'seal', outside: 'dry' } });
    t.workTo('1L');
    const seals = t.job.events.filter(({ body }) => body.kind === 'step-recorded' && body.stepId === 'seal');
    expect(seals).toHaveLength(2);
  });

  it('is for a lip on a journal: two metal faces have none', () => {
    const { stack } = everyStack.find((b) => b.name === 'planetary front')!;
    expect(worksOf(stack)).not.toContain('sleeve');
    expect(worksOf(everyStack.find((b) => b.name === 'heavy trailer')!.stack)).toContain('sleeve');
  });
});

describe('parts that later rules ask to judge', () => {
  const cv = (stack: Stack): Stack =>
    stack.map((l) => (l.layer === 'knuckle' ? { ...l, joint: 'constant-velocity' as const } : l));

  it('are the thrust washer of a driven shaft and the boot of a joint', () => {
    expect(partsToJudge(on('4×4 front', ['spindle-bearing']).at('1L'))).not.toContain('joint-boot');
    expect(partsToJudge(on('4×4 front', ['swivels']).at('1L'))).toContain('thrust-washer');
    expect(partsToJudge(on('light-truck front', ['unit-hub']).at('1L'))).toContain('joint-boot');
    expect(partsToJudge(on('planetary front', ['swivels']).at('1L'))).not.toContain('joint-boot');
    expect(partsToJudge(on('planetary front', ['swivels'], cv).at('1L'))).toContain('joint-boot');
    expect(layerOf(everyStack.find((b) => b.name === 'trailer compact hub')!.stack, 'unit-hub')?.kind).toBe(
      'compact',
    );
    expect(partsToJudge(on('trailer compact hub', ['unit-hub']).at('1L'))).not.toContain('joint-boot');
  });

  it('torn, a boot goes in new before the release', () => {
    const t = on('light-truck front', ['unit-hub']);
    judged(t, 'joint-boot', 'torn', 'replace');
    expect(linesToAnswer(t.at('1L')).map((l) => l.what)).toContain('part:joint-boot');
    expect(openParts(t.at('1L'), 'compare')).toContain('joint-boot');
    t.workTo('1L');
    expect(codes(t, '1L')).toEqual([]);
  });

  it('are not asked of a release of earlier rules', () => {
    const t = on('light-truck front', ['unit-hub']);
    t.workTo('1L');
    t.do(release('1L'), supervisor);
    const old = t.job.events.map((e) => {
      const { body } = e;
      if (body.kind === 'wheel-end-released') return { ...e, body: { ...body, rules: 4 } };
      if (body.kind !== 'step-recorded' || body.data.kind !== 'judge') return e;
      const findings = body.data.findings.filter((f) => f.component !== 'joint-boot');
      return { ...e, body: { ...body, data: { ...body.data, findings } } };
    });
    expect(fold(old).wheelEnds[0]!.release?.inDoubt).toBeNull();
  });
});
