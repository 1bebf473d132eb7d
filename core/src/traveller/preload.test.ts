import { describe, expect, it } from 'vitest';
import { quantity } from '../quantity/index.ts';
import { againstRelease, describeObjection, type JobOpened } from './index.ts';
import { codes, release } from './testing/ways.ts';
import { openingOn, supervisor, TestJob } from './testing/work.ts';

const figure = (from: number, to: number) =>
  ({ min: quantity(from, 'N'), max: quantity(to, 'N'), mark: 'shop', source: 'Set by the shop' }) as const;
const pull = (newtons: number, more: object = {}) => ({
  kind: 'measure' as const,
  by: 'drag' as const,
  pull: quantity(newtons, 'N'),
  ...more,
});
const asked = { least: quantity(50, 'N'), most: quantity(70, 'N') };

/** A 4×4 front axle with work on its knuckle, worked to the swivel's preload. */
function atTheSwivel(sheet: object = {}): TestJob {
  const opening: JobOpened = openingOn(['1L'], 'h-lock-nuts', ['swivels']);
  const [w] = opening.wheelEnds;
  const t = new TestJob({ ...opening, wheelEnds: [{ ...w!, sheet: { ...w!.sheet, ...sheet } }] });
  t.workTo('1L', 'swivel-preload');
  return t;
}

describe('the preload of swivel bearings', () => {
  it('is a pull at the steering arm, whatever the sheet verifies its nut by', () => {
    for (const verifyBy of ['dial', 'drag', 'none'] as const) {
      const t = atTheSwivel({ verifyBy });
      expect(t.recordStep('1L', { kind: 'measure', by: 'dial' })).toMatch(/by its drag/);
      expect(t.recordStep('1L', { kind: 'measure', by: 'feel' })).toMatch(/by its drag/);
      expect(t.recordStep('1L', { kind: 'measure', by: 'drag' })).toBe('Measure the pull');
      expect(t.recordStep('1L', pull(60))).toBe('Enter the pull that the maker asks for');
      expect(t.recordStep('1L', pull(60, { asked }))).toBeNull();
      expect(t.step('1L')?.id).not.toBe('swivel-preload');
    }
  });

  it('is held against its own figure, never against the drag of the hub', () => {
    const t = atTheSwivel({ swivelPull: figure(50, 70), drag: figure(10, 20) });
    expect(t.recordStep('1L', pull(60))).toBeNull();
    t.workTo('1L');
    expect(codes(t, '1L')).toEqual([]);
    expect(t.try(release('1L'), supervisor)).toBeNull();
  });

  it.each([49, 71])('of %d N is kept as a reading and does not count; a right one does', (newtons) => {
    const t = atTheSwivel({ swivelPull: figure(50, 70) });
    const before = t.job.events.length;
    expect(t.recordStep('1L', pull(newtons))).toBeNull();
    expect(t.job.events).toHaveLength(before + 1);
    expect(t.step('1L')?.id).toBe('swivel-preload');
    expect(codes(t, '1L')).toContain('said-no');
    expect(t.recordStep('1L', pull(50))).toBeNull();
    expect(t.step('1L')?.id).not.toBe('swivel-preload');
  });

  it('does not count where it is off what the maker was said to ask for', () => {
    const t = atTheSwivel();
    expect(t.recordStep('1L', pull(71, { asked }))).toBeNull();
    expect(t.step('1L')?.id).toBe('swivel-preload');
    const turned = { least: asked.most, most: asked.least };
    expect(t.recordStep('1L', pull(60, { asked: turned }))).toMatch(/least is over the most/);
  });

  it('that fits no more once the sheet is put right stands against the release', () => {
    const t = atTheSwivel({ swivelPull: figure(50, 70) });
    t.recordStep('1L', pull(60));
    t.workTo('1L');
    const { sheet, plan } = t.at('1L');
    t.do(
      {
        kind: 'sheet-changed',
        position: '1L',
        sheet: { ...sheet, swivelPull: figure(20, 40) },
        stack: [...plan.stack],
        reason: 'Read from the wrong line of the maker’s sheet',
      },
      supervisor,
    );
    const against = againstRelease(t.at('1L'));
    expect(against.find((o) => o.code === 'drag-off')).toMatchObject({ guard: 'never' });
    const words = against.map((o) => describeObjection(t.at('1L'), o, null)).join(' ');
    expect(words).toMatch(/Swivel preload: the pull is outside the figure/);
  });
});

describe('the drag of a hub', () => {
  it('out of its figure is kept as a reading, and the nut goes back to Adjust', () => {
    const opening = openingOn(['1L'], 'h-lock-nuts', ['adjust']);
    const [w] = opening.wheelEnds;
    const t = new TestJob({
      ...opening,
      wheelEnds: [{ ...w!, sheet: { ...w!.sheet, drag: figure(20, 40) } }],
    });
    t.workTo('1L', 'drag');
    expect(t.recordStep('1L', pull(55))).toBeNull();
    expect(t.step('1L')?.id).toBe('drag');
    expect(codes(t, '1L')).toContain('said-no');
    expect(t.try({ kind: 'adjust-reopened', position: '1L', round: 1, from: 'start' })).toBeNull();
    t.workTo('1L', 'drag');
    expect(t.recordStep('1L', pull(30))).toBeNull();
    t.workTo('1L');
    expect(codes(t, '1L')).toEqual([]);
  });
});
