import { formatPlay } from '../end-play/index.ts';
import { formatTurn } from '../nut/index.ts';
import type { ReaderUnits } from '../quantity/index.ts';
import { labelOf, formatNumber, unitOf } from './field-words.ts';

const MOST_FIGURES = 5;

interface NutSetting {
  options: { turns: number; predictedMm: number }[];
  best: number | null;
}

/** Results whose figures that matter stand in a list. */
const special: Record<string, (result: never, reader: ReaderUnits) => string> = {
  'nut-setting': ({ options, best }: NutSetting, reader) => {
    const go = best === null ? undefined : options[best];
    if (!go) return 'No lock position is in band';
    if (go.turns === 0) return `Leave the nut where it stands: ${formatPlay(go.predictedMm, reader.length)}`;
    return `${go.turns < 0 ? 'Back off' : 'Tighten'} ${formatTurn(go.turns)}: ${formatPlay(go.predictedMm, reader.length)}`;
  },
  'tightening-sequence': ({ passes }: { passes: { order: number[] }[] }) =>
    `${passes.length} passes, order ${passes[0]?.order.join(' ')}`,
  'seal-seat': ({ ranges, recommendedMm }: { ranges: unknown[]; recommendedMm: number | null }, reader) =>
    recommendedMm === null
      ? 'No depth keeps every lip on sound journal'
      : `Set it ${formatFigure('recommendedMm', recommendedMm, reader)} below the hub face, of ${ranges.length} clear range${ranges.length === 1 ? '' : 's'}`,
};

function formatFigure(name: string, value: unknown, reader: ReaderUnits): string {
  if (typeof value !== 'number') return String(value);
  const field = unitOf(name, reader);
  return [formatNumber(value, field), field?.label].filter(Boolean).join(' ');
}

/** The figures of a result that matter, in one line for a record. */
export function describeResult(name: string, result: Record<string, unknown>, reader: ReaderUnits): string {
  const own = special[name];
  if (own) return own(result as never, reader);
  const figures = Object.entries(result)
    .filter(([, v]) => v !== null && typeof v !== 'object')
    .slice(0, MOST_FIGURES)
    .map(([field, v]) => `${labelOf(field).toLowerCase()} ${formatFigure(field, v, reader)}`);
  return figures.join(', ') || `${Object.keys(result).length} lists of figures`;
}
