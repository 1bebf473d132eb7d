import { readFigure } from './figure.ts';
import { quantity, type Quantity } from './quantity.ts';
import { unitCodes, unitDefinition, type Unit } from './units.ts';

export type Parsed =
  | { ok: true; quantity: Quantity }
  | {
      ok: false;
      message: string;
      /** What it could mean, where that is more than one thing. */
      either?: readonly [Quantity, Quantity];
    };

/** A figure, and what stands behind it: `1 11/16 in`, `3/16"`, `4½ thou`, `77 ft lbs`. */
const TYPED =
  /^([+\-\u2212\u2013]?[\d.,\u00bc-\u00be\u2150-\u215e](?:[\d\s.,/\u2044\-\u00bc-\u00be\u2150-\u215e]|['’](?=\d))*)(.*)$/u;
const LONGEST = 60;

/** Units in which a figure of thousands is as usual as one of a few: a point may part either. */
const inThousands: ReadonlySet<Unit> = new Set<Unit>([
  ...(['km', 'mi', 'h', 'Nm', 'lbf-ft', 'lbf-in', 'um', 'g', 'mL', 'N', 'lbf', 'kPa', 'psi'] as const),
  ...(['degC', 'degF'] as const),
]);

const isMeter = (unit: Unit) => unit === 'km' || unit === 'mi' || unit === 'h';

/**
 * Reads what a person types for a quantity: "0.004 in", "3/16 in", "1 11/16"", "4½ thou", "0,10 mm", "77 ft lbs",
 * "611,240 km", "1,050.50 km", "140 F". A separator before three digits that may be of decimals or of thousands is
 * refused with both; but meters are written with thousands by a comma here, and lengths of parts never need thousands
 * by a point.
 *
 * @param allowed units that make sense here
 * @param assumed unit of a bare number; without it a unit must be typed
 */
export function parseQuantity(text: string, allowed: readonly Unit[], assumed?: Unit): Parsed {
  const trimmed = text.trim();
  if (trimmed === '') return { ok: false, message: 'Type a figure' };
  const match = trimmed.length > LONGEST ? null : TYPED.exec(trimmed);
  if (!match) return { ok: false, message: `"${text}" is not a figure` };
  const [, figure = '', suffix = ''] = match;
  const unit = suffix.trim() === '' ? assumed : unitOf(suffix, allowed);
  if (!unit) {
    const list = allowed.map((u) => unitDefinition(u).label).join(', ');
    const said = suffix.trim();
    return { ok: false, message: said === '' ? `Add a unit: ${list}` : `"${said}" is not one of ${list}` };
  }
  const read = readFigure(figure.replace(/[\s-]+$/, ''));
  if (read === null) return { ok: false, message: `"${figure.trim()}" is not a figure` };
  const [decimals, thousands] = read;
  if (thousands === undefined) return { ok: true, quantity: quantity(decimals, unit) };
  if (figure.includes('.') && !inThousands.has(unit)) return { ok: true, quantity: quantity(decimals, unit) };
  if (figure.includes(',') && isMeter(unit)) return { ok: true, quantity: quantity(thousands, unit) };
  const { label } = unitDefinition(unit);
  return {
    ok: false,
    message: `"${trimmed}" could be ${decimals} ${label} or ${thousands} ${label}: type the one you mean`,
    either: [quantity(decimals, unit), quantity(thousands, unit)],
  };
}

/**
 * Figures that stand beside each other: a bare one has the unit of those that were typed with one. Where two were typed
 * with different units, or with another than stands on its field, it is refused: it could be meant in either.
 * @param assumed unit of bare figures where none has one
 * @param labelled whether the assumed unit stands on the fields
 */
export function parseTogether<K extends string>(
  texts: Readonly<Record<K, string>>,
  allowed: readonly Unit[],
  assumed: Unit,
  labelled: 'labelled' | 'unlabelled',
): Record<K, Parsed> {
  const keys = Object.keys(texts) as K[];
  const alone = keys.map((key) => parseQuantity(texts[key], allowed));
  const typed = [...new Set(alone.flatMap((read) => (read.ok ? [read.quantity.unit] : [])))];
  const [one = assumed] = typed;
  const unit = typed.length > 1 || (labelled === 'labelled' && one !== assumed) ? undefined : one;
  const reads = keys.map((key) => [key, parseQuantity(texts[key], allowed, unit)]);
  return Object.fromEntries(reads) as Record<K, Parsed>;
}

/** A unit as people write it: in any case, its parts joined by a hyphen, a point, a space or nothing. */
const spelled = (text: string) =>
  text
    .trim()
    .toLowerCase()
    .replace(/[\u201d\u2033]|''/gu, '"')
    .replace(/\.$/, '')
    .replace(/\s*[.·⋅*\-\s]\s*/gu, '-');

function unitOf(suffix: string, allowed: readonly Unit[]): Unit | undefined {
  const exact = unitCodes.find((u) => u === suffix.trim() && allowed.includes(u));
  return exact ?? allowed.find((u) => unitDefinition(u).spellings.includes(spelled(suffix)));
}
