import { describe, expect, it } from 'vitest';
import { usualReader } from '../quantity/index.ts';
import { quantity } from '../quantity/index.ts';
import {
  confirmFigure,
  familySheets,
  hasFigures,
  familySheet,
  openSchools,
  recalledFigures,
  sheetDifferences,
  describeLine,
  sheetLines,
  sheetSources,
  sheetSchema,
  type Sheet,
} from './index.ts';

const sheet = familySheet('a-steer-double')!;

describe('two revisions of a sheet', () => {
  it('differ in the lines that were changed, in words, and in nothing else', () => {
    const max = quantity(0.004, 'in');
    const band = { ...sheet.band!, max, mark: 'shop', source: 'Set by the shop' } as const;
    expect(sheetDifferences(sheet, { ...sheet, band, studs: null }, usualReader)).toEqual([
      {
        label: 'Band',
        before: '0.001 to 0.005 in. TMC RP 618',
        after: '0.001 to 0.004 in. Set by the shop',
      },
      {
        label: 'Wheel studs',
        before: '10. Usual for this wheel, recalled: confirm against the maker’s sheet',
        after: '',
      },
    ]);
    expect(sheetDifferences(sheet, { ...sheet, revision: 2 }, usualReader)).toEqual([]);
  });

  it('show a figure that came or went', () => {
    expect(sheetDifferences(sheet, { ...sheet, jamTorque: null }, usualReader)).toMatchObject([
      { label: 'Jam nut', after: '' },
    ]);
  });
});

describe('recalled figures', () => {
  it('are named until somebody confirms them', () => {
    const built = ['thread', 'lock', 'studs'];
    expect(recalledFigures(sheet)).toEqual([...built, 'backOff', 'hub', 'jamTorque', 'wheelTorque']);
    const confirmed = confirmFigure(sheet, 'jamTorque');
    expect(recalledFigures(confirmed)).toEqual([...built, 'backOff', 'hub', 'wheelTorque']);
    expect(sheetSchema.parse(confirmed).jamTorque).toMatchObject({ max: { value: 300 }, mark: 'shop' });
    expect(confirmFigure(sheet, 'drag')).toBe(sheet);
  });

  it('hold for what is not a range as well: a thread that nobody marked waits, and is confirmed', () => {
    const old = sheetSchema.parse({ ...sheet, marks: undefined });
    expect(recalledFigures(old).slice(0, 4)).toEqual(['thread', 'lock', 'studs', 'lubricant']);
    const line = (s: Sheet) => describeLine(sheetLines(s, usualReader).find((l) => l.label === 'Thread')!);
    expect(line(old)).toBe('14 per inch. Not marked: confirm against the maker’s sheet');
    const known = confirmFigure(old, 'thread');
    expect(line(known)).toBe('14 per inch. Confirmed against the maker’s sheet');
    expect(sheetSources(sheetLines(known, usualReader)).at(-1)).toBe(
      'Confirm against the maker’s sheet: locks in, jam nut, wheel nuts, back off, wheel studs, lubricant, hub takes.',
    );
    expect(recalledFigures(known)).not.toContain('thread');
    expect(recalledFigures({ ...old, thread: null, lock: null, studs: null })).not.toContain('thread');
  });
});

describe('what a shop does where practitioners differ', () => {
  it('stands on the sheet only where it asks for one of them, and is seen in a revision', () => {
    const open = { ...sheet, schools: openSchools };
    const asks = {
      ...open,
      schools: { ...openSchools, joint: 'gasket', lockCheck: 'second-person' },
    } as Sheet;
    const labels = (s: Sheet) => sheetLines(s, usualReader).map((l) => l.label);
    expect(labels(open)).not.toContain('Hub cap joint');
    expect(labels(asks)).toEqual(expect.arrayContaining(['Hub cap joint', 'Lock checked by']));
    expect(sheetDifferences(open, asks, usualReader)).toEqual([
      { label: 'Hub cap joint', before: '', after: 'Gasket' },
      { label: 'Lock checked by', before: '', after: 'A second person' },
    ]);
  });
});

it('a sheet without figures has none to be known', () => {
  const bare = familySheets.filter((s) => !hasFigures(s)).map((s) => s.sheetId);
  expect(bare).toContain('k-spindle-needle');
  expect(bare).not.toContain('a-drive-tang');
});
