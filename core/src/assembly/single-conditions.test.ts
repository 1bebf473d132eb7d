import { expect, it } from 'vitest';
import { everyAct } from '../route/index.ts';
import { openingOn, TestJob } from '../traveller/testing/work.ts';
import { layerAt, mustBeOff, standingOf, unknownSide } from './index.ts';
import { cameOut } from './moves.ts';

/** A trailer axle with two nuts and a filled hub. */
const { side, sheet } = new TestJob(openingOn(['1L'], 'a-trailer', ['seal'])).at('1L');
const nothingKnown = unknownSide(side.stack);
const markOf = (seq: number) => ({
  seq,
  eventId: '7d0c5b0e-2a3f-4d5c-9b1e-0f2a3b4c5d01',
  jobId: '7d0c5b0e-2a3f-4d5c-9b1e-0f2a3b4c5d02',
  at: '2026-06-01T08:00:00.000Z',
  by: 'D. Achterberg',
});

it('a nut whose lock was undone is off where its hub turns out to be off', () => {
  const built = { sheet, together: false };
  const opened = cameOut(nothingKnown, built, 'nut', 'open', markOf(1));
  expect(layerAt(opened, 'nut').is).toBe('open');
  const without = cameOut(opened, built, 'hub', 'off', markOf(2));
  expect(layerAt(without, 'nut')).toMatchObject({ is: 'off', moved: { seq: 2 }, own: false });
});

it('a cap goes on over a nut that is locked; what is looked at on a cap that is on needs no lock again', () => {
  const acts = [...everyAct(side.stack, sheet).values()];
  const { canRest } = standingOf(nothingKnown, acts, ['lock']);
  const act = (id: string) => acts.find((a) => a.id === id)!;
  expect(canRest(act('fill'))).toBe(false);
  expect(canRest(act('cap-square'))).toBe(true);
});

it('nothing has to be off for what is done before anything comes off, to lift it, or on a bare spindle', () => {
  const seal = [...everyAct(side.stack, sheet).values()].find((a) => a.id === 'seal')!;
  expect(mustBeOff(side.stack, seal, false)).not.toEqual([]);
  for (const phase of ['before', 'lift', 'bare'] as const)
    expect(mustBeOff(side.stack, { ...seal, phase }, false)).toEqual([]);
});
