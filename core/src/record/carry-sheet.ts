import { sheetSchema, type Sheet } from '../procedure/index.ts';
import { sameJson } from './canonical.ts';

const keys = Object.keys(sheetSchema.shape) as (keyof Sheet)[];
/** What names the sheet, not what it says. */
const names: ReadonlySet<keyof Sheet> = new Set(['sheetId', 'revision']);

/**
 * What an axle's sheet says otherwise than the revision it was taken from: figures of its own, as those of its maker.
 * @returns fields of the sheet
 */
export const ownFigures = (onAxle: Sheet, from: Sheet): (keyof Sheet)[] =>
  keys.filter((key) => !names.has(key) && !sameJson(onAxle[key] ?? null, from[key] ?? null));

/** An axle's sheet carried over to a later revision: what it says of its own stays, all else is as it is now. */
export function carriedOver(onAxle: Sheet, from: Sheet, to: Sheet): Sheet {
  const own = ownFigures(onAxle, from).map((key) => [key, onAxle[key]]);
  return { ...to, ...(Object.fromEntries(own) as Partial<Sheet>) };
}
