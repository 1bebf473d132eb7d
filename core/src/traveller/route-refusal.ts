import { coded, type Coded } from '../refusal/index.ts';
import { works, type Work } from '../stack/index.ts';

interface OfSheet {
  /** The sheet's title, as its writer wrote it. */
  sheet: string;
}

/** Why a wheel end cannot be worked on as it is built and wanted, in words. */
const routeWords = {
  'work-without-part': ({ work }: { work: Work }) => `“${works[work]}” is not work for this wheel end`,
  'fill-disagrees': ({ fill, lubricant }: { fill: string; lubricant: string }) =>
    `Its stack says the hub runs in ${fill}, its sheet names ${lubricant}: settle it in the sheet`,
  'together-needs-drum': () => 'Wheel and hub come off in one only where a drum slides off its shoes',
  'sheet-lacks-figure': ({ sheet, title }: OfSheet & { title: string }) =>
    `The sheet “${sheet}” has no figure for “${title}”`,
  'sheet-lacks-back-off': ({ sheet }: OfSheet) => `The sheet “${sheet}” has no back-off`,
  'back-off-too-small': ({ sheet }: OfSheet) =>
    `The sheet “${sheet}” backs off less than the least end play of its band: one of them is wrong`,
  'sheet-lacks-thread': ({ sheet }: OfSheet) => `The sheet “${sheet}” names no thread and lock`,
  'sheet-lacks-band': ({ sheet }: OfSheet) => `The sheet “${sheet}” has no end-play band`,
  'nobody-said-stack': ({ sheet }: OfSheet) => `The construction of “${sheet}” is not set`,
} as const;

/** Why a wheel end cannot be worked on as it is built and wanted. */
export type RouteRefusal = Coded<typeof routeWords>;
export const noRoute = coded<typeof routeWords>();

/** The same in words. */
export function describeRouteRefusal({ code, params }: RouteRefusal): string {
  return (routeWords[code] as (params: unknown) => string)(params);
}
