import type { PlacedAxle, UnitKind } from '../axle-plan/index.ts';
import { intervalFigureSchema, type IntervalFigure } from '../procedure/index.ts';
import { quantity } from '../quantity/index.ts';

const usual = (
  figure: Omit<IntervalFigure, 'mark' | 'source' | 'hours' | 'distance'> & Partial<IntervalFigure>,
) =>
  intervalFigureSchema.parse({
    mark: 'common-practice',
    source: 'Common practice, no source: the maker’s own interval wins',
    ...figure,
  });

const towed: IntervalFigure[] = [usual({ work: 'repack', distance: quantity(12_000, 'mi'), months: 12 })];
const motorhomeFront: IntervalFigure[] = [
  usual({ work: 'repack', distance: quantity(100_000, 'km'), months: 48 }),
];
const crawler: IntervalFigure[] = [usual({ work: 'seal', months: 12 })];

/**
 * How often each work is wanted on an axle: as its sheet says, else what is usual for such a unit. None where nothing is
 * usual: whoever knows the maker's interval writes it into the sheet.
 */
export function intervalsOf(
  { role, sheet }: Pick<PlacedAxle, 'role' | 'sheet'>,
  kind: UnitKind,
): readonly IntervalFigure[] {
  if (sheet.intervals) return sheet.intervals;
  if (kind === 'crawler') return crawler;
  if (kind === 'motorhome' && role === 'steer') return motorhomeFront;
  return kind === 'caravan' && sheet.lubricant.kind === 'grease' ? towed : [];
}
