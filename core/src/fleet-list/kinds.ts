import { layouts, layoutsFor, type Layout, type UnitKind } from '../axle-plan/index.ts';

/** Words by which people tell the kinds: of several that fit, the first. */
const kindWords: readonly [UnitKind, RegExp][] = [
  [
    'semi-trailer',
    /semi-?\s?trailer|artic trailer|reefer|curtain-?\s?sid|skeletal|tri-?axle trailer|walking floor/,
  ],
  ['flatbed', /flat-?\s?bed|drawbar|dolly|low-?\s?loader|lowboy|plant trailer/],
  ['caravan', /caravan|fifth[- ]wheel|travel trailer|towable/],
  ['motorhome', /motor-?\s?home|camper|\brv\b|class [abc]\b/],
  ['farm-tractor', /farm|agri|field tractor|row crop/],
  ['crawler', /crawler|tracked|\bdozer\b/],
  [
    'work-machine',
    /machine|loader|excavator|digger|backhoe|telehandler|grader|crane|fork-?\s?lift|dumper|roller/,
  ],
  ['implement', /implement|baler|sprayer|spreader|seeder|plough|slurry|grain cart|hay wagon/],
  ['bus', /\bbus\b|coach|shuttle/],
  ['van', /\bvan\b|pick-?\s?up|light truck|panel/],
  ['tractor', /tractor|prime mover|\bartic\b|day cab|sleeper/],
  ['semi-trailer', /\btrailer\b|\bsemi\b/],
  [
    'rigid',
    /rigid|lorry|straight truck|tipper|dump truck|box truck|tanker|recovery|wrecker|refuse|\btruck\b/,
  ],
];

/** The kind that some words tell; null where they tell none. @source common practice, no source */
export function kindIn(words: string): UnitKind | null {
  const said = words.toLowerCase();
  return kindWords.find(([, pattern]) => pattern.test(said))?.[0] ?? null;
}

const MOST_AXLES = 9;

/** Kinds whose “tandem” is all of their axles; of a truck it is those that drive. */
const towed: ReadonlySet<UnitKind> = new Set<UnitKind>(['semi-trailer', 'flatbed', 'caravan', 'implement']);
const countWords: readonly [RegExp, number][] = [
  [/\b(single|one|mono)\b/, 1],
  [/\b(tandem|twin|two|double)\b/, 2],
  [/\b(tri(dem)?|triple|three)\b/, 3],
  [/\b(quad|four)\b/, 4],
];

/**
 * How many axles: `3`, `3 axles`, of what is towed `tri-axle`, or by its wheels and those driven, `6x4`. Null where it says
 * neither.
 * @source common practice, no source
 */
export function axlesIn(text: string, kind: UnitKind): number | null {
  const said = text.trim().toLowerCase();
  const byWheels = /^(\d{1,2})\s*[x×*/]\s*\d{1,2}\b/.exec(said);
  const byFigure = /^(\d)\s*(?:-?\s*(?:axles?|axl|ax)\.?)?$/.exec(said)?.[1];
  const count = byWheels
    ? Number(byWheels[1]) / 2
    : byFigure
      ? Number(byFigure)
      : towed.has(kind)
        ? countWords.find(([word]) => word.test(said))?.[1]
        : undefined;
  return count !== undefined && Number.isInteger(count) && count >= 1 && count <= MOST_AXLES ? count : null;
}

const isUsual = (plan: Layout) => layouts.includes(plan);

/** A usual plan with its last axle as often as it takes, or without its last ones. */
function stretched(plan: Layout, axles: number): Layout {
  const last = plan.axles.at(-1)!;
  return {
    ...plan,
    id: `${plan.id}-as-${axles}`,
    title: `As “${plan.title}”, with ${axles} ${axles === 1 ? 'axle' : 'axles'}`,
    axles: Array.from({ length: axles }, (_, i) => plan.axles[i] ?? last),
  };
}

/** The same with a tag axle at its end, for what is driven. */
const TAG = layouts.find((l) => l.id === 'motorhome-3')!.axles[2]!;

function likePlans(kind: UnitKind, axles: number): Layout[] {
  const bases = layoutsFor(kind);
  const nearest = Math.min(...bases.map((p) => Math.abs(p.axles.length - axles)));
  return bases
    .filter((p) => Math.abs(p.axles.length - axles) === nearest)
    .flatMap((plan) => {
      const like = stretched(plan, axles);
      const driven = plan.axles.at(-1)!.role === 'drive' && axles > plan.axles.length;
      const tagged = {
        ...like,
        id: `${like.id}-tag`,
        title: `${like.title}, the last a tag axle`,
        axles: [...like.axles.slice(0, -1), TAG],
      };
      return driven ? [like, tagged] : [like];
    });
}

/**
 * Plans that a kind with so many axles may have; any count where none is said. Where no usual plan has so many, those
 * that are like the nearest one: they are asked about, and never taken by themselves.
 */
export function plansFor(kind: UnitKind, axles: number | null): readonly Layout[] {
  const usual = layoutsFor(kind).filter((l) => axles === null || l.axles.length === axles);
  return axles === null || usual.length > 0 ? usual : likePlans(kind, axles);
}

/** The plan that goes without a question: the only one, and a usual one. */
export const onlyPlan = (plans: readonly Layout[]): Layout | null =>
  plans.length === 1 && isUsual(plans[0]!) ? plans[0]! : null;
