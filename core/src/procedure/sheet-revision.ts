import type { ReaderUnits } from '../quantity/index.ts';
import { describeLayer } from '../stack/index.ts';
import { markedSchema, type Marked } from './figure.ts';
import { markOf, needsConfirming, describeLine, sheetLines, torques } from './sheet-lines.ts';
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

function linesOf(sheet: Sheet, reader: ReaderUnits): Map<string, string> {
  const lines = sheetLines(sheet, reader).map((line): [string, string] => [line.label, describeLine(line)]);
  return new Map([
    ['Title', sheet.title],
    ['Procedure', sheet.procedureId ?? 'none'],
    ['Verified by', verifiedBy[sheet.verifyBy]],
    [
      'Stack',
      sheet.stack ? sheet.stack.map(describeLayer).join(', ') : 'as this construction usually has it',
    ],
    ...lines,
  ]);
}

/** What a later revision of a sheet says otherwise than an earlier one, line by line. */
export function sheetDifferences(before: Sheet, after: Sheet, reader: ReaderUnits): SheetDifference[] {
  const [old, now] = [linesOf(before, reader), linesOf(after, reader)];
  return [...new Set([...old.keys(), ...now.keys()])]
    .map((label) => ({ label, before: old.get(label) ?? '', after: now.get(label) ?? '' }))
    .filter((line) => line.before !== line.after);
}

const figureKeys = [
  'band',
  'backOff',
  'drag',
  'rollingNew',
  'rollingRunIn',
  'swivelPull',
  'shaftMovement',
  'hub',
  'retorque',
  'heat',
  ...torques.map(([key]) => key),
] as const;
type FigureKey = (typeof figureKeys)[number] | Marked;
const isMarked = (key: FigureKey): key is Marked => markedSchema.safeParse(key).success;

/** Whether a sheet holds any figure at all. */
export const hasFigures = (sheet: Sheet): boolean => figureKeys.some((key) => sheet[key] !== null);

/** What of a sheet is recalled, seen once or not marked at all and waits to be confirmed against the maker's sheet. */
export function recalledFigures(sheet: Sheet): FigureKey[] {
  return [...markedSchema.options, ...figureKeys].filter((key) => {
    if (sheet[key] === null) return false;
    const figure = isMarked(key) ? markOf(sheet, key) : sheet[key];
    return figure ? needsConfirming(figure.mark) : false;
  });
}

/** The sheet with one recalled figure confirmed by the shop against the maker's sheet. */
export function confirmFigure(sheet: Sheet, key: FigureKey): Sheet {
  const confirmed = { mark: 'shop', source: 'Confirmed against the maker’s sheet' } as const;
  if (isMarked(key)) return { ...sheet, marks: { ...sheet.marks, [key]: confirmed } };
  const figure = sheet[key];
  return figure ? { ...sheet, [key]: { ...figure, ...confirmed } } : sheet;
}
