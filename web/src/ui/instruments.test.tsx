import { cleanup, render, screen } from '@testing-library/react';
import userEvent from '@testing-library/user-event';
import { afterEach, describe, expect, it, vi } from 'vitest';
import { AxlePlan } from './axle-plan.tsx';
import { LimitScale } from './limit-scale.tsx';
import { NutView } from './nut-view.tsx';
import { ThouRule } from './thou-rule.tsx';
import { TravellerGrid } from './traveller-grid.tsx';

afterEach(cleanup);

describe('ThouRule', () => {
  const rule = (meanMm: number | null, cyclesMm: number[], predictedMm?: number) =>
    render(
      <ThouRule
        bandMm={{ minMm: 0.0254, maxMm: 0.127 }}
        unit="in"
        meanMm={meanMm}
        side="loose"
        cyclesMm={cyclesMm}
        predictedMm={predictedMm}
      />,
    ).container;
  const needleX = (c: HTMLElement) =>
    Number(/translateX\(([\d.]+)px\)/.exec(c.querySelector('g[style]')?.getAttribute('style') ?? '')?.[1]);

  it('puts the needle at its thousandth and says it in words', () => {
    const container = rule(0.0083 * 25.4, [0.2, 0.21, 0.22]);
    // 12 thousandths over 592 px from 14: 8.3 stands at 14 + 8.3 / 12 × 592.
    expect(needleX(container)).toBeCloseTo(14 + (8.3 / 12) * 592, 1);
    expect(screen.getByRole('img', { name: 'Rule of end play: 0.0083 in, loose' })).toBeDefined();
  });

  it('stretches for what would run off its end', () => {
    const container = rule(0.6, [0.6, 0.6, 0.6]);
    expect(needleX(container)).toBeLessThan(606);
    expect(container.textContent).toContain('24');
  });

  it('draws the prediction only when there is one', () => {
    expect(rule(0.2, []).querySelectorAll('[stroke-dasharray]')).toHaveLength(0);
    expect(rule(0.2, [], 0.1).querySelectorAll('[stroke-dasharray]')).toHaveLength(1);
  });
});

describe('LimitScale', () => {
  const say = (v: number) => `${v} mm`;
  const drawn = (good: { from?: number; to?: number }) =>
    render(
      <LimitScale
        good={good}
        values={[
          { at: 8, bad: false },
          { at: 12, bad: true },
        ]}
        say={say}
        label="Wear"
      />,
    ).container;
  const wash = (c: HTMLElement) => {
    const rect = c.querySelector('.fill-pine-wash')!;
    return [
      Number(rect.getAttribute('x')),
      Number(rect.getAttribute('x')) + Number(rect.getAttribute('width')),
    ];
  };

  it('washes what is allowed, to the end where one side is open', () => {
    // 8 to 12 with three tenths on either side: 6.8 to 13.2 over 480 px from 40.
    const at10 = 40 + ((10 - 6.8) / 6.4) * 480;
    const under = wash(drawn({ to: 10 }));
    expect(under[0]).toBeCloseTo(40, 6);
    expect(under[1]).toBeCloseTo(at10, 6);
    const over = wash(drawn({ from: 10 }));
    expect(over[0]).toBeCloseTo(at10, 6);
    expect(over[1]).toBeCloseTo(520, 6);
  });

  it('marks each value by its side and names the limit', () => {
    const container = drawn({ to: 10 });
    expect(container.querySelectorAll('path.fill-rust')).toHaveLength(1);
    expect(container.querySelectorAll('path.fill-pine')).toHaveLength(1);
    // The limit under the scale, the outermost values over it.
    expect(container.textContent).toBe('10 mm8 mm12 mm');
    expect(container.querySelectorAll('text.fill-rust')).toHaveLength(1);
    expect(screen.getByRole('img', { name: 'Wear' })).toBeDefined();
  });
});

describe('NutView', () => {
  it('draws every slot and hole, and the arc on the side of the turn', () => {
    const { container } = render(
      <NutView
        lock={{ kind: 'castellated', slots: 6, holeAxesDeg: [0, 90] }}
        turns={-0.25}
        label="Back off 1/4 turn"
      />,
    );
    expect(container.querySelectorAll('rect')).toHaveLength(6);
    const arc = [...container.querySelectorAll('path')].find((p) => p.getAttribute('d')?.includes('A'))!;
    // Large-arc 0, sweep 0: against the clock, which loosens.
    expect(arc.getAttribute('d')).toMatch(/A65 65 0 0 0/);
  });
});

describe('AxlePlan', () => {
  const axles = [
    { number: 1, role: 'steer', wheels: 'single' },
    { number: 2, role: 'drive', wheels: 'dual' },
  ] as const;

  it('says every state in words and draws duals as two', () => {
    const { container } = render(
      <AxlePlan axles={axles} wheelEnds={[{ position: '2L', state: 'loose' }]} label="Tern 1" />,
    );
    expect(screen.getByRole('img', { name: 'Tern 1: 2L loose' })).toBeDefined();
    expect(container.querySelectorAll('.stroke-rust')).toHaveLength(2);
  });

  it('lies with its left side below, as seen from above with the front to the left', () => {
    render(<AxlePlan axles={axles} wheelEnds={[]} size="large" onSelect={() => undefined} label="Tern 1" />);
    const y = (name: RegExp) =>
      Number(screen.getByRole('button', { name }).querySelector('text')?.getAttribute('y'));
    expect(y(/^1L/)).toBeGreaterThan(y(/^1R/));
  });

  it('is chosen from by key', async () => {
    const choose = vi.fn();
    render(<AxlePlan axles={axles} wheelEnds={[]} size="large" onSelect={choose} label="Tern 1" />);
    screen.getByRole('button', { name: /^2R/ }).focus();
    await userEvent.keyboard('{Enter}');
    expect(choose).toHaveBeenCalledWith('2R');
  });
});

describe('TravellerGrid', () => {
  it('names every cell by stage, wheel end and state, and lights the row at hand', async () => {
    const choose = vi.fn();
    render(
      <TravellerGrid
        stages={[
          { id: 'adjust', title: 'Adjust' },
          { id: 'verify', title: 'Verify' },
        ]}
        columns={[{ position: '2L', cells: { adjust: 'in-band', verify: 'loose' } }]}
        at={{ stage: 'verify', position: '2L' }}
        onSelect={choose}
      />,
    );
    expect(screen.getByRole('button', { name: 'Adjust, 2L: done' })).toBeDefined();
    await userEvent.click(screen.getByRole('button', { name: 'Verify, 2L: loose' }));
    expect(choose).toHaveBeenCalledWith('verify', '2L');
    expect(screen.getByRole('rowheader', { name: 'Verify' }).parentElement?.className).toContain('bg-lamp');
  });
});
