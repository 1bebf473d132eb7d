import { backOffLeavesMm, bandInMm, type Sheet } from '../procedure/index.ts';
import { routeOf } from '../route/index.ts';
import { layerOf, reachOf, worksOf, type LayerId, type Stack, type Work } from '../stack/index.ts';
import { noRoute, type RouteRefusal } from './route-refusal.ts';

/**
 * Why a wheel end cannot be worked on as it is built and wanted, or null: a work it has no part for, or a figure its
 * steps ask for that the sheet does not have and the maker's sheet is not asked for.
 */
export function whyNoRoute(
  sheet: Sheet,
  wanted: { stack: Stack; works: readonly Work[]; alreadyOff: readonly LayerId[]; together: boolean },
): RouteRefusal | null {
  const { stack, alreadyOff, together } = wanted;
  const odd = wanted.works.find((work) => !worksOf(stack).includes(work));
  if (odd) return noRoute('work-without-part', { work: odd });
  const hub = layerOf(stack, 'hub');
  if (hub && hub.fill !== sheet.lubricant.kind)
    return noRoute('fill-disagrees', { fill: hub.fill, lubricant: sheet.lubricant.name });
  const rotor = layerOf(stack, 'brake-outer')?.kind === 'disc' || layerOf(stack, 'hub')?.carries === 'rotor';
  if (together && rotor) return noRoute('together-needs-drum');
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
  const of = { sheet: sheet.title };
  for (const act of acts) {
    // A step of one school only is held against the maker's figure where the sheet has none.
    if (act.kind === 'torque' && !act.makers && !act.when && !sheet[act.figure])
      return noRoute('sheet-lacks-figure', { ...of, title: act.title });
    if (act.kind === 'turn' && act.turns === 'back-off' && !sheet.backOff)
      return noRoute('sheet-lacks-back-off', of);
    if (act.kind === 'turn' && act.turns === 'back-off' && isTooSmall(sheet))
      return noRoute('back-off-too-small', of);
    if (act.kind === 'turn' && (!sheet.thread || !sheet.lock)) return noRoute('sheet-lacks-thread', of);
    if (act.kind === 'measure' && act.stage === 'verify' && sheet.verifyBy === 'dial' && !sheet.band)
      return noRoute('sheet-lacks-band', of);
  }
  return null;
}

/** Whether the last back-off cannot leave even the least end play of the band. */
function isTooSmall(sheet: Sheet): boolean {
  const leaves = backOffLeavesMm(sheet);
  return leaves !== null && sheet.band !== null && leaves < bandInMm(sheet.band).minMm - 1e-9;
}

/** The work that reaches furthest of those every construction has one of. */
const furthest: readonly Work[] = ['seal', 'adjust', 'brakes', 'wheel-off', 'check'];

/**
 * Why a wheel end with this sheet cannot be worked on yet, or null.
 * @param stack how it is built; null where neither its sheet nor its construction says
 */
export function whyNotWorkable(sheet: Sheet, stack: Stack | null): RouteRefusal | null {
  if (!stack) return noRoute('nobody-said-stack', { sheet: sheet.title });
  const work = furthest.find((w) => worksOf(stack).includes(w))!;
  return whyNoRoute(sheet, { stack, works: [work], alreadyOff: [], together: false });
}
