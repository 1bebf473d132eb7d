import { sayLayer } from '../stack/index.ts';
import { needsConfirming, sheetLines, torques } from './say-sheet.ts';
import type { Sheet } from './sheet.ts';

/** One line in which two revisions of a sheet differ. Empty where the other has none. */
export interface SheetDifference {
  label: string;
  before: string;
  after: string;
}

const verifiedBy: Record<Sheet['verifyBy'], string> = {
  dial: 'the dial',
  'dial-or-feel': 'the dial, or no movement felt',
  drag: 'its drag',
  none: 'nothing to measure',
};

function linesOf(sheet: Sheet): Map<string, string> {
  const lines = sheetLines(sheet, 'in').map(({ label, value, source }): [string, string] => [
    label,
    source ? `${value}. ${source}` : value,
  ]);
  return new Map([
    ['Title', sheet.title],
    ['Procedure', sheet.procedureId ?? 'none'],
    ['Verified by', verifiedBy[sheet.verifyBy]],
    ['Wheel studs', sheet.studs === null ? 'not named' : String(sheet.studs)],
    ['Stack', sheet.stack ? sheet.stack.map(sayLayer).join(', ') : 'as this construction usually has it'],
    ...lines,
  ]);
}

/** What a later revision of a sheet says otherwise than an earlier one, line by line. */
export function sheetDifferences(before: Sheet, after: Sheet): SheetDifference[] {
  const [old, now] = [linesOf(before), linesOf(after)];
  return [...new Set([...old.keys(), ...now.keys()])]
    .map((label) => ({ label, before: old.get(label) ?? '', after: now.get(label) ?? '' }))
    .filter((line) => line.before !== line.after);
}

const figureKeys = [
  'band',
  'backOff',
  'drag',
  'swivelPull',
  'shaftMovement',
  'hub',
  'retorque',
  ...torques.map(([key]) => key),
] as const;
type FigureKey = (typeof figureKeys)[number];

/** Figures of a sheet that are recalled and wait to be confirmed against the maker's sheet. */
export function recalledFigures(sheet: Sheet): FigureKey[] {
  return figureKeys.filter((key) => {
    const figure = sheet[key];
    return figure ? needsConfirming(figure.mark) : false;
  });
}

/** The sheet with one recalled figure confirmed by the shop against the maker's sheet. */
export function confirmFigure(sheet: Sheet, key: FigureKey): Sheet {
  const figure = sheet[key];
  if (!figure) return sheet;
  return { ...sheet, [key]: { ...figure, mark: 'shop', source: 'Confirmed against the maker’s sheet' } };
}
