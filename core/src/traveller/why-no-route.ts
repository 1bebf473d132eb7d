import type { Sheet } from '../procedure/index.ts';
import { routeOf } from '../route/index.ts';
import { layerOf, reachOf, works, worksOf, type LayerId, type Stack, type Work } from '../stack/index.ts';

/**
 * Why a wheel end cannot be worked on as it is built and wanted, or null: a work it has no part for, or a figure its
 * steps ask for that the sheet does not have and the maker's sheet is not asked for.
 */
export function whyNoRoute(
  sheet: Sheet,
  wanted: { stack: Stack; works: readonly Work[]; alreadyOff: readonly LayerId[]; together: boolean },
): string | null {
  const { stack, alreadyOff, together } = wanted;
  const odd = wanted.works.find((work) => !worksOf(stack).includes(work));
  if (odd) return `“${works[odd]}” is not work for this wheel end`;
  const hub = layerOf(stack, 'hub');
  if (hub && hub.fill !== sheet.lubricant.kind)
    return `Its stack says the hub runs in ${hub.fill}, its sheet names ${sheet.lubricant.name}: settle it in the sheet`;
  const rotor = layerOf(stack, 'brake-outer')?.kind === 'disc' || layerOf(stack, 'hub')?.carries === 'rotor';
  if (together && rotor) return 'Wheel and hub come off in one only where a drum slides off its shoes';
  const reach = reachOf(stack, wanted.works, alreadyOff, together);
  const acts = routeOf({
    stack,
    sheet,
    works: wanted.works,
    reach,
    alreadyOff,
    together,
    inTheAir: false,
    chosen: {},
    renewed: new Set(),
    adjust: { from: 'start', turns: null, wasLocked: false, secured: false, byOthers: false, brakeOn: false },
  });
  const lacks = (what: string) => `The sheet “${sheet.title}” ${what}`;
  for (const act of acts) {
    // A step of one school only is held against the maker's figure where the sheet has none.
    if (act.kind === 'torque' && !act.makers && !act.when && !sheet[act.figure])
      return lacks(`has no figure for “${act.title}”`);
    if (act.kind === 'turn' && act.turns === 'back-off' && !sheet.backOff) return lacks('has no back-off');
    if (act.kind === 'turn' && (!sheet.thread || !sheet.lock)) return lacks('names no thread and lock');
    if (act.kind === 'measure' && act.stage === 'verify' && sheet.verifyBy === 'dial' && !sheet.band)
      return lacks('has no end-play band');
  }
  return null;
}

/** The work that reaches furthest of those every construction has one of. */
const furthest: readonly Work[] = ['seal', 'adjust', 'brakes', 'wheel-off', 'check'];

/**
 * Why a wheel end with this sheet cannot be worked on yet, or null.
 * @param stack how it is built; null where neither its sheet nor its construction says
 */
export function whyNotWorkable(sheet: Sheet, stack: Stack | null): string | null {
  if (!stack) return `Nobody has said how “${sheet.title}” is built`;
  const work = furthest.find((w) => worksOf(stack).includes(w))!;
  return whyNoRoute(sheet, { stack, works: [work], alreadyOff: [], together: false });
}
