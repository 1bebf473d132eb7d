import fc from 'fast-check';
import { describe, expect, it } from 'vitest';
import { everyStack } from './testing/stacks.ts';
import {
  allNeedsOff,
  layerOf,
  missesOilLevel,
  needsOff,
  reachOf,
  describeLayer,
  stackSchema,
  takeOffOrder,
  usualStack,
  worksOf,
  type Stack,
} from './index.ts';

const named = (name: string): Stack => everyStack.find((s) => s.name === name)!.stack;
const ids = (reach: { off: readonly string[] }) => reach.off.join(' ');

describe('reach', () => {
  it('follows from the target part, outside in', () => {
    expect(ids(reachOf(named('heavy drive'), ['seal']))).toBe('wheel cap brake-outer nut hub');
    expect(ids(reachOf(named('light-truck rear'), ['seal']))).toBe('wheel brake-outer axle shaft');
    expect(ids(reachOf(named('light-truck front'), ['unit-hub']))).toBe('wheel brake-outer unit-hub');
    expect(ids(reachOf(named('4×4 front'), ['swivels']))).toBe(
      'wheel cap brake-outer nut hub spindle shaft knuckle',
    );
    expect(ids(reachOf(named('flatbed'), ['brakes']))).toBe('wheel cap nut hub brake-inner');
    expect(ids(reachOf(named('heavy trailer'), ['brakes']))).toBe('wheel brake-outer');
    expect(ids(reachOf(named('crawler'), ['seal']))).toBe('wheel seal-hub');
  });

  it('leaves the level of an oil hub unlooked at where its cap stays on, and nobody asks for it', () => {
    const drive = named('heavy drive');
    expect(missesOilLevel(drive, [])).toBe(true);
    expect(missesOilLevel(drive, ['brakes'])).toBe(true);
    expect(missesOilLevel(drive, ['brakes', 'oil-level'])).toBe(false);
    expect(missesOilLevel(drive, ['seal'])).toBe(false);
    for (const { stack } of everyStack)
      if (!worksOf(stack).includes('oil-level')) expect(missesOilLevel(stack, [])).toBe(false);
  });

  it('an adjustment opens the nut and leaves the wheel on', () => {
    const { layers, off } = reachOf(named('heavy steer'), ['adjust']);
    expect([...layers]).toEqual([
      ['nut', 'open'],
      ['cap', 'off'],
    ]);
    expect(off).toEqual(['cap']);
  });

  it('a seal takes the nut off where an adjustment only opens it', () => {
    expect(reachOf(named('heavy steer'), ['adjust', 'seal']).layers.get('nut')).toBe('off');
  });

  it('wheel, drum and hub on a dolly leave wheel and brake where they are', () => {
    expect(ids(reachOf(named('heavy trailer'), ['seal'], [], true))).toBe('cap nut hub');
  });

  it('what came in pieces is reached as well', () => {
    expect(ids(reachOf(named('heavy trailer'), ['check'], ['wheel']))).toBe('wheel');
  });

  it('several works are the union of their layers, each once', () => {
    fc.assert(
      fc.property(
        fc.constantFrom(...everyStack),
        fc.array(fc.nat(30), { minLength: 1, maxLength: 4 }),
        ({ stack }, picks) => {
          const can = worksOf(stack);
          const works = picks.map((i) => can[i % can.length]!);
          const all = reachOf(stack, works);
          const single = new Set(works.flatMap((w) => [...reachOf(stack, [w]).layers.keys()]));
          expect(new Set(all.layers.keys())).toEqual(single);
          expect(new Set(all.off).size).toBe(all.off.length);
        },
      ),
    );
  });

  it('nothing comes off that the works did not need off, and everything comes off after what it needs off', () => {
    fc.assert(
      fc.property(fc.constantFrom(...everyStack), fc.nat(30), ({ stack }, i) => {
        const can = worksOf(stack);
        const { off } = reachOf(stack, [can[i % can.length]!]);
        for (const [at, id] of off.entries()) {
          for (const outer of needsOff(stack, id)) expect(off.indexOf(outer)).toBeLessThan(at);
          const wanted = off.some((inner) => inner === id || allNeedsOff(stack, inner).has(id));
          expect(wanted).toBe(true);
        }
      }),
    );
  });
});

describe('a stack', () => {
  it('offers only works it has a part for', () => {
    expect(worksOf(named('crawler'))).toEqual(['check', 'wheel-off', 'seal', 'hub']);
    expect(worksOf(named('light-truck front'))).not.toContain('adjust');
    expect(worksOf(named('heavy pre-set'))).not.toContain('adjust');
    expect(worksOf(named('farm front'))).toContain('kingpin');
    expect(() => reachOf(named('crawler'), ['swivels'])).toThrow(RangeError);
  });

  it.each([
    [
      [
        { layer: 'wheel', kind: 'single' },
        { layer: 'wheel', kind: 'dual' },
      ],
      /twice/,
    ],
    [[{ layer: 'nut', kind: 'A' }], /nut and no hub/],
    [
      [
        { layer: 'wheel', kind: 'single' },
        { layer: 'shaft', kind: 'c-clip' },
      ],
      /no axle that opens/,
    ],
    [
      [
        { layer: 'wheel', kind: 'single' },
        { layer: 'shaft', kind: 'driven' },
      ],
      /no spindle/,
    ],
  ])('that cannot be is refused: %j', (layers, why) => {
    const read = stackSchema.safeParse(layers);
    expect(read.success).toBe(false);
    expect(read.error?.issues.map((i) => i.message).join()).toMatch(why);
  });

  it('every construction of the sheets has one, and it says its layers', () => {
    for (const { stack } of everyStack) {
      expect(stackSchema.safeParse(stack).success).toBe(true);
      for (const layer of stack) expect(describeLayer(layer)).toMatch(/^[A-Z]/);
    }
    expect(usualStack(null, { role: 'steer', wheels: 'single', brake: 'disc' })).toBeNull();
    expect(usualStack('none', { role: 'steer', wheels: 'single', brake: 'disc' })).toBeNull();
  });

  it('comes off in an order even where two layers need each other’s neighbours', () => {
    expect(
      takeOffOrder(named('light-truck rear'), new Set(['shaft', 'axle', 'wheel', 'brake-outer'])),
    ).toEqual(['wheel', 'brake-outer', 'axle', 'shaft']);
    expect(layerOf(named('light-truck rear'), 'nut')).toBeUndefined();
  });
});
