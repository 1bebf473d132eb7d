import { layoutsFor, type Layout, type UnitKind } from '../axle-plan/index.ts';

/** Words by which people tell the kinds: of several that fit, the first. */
const kindWords: readonly [UnitKind, RegExp][] = [
  ['semi-trailer', /semi-?\s?trailer|artic trailer|reefer|curtain-?\s?sid/],
  ['flatbed', /flat-?\s?bed|drawbar|dolly|low-?\s?loader/],
  ['caravan', /caravan|fifth[- ]wheel|travel trailer|towable/],
  ['motorhome', /motor-?\s?home|camper|\brv\b|class [abc]\b/],
  ['farm-tractor', /farm|agri|field tractor|row crop/],
  ['crawler', /crawler|tracked|\bdozer\b/],
  ['work-machine', /machine|loader|excavator|digger|telehandler|grader|crane|fork-?\s?lift|dumper/],
  ['implement', /implement|baler|sprayer|spreader|seeder|plough|slurry/],
  ['bus', /\bbus\b|coach|shuttle/],
  ['van', /\bvan\b|pick-?\s?up|light truck|panel/],
  ['tractor', /tractor|prime mover|\bartic\b|day cab|sleeper/],
  ['semi-trailer', /\btrailer\b|\bsemi\b/],
  ['rigid', /rigid|lorry|straight truck|tipper|tanker|recovery|\btruck\b/],
];

/** The kind that some words tell; null where they tell none. @source common practice, no source */
export function kindIn(words: string): UnitKind | null {
  const said = words.toLowerCase();
  return kindWords.find(([, pattern]) => pattern.test(said))?.[0] ?? null;
}

const MOST_AXLES = 9;

/** How many axles: `3`, `3 axles`, or by its wheels and those driven, `6x4`. Null where it says neither. */
export function axlesIn(text: string): number | null {
  const byWheels = /^\s*(\d{1,2})\s*[x×*/]\s*\d{1,2}\b/i.exec(text);
  const count = byWheels ? Number(byWheels[1]) / 2 : Number(/^\s*(\d)\s*(?:axles?)?\s*$/i.exec(text)?.[1]);
  return Number.isInteger(count) && count >= 1 && count <= MOST_AXLES ? count : null;
}

/** Plans that a kind with so many axles may have; any count where none is said. */
export function plansFor(kind: UnitKind, axles: number | null): readonly Layout[] {
  return layoutsFor(kind).filter((l) => axles === null || l.axles.length === axles);
}
