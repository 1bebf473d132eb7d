import {
  distanceUnitIn,
  guessColumns,
  holdsBoth,
  kindsIn,
  type ListAnswers,
} from '@lanternwright/core/fleet-list';
import { shopToday } from '../shell/words.ts';
import type { ListTable } from './list-file.ts';

const REMEMBERED = 'lanternwright.fleet-list';
type Remembered = Partial<Pick<ListAnswers, 'columns' | 'distanceUnit' | 'styles' | 'ownerAbove' | 'kinds'>>;

/** What was said of a list with this head before, on this device. */
function remembered(head: readonly string[]): Remembered {
  const all = JSON.parse(localStorage.getItem(REMEMBERED) ?? '{}') as Record<string, Remembered>;
  return all[head.join('\n')] ?? {};
}

export function remember(head: readonly string[], answers: ListAnswers): void {
  const { columns, distanceUnit, styles, ownerAbove, kinds } = answers;
  const said: Remembered = { columns, distanceUnit, styles, ownerAbove, kinds };
  localStorage.setItem(REMEMBERED, JSON.stringify({ [head.join('\n')]: said }));
}

/** What the columns of a list probably are, by their heads, and by cells that hold a number and a plate. */
function likelyColumns({ head, rows }: ListTable): ListAnswers['columns'] {
  const columns = guessColumns(head);
  const unit = columns.indexOf('unit');
  const both =
    unit >= 0 && !columns.includes('plate') && holdsBoth(rows.map(({ cells }) => cells[unit] ?? ''));
  return both ? columns.with(unit, 'unit-plate') : columns;
}

/** What a list probably says; nobody’s plan is guessed. */
export function firstAnswers(table: ListTable): ListAnswers {
  const before = remembered(table.head);
  const columns = before.columns ?? likelyColumns(table);
  const distance = columns.indexOf('distance');
  const answers: ListAnswers = {
    columns,
    distanceUnit: before.distanceUnit ?? (distance < 0 ? null : distanceUnitIn(table.head[distance] ?? '')),
    styles: before.styles ?? {},
    owner: '',
    ownerAbove: before.ownerAbove ?? null,
    kinds: {},
    plans: {},
    today: shopToday(),
  };
  const guesses = kindsIn(table.rows, answers).flatMap(({ words, guess }) => (guess ? [[words, guess]] : []));
  return { ...answers, kinds: { ...(Object.fromEntries(guesses) as ListAnswers['kinds']), ...before.kinds } };
}
