import { describe, expect, it } from 'vitest';
import type { LayerId } from '../stack/index.ts';
import { describeEvent, describeObjection, againstRelease, layerStates, type Command } from './index.ts';
import { codes, ids, REASON, release } from './testing/ways.ts';
import { everyStack } from '../stack/testing/stacks.ts';
import { openingOn, supervisor, technician, TestJob, withOtherSide } from './testing/work.ts';

const stands = (is: Partial<Record<LayerId, 'on' | 'open' | 'off'>>, position = '2L'): Command => ({
  kind: 'as-it-stands',
  position,
  layers: Object.entries(is).map(([layer, place]) => ({ layer: layer as LayerId, is: place })),
  who: 'A tyre shop in Fellside',
  reason: 'The driver had a puncture on the way here',
});

describe('as it stands', () => {
  it('a wheel that a tyre shop put on: nuts torqued here, the rest on their word, named in the release', () => {
    const t = new TestJob(openingOn(['2L'], 'a-drive-tang', ['check']));
    t.do(stands({ wheel: 'on' }), supervisor);
    t.workTo('2L');
    expect(ids(t, '2L')).toContain('wheel-nuts');
    expect(ids(t, '2L')).not.toContain('wheel-drawn');
    expect(codes(t, '2L')).toEqual(['by-others']);
    const [objection] = againstRelease(t.at('2L'));
    expect(describeObjection(t.at('2L'), objection!, null)).toBe(
      'Wheel: put on by A tyre shop in Fellside. What is under it was not seen in this shop',
    );
    expect(t.try(release('2L'), supervisor)).toMatch(/put on by A tyre shop/);
    expect(t.try(release('2L', REASON), supervisor)).toBeNull();
    expect(t.at('2L').release).toMatchObject({
      overridden: [{ code: 'by-others', params: { layer: 'wheel' } }],
      followUp: { byDate: expect.any(String) as string },
      alsoDue: [{ kind: 'temporary' }],
    });
    expect(t.at('2L').side.others).toEqual({});
  });

  it('another workshop’s setting: lock seen, play in band and nuts torqued, each a record of its own', () => {
    const t = new TestJob(openingOn(['2L'], 'a-drive-tang', ['check']));
    t.do(stands({ hub: 'on' }), supervisor);
    expect(t.try(release('2L', REASON), supervisor)).toMatch(/cannot be released/);
    t.workTo('2L', 'end-play');
    expect(ids(t, '2L')).toEqual(expect.arrayContaining(['lock-seen', 'end-play', 'wheel-nuts']));
    expect(ids(t, '2L')).not.toContain('hub-on');
    for (const id of ['jam-nut', 'seat-2']) expect(ids(t, '2L')).not.toContain(id);
    t.readings('2L', 0.009, 0.009, 0.009);
    expect(codes(t, '2L')).toContain('loose');
    expect(t.try(release('2L', REASON), supervisor)).toMatch(/cannot be released/);
  });

  it('where the setting is in band, a supervisor takes the rest on their word', () => {
    const t = new TestJob(openingOn(['2L'], 'a-drive-tang', ['check']));
    t.do(stands({ hub: 'on' }), supervisor);
    t.workTo('2L');
    expect(new Set(codes(t, '2L'))).toEqual(new Set(['by-others']));
    expect(t.try(release('2L', REASON), supervisor)).toBeNull();
  });

  it('a technician says what is off, and nobody but a supervisor what others put on', () => {
    const t = new TestJob(openingOn(['2L'], 'a-drive-tang', ['check']));
    expect(t.try(stands({ wheel: 'on' }), technician)).toMatch(/A supervisor says/);
    expect(t.try(stands({ hub: 'off' }), technician)).toBeNull();
    expect(layerStates(t.at('2L'))).toMatchObject({ wheel: 'off', cap: 'off', nut: 'off', hub: 'off' });
    expect(t.try(release('2L', REASON), supervisor)).toMatch(/cannot be released/);
    t.workTo('2L');
    expect(t.try(release('2L'), supervisor)).toBeNull();
  });

  it.each(everyStack.map((built) => [built.name, built] as const))(
    '%s, put together by others: seen, measured and torqued from outside, then released by name',
    (_name, { sheetId, stack }) => {
      const opening = openingOn(['1L'], sheetId, ['check']);
      const [w] = opening.wheelEnds;
      const wheelEnds = [{ ...w!, route: { ...w!.route!, stack: [...stack] } }];
      const t = new TestJob(withOtherSide({ ...opening, wheelEnds }));
      const all = Object.fromEntries(stack.map((l) => [l.layer, 'on' as const]));
      t.do(stands(all, '1L'), supervisor);
      expect(codes(t, '1L').filter((code) => code === 'by-others')).toHaveLength(stack.length);
      expect(t.try(release('1L', REASON), supervisor)).toMatch(/cannot be released/);
      t.workTo('1L');
      // Screws and bolts that only a layer off lets a wrench reach take it off: then it is this shop's own work.
      expect(codes(t, '1L').filter((code) => code !== 'by-others')).toEqual([]);
      expect(t.try(release('1L', REASON), supervisor)).toBeNull();
    },
  );

  it('what cannot be is refused: a wheel on a hub that is off, a wheel half off, a layer that is not there', () => {
    const t = new TestJob(openingOn(['2L'], 'a-drive-tang', ['check']));
    expect(t.try(stands({ wheel: 'on', hub: 'off' }), supervisor)).toMatch(/Wheel cannot be on while/);
    expect(t.try(stands({ wheel: 'open' }), supervisor)).toBe('Wheel is on or off');
    expect(t.try(stands({ knuckle: 'off' }), supervisor)).toMatch(/^2L has no/);
    t.do(stands({ hub: 'off' }));
    expect(t.try(stands({ wheel: 'on' }), supervisor)).toMatch(/Wheel cannot be on while/);
    expect(
      t.try(stands({ wheel: 'on', nut: 'on', hub: 'on', cap: 'on', 'brake-outer': 'on' }), supervisor),
    ).toBeNull();
  });

  it('readings and a lock from before do not count for what others set', () => {
    const t = new TestJob(openingOn(['2L'], 'a-drive-tang', ['adjust']));
    t.workTo('2L', 'wheel-nuts');
    t.do(stands({ nut: 'on' }), supervisor);
    expect(codes(t, '2L')).toContain('not-measured');
    t.workTo('2L');
    // Its work was to adjust: a setting of others is no work of this shop.
    expect(t.try(release('2L', REASON), supervisor)).toBeNull();
  });

  it('a layer that is taken off here is this shop’s again', () => {
    const t = new TestJob(openingOn(['2L'], 'a-drive-tang', ['seal']));
    t.do(stands({ hub: 'on' }), supervisor);
    t.workTo('2L');
    expect(codes(t, '2L')).toEqual([]);
    expect(t.at('2L').side.others).toEqual({});
    expect(t.try(release('2L'), supervisor)).toBeNull();
  });

  it('is told in a sentence, and only a supervisor strikes it out', () => {
    const t = new TestJob(openingOn(['2L'], 'a-drive-tang', ['check']));
    t.do(stands({ nut: 'open' }));
    const event = t.job.events.at(-1)!;
    expect(describeEvent(t.job, event, null)).toBe(
      '2L, as it stands: bearing nut open, by A tyre shop in Fellside. The driver had a puncture on the way here',
    );
    const strike: Command = {
      kind: 'correction',
      corrects: event.id,
      reason: 'Other unit',
      replacement: null,
    };
    expect(t.try(strike, technician)).toMatch(/A supervisor strikes/);
    expect(t.try(strike, supervisor)).toBeNull();
    expect(layerStates(t.at('2L'))).toMatchObject({ nut: 'untouched' });
  });
});

describe('a nut that others put on', () => {
  it('after it was set here is another setting: what was measured before is of none', () => {
    const t = new TestJob(openingOn(['2L'], 'd-towed', ['adjust']));
    t.workTo('2L', 'lock');
    expect(t.at('2L').rounds).toHaveLength(1);
    const layers = [{ layer: 'nut' as const, is: 'on' as const }];
    const said = {
      kind: 'as-it-stands',
      position: '2L',
      who: 'Fellside Tyres',
      reason: 'They drew it up',
    } as const;
    t.do({ ...said, layers }, supervisor);
    expect(t.at('2L').rounds).toHaveLength(2);
  });
});

describe('a measurement', () => {
  it('is left out by nobody, but for a pinned nut between two places', () => {
    const t = new TestJob(openingOn(['2L'], 'd-towed', ['adjust']));
    t.workTo('2L', 'end-play');
    expect(t.skip('2L')).toMatch(/cannot be skipped/);
    t.readings('2L', 0, 0, 0);
    expect(t.skip('2L')).toMatch(/cannot be skipped/);
  });
});
