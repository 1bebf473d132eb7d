import { expect, it } from 'vitest';
import { familySheet, familySheets, type Sheet } from '../procedure/index.ts';
import { usualStack } from '../stack/index.ts';
import { describeRouteRefusal, whyNotWorkable } from './index.ts';

const why = (sheet: Sheet) => {
  const refusal = whyNotWorkable(
    sheet,
    sheet.stack ?? usualStack(sheet.procedureId, { role: 'drive', wheels: 'dual', brake: 'drum' }),
  );
  return refusal && describeRouteRefusal(refusal);
};

it.each(familySheets.map((s) => [s.sheetId, s] as const))('%s can be worked on', (_id, sheet) => {
  // The one-piece nut of other positions waits for the nut maker's back-off.
  expect(why(sheet) === null).toBe(sheet.sheetId !== 'b-other');
});

it('cannot be worked on while a figure is missing that no maker’s sheet is asked for', () => {
  const sheet: Sheet = { ...familySheet('a-trailer')!, jamTorque: null };
  expect(why(sheet)).toMatch(/no figure for “Jam nut”/);
  expect(why({ ...familySheet('a-trailer')!, band: null })).toMatch(/no end-play band/);
  expect(why({ ...familySheet('a-trailer')!, thread: null })).toMatch(/no thread and lock/);
  expect(why(familySheet('b-other')!)).toMatch(/no back-off/);
  // 1/180 of a turn of 12 threads to the inch is 0.0005 in, under the band's 0.001.
  const backOff = { ...sheet.backOff!, turns: -1 / 180 };
  expect(why({ ...familySheet('a-trailer')!, backOff })).toMatch(/less than the least end play/);
  expect(why({ ...familySheet('a-trailer')!, backOff: { ...backOff, turns: -1 / 80 } })).toBeNull();
  expect(why({ ...sheet, procedureId: null })).toMatch(/The construction of .* is not set/);
});
