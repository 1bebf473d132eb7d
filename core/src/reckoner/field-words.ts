import { convert, unitDefinition, units, type ReaderUnits, type Unit } from '../quantity/index.ts';

/** How a field whose name carries its unit is shown: label, and factor from the stored figure to the shown one. */
export interface FieldUnit {
  label: string;
  factor: number;
  /** Digits after the point that make sense; six figures in all where not named. */
  digits?: number;
}

const metric: Record<string, FieldUnit> = {
  Mm: { label: 'mm', factor: 1, digits: 4 },
  Nm: { label: 'N·m', factor: 1, digits: 1 },
  Km: { label: 'km', factor: 1, digits: 1 },
  Kmh: { label: 'km/h', factor: 1 },
  N: { label: 'N', factor: 1 },
  Deg: { label: '°', factor: 1 },
  Ml: { label: 'mL', factor: 1 },
  G: { label: 'g', factor: 1 },
  Kg: { label: 'kg', factor: 1 },
  Min: { label: 'min', factor: 1 },
  Percent: { label: '%', factor: 1 },
  Mrev: { label: 'million turns', factor: 1 },
};

/** What they are for a reader who wants another unit of that quantity. */
const others: Partial<Record<ReaderUnits[keyof ReaderUnits], Record<string, FieldUnit>>> = {
  in: { Mm: { label: 'in', factor: convert(1, 'mm', 'in'), digits: 5 } },
  'lbf-ft': { Nm: { label: 'lbf·ft', factor: convert(1, 'Nm', 'lbf-ft'), digits: 1 } },
  mi: {
    Km: { label: 'mi', factor: convert(1, 'km', 'mi'), digits: 1 },
    Kmh: { label: 'mph', factor: convert(1, 'km', 'mi') },
  },
};

const suffixes = Object.keys(metric).sort((a, b) => b.length - a.length);

function suffixOf(name: string): string | undefined {
  return suffixes.find(
    (s) => name.endsWith(s) && name.length > s.length && /[a-z0-9]/.test(name.at(-s.length - 1)!),
  );
}

/** Unit of a field for a reader, or null where its name carries none. */
export function unitOf(name: string, reader: ReaderUnits): FieldUnit | null {
  const suffix = suffixOf(name);
  if (!suffix) return null;
  const [other] = Object.values(reader).flatMap((choice) => others[choice]?.[suffix] ?? []);
  return other ?? metric[suffix]!;
}

/** Fields whose names do not say by themselves what a person puts there. */
const own: Readonly<Record<string, string>> = {
  id: 'Name or number',
  a: 'Bearing A',
  b: 'Bearing B',
  x: 'Along',
  y: 'Value',
  on: 'Charged on',
  rateMinor: 'Rate an hour, in cents',
  unitMinor: 'Price of one, in cents',
  densityGPerMl: 'Density, g/mL',
  rule: 'Judged',
  goal: 'Plan for',
  stays: 'Stays where it is',
  tries: 'How often to try',
  seed: 'Seed of the random choices',
  offset: 'Lip, from the seal’s face',
  ratio: 'Ratio of the multiplier',
  points: 'Readings',
  pullN: 'Steady pull on the cord',
  places: 'Places along the journal',
  diametersMm: 'Diameters, 12 to 6 first',
  fit: 'Limits of the journal',
  currentMm: 'Shims that are in now',
  thickerMeans: 'A thicker stack makes it',
  mostShims: 'Most shims in a stack',
  stroke: 'Stroke of the chamber',
  chamber: 'Chamber, square inches',
  markedStrokeMm: 'Stroke marked on a chamber that is not listed',
  pinMm: 'Kingpin',
  upperMm: 'Upper bush',
  lowerMm: 'Lower bush',
  bushSpanMm: 'Between the middles of the bushes',
  tipRadiusMm: 'Indicator, from the middle between the bushes',
  verticalMm: 'Vertical play',
  vertical: 'Vertical play asked for',
  clearance: 'Clearance asked for',
  discardMm: 'Discard figure cast into it',
  soonDays: 'Soon means within, days',
  measurements: 'Readings of the study',
  entry: 'Known only from',
  cause: 'What ended it',
  stratum: 'Compared within',
  estimate: 'Slope',
  slopes: 'Slopes, each with its standard error',
};

/** Choices in words of the trade, by what they are called in a calculation. */
const choices: Readonly<Record<string, string>> = {
  castellated: 'Castellated nut, cotter or pin through a slot',
  indexed: 'Places at equal angles: tang, dowel or lock ring',
  stepless: 'At any angle: pinch bolt or staked nut',
  simple: 'By the mean of the cycles',
  guarded: 'With the gauge’s own uncertainty kept off the band',
  'weighted-lateness': 'as little lateness as can be, by weight',
  'greatest-lateness': 'nobody very late',
  'number-late': 'as few late as can be',
};

/** A choice as a person reads it. */
export function choiceWords(value: unknown): string {
  const name = String(value);
  return choices[name] ?? (name in units ? unitDefinition(name as Unit).label : labelOf(name));
}

/** "journalDiameterMm" as "Journal diameter". */
export function labelOf(name: string): string {
  if (own[name]) return own[name];
  const suffix = suffixOf(name);
  const bare = suffix ? name.slice(0, -suffix.length) : name;
  const words = bare.replace(/([a-z0-9])([A-Z])/g, '$1 $2').toLowerCase();
  return words.charAt(0).toUpperCase() + words.slice(1);
}

/** A figure as it is shown, without trailing zeros. */
export function formatNumber(value: number, unit: FieldUnit | null): string {
  const shown = value * (unit?.factor ?? 1);
  if (Number.isInteger(shown) && Math.abs(shown) < 1e12) return String(shown);
  return String(Number(unit?.digits === undefined ? shown.toPrecision(6) : shown.toFixed(unit.digits)));
}
