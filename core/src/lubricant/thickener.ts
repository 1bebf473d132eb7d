/** What thickens a grease, each with the words by which its name or label says so: the longer ones first. */
const kinds = [
  ['aluminium-complex', 'aluminium complex', /alumin(i)?um\s+complex/i],
  ['barium-complex', 'barium complex', /barium/i],
  ['calcium-sulfonate', 'calcium sulfonate', /calcium\s+sul(f|ph)onate/i],
  ['calcium-complex', 'calcium complex', /calcium\s+complex/i],
  ['calcium-hydroxystearate', 'calcium 12-hydroxystearate', /calcium\s+12|anhydrous\s+calcium/i],
  ['calcium', 'calcium', /calcium/i],
  ['clay', 'clay (bentonite)', /clay|benton/i],
  ['lithium-complex', 'lithium complex', /lithium\s+complex/i],
  ['lithium', 'lithium', /lithium/i],
  ['polyurea-stable', 'polyurea, shear stable', /shear[\s-]stable\s+polyurea|polyurea,?\s+shear[\s-]stable/i],
  ['polyurea', 'polyurea', /polyurea/i],
] as const;
export type Thickener = (typeof kinds)[number][0];
export const thickeners = Object.fromEntries(kinds.map(([id, title]) => [id, title])) as Record<
  Thickener,
  string
>;
export const thickenerIds = kinds.map(([id]) => id) as [Thickener, ...Thickener[]];

/** What thickens a grease, as its name says it: "Lithium complex NLGI 2" is lithium complex. Null where it does not. */
export const thickenerIn = (name: string): Thickener | null =>
  kinds.find(([, , words]) => words.test(name))?.[0] ?? null;

/** How two greases take each other. */
export type Agreement = 'same' | 'agree' | 'doubtful' | 'disagree';

const columns: readonly Thickener[] = [
  ...([
    'aluminium-complex',
    'barium-complex',
    'calcium',
    'calcium-hydroxystearate',
    'calcium-complex',
  ] as const),
  ...(['calcium-sulfonate', 'clay', 'lithium', 'lithium-complex', 'polyurea', 'polyurea-stable'] as const),
];
/** Each with those that stand after it: + agree, ? doubtful, - disagree. */
const chart = ['--+-?--+-+', '-+-+----?', '+--++?-+', '??+++-+', '---+++', '-?+-+', '---?', '+-+', '-+', '+'];
const signs: Record<string, Agreement> = { '+': 'agree', '?': 'doubtful', '-': 'disagree' };

/**
 * Whether two thickeners may meet in one bearing.
 * @source value from memory: the chart of thickeners that makers of bearings and greases print. Charts differ in their
 * doubtful places, oils and additives are in none of them: the makers of both greases decide.
 */
export function agreementOf(a: Thickener, b: Thickener): Agreement {
  if (a === b) return 'same';
  const [first, second] = [columns.indexOf(a), columns.indexOf(b)].sort((x, y) => x - y) as [number, number];
  return signs[chart[first]![second - first - 1]!]!;
}

/** A grease by its name, with what thickens it where that is known from somewhere else than the name. */
export interface NamedGrease {
  name: string;
  thickener?: Thickener | null;
}

export interface GreaseChange {
  agreement: Agreement | 'unknown';
  /** What is to be known of the two, as a sentence. */
  finding: string;
  /** What to do, as a sentence. */
  advice: string;
}

/**
 * What it means that one grease follows another in a hub; null where they have one name. Whatever the chart says, the
 * old one comes out: it says how much a rest of it would do.
 * @source the chart of `agreementOf`; that thickeners are never mixed is common practice, no source
 */
export function greaseChange(before: NamedGrease, after: NamedGrease): GreaseChange | null {
  if (before.name.trim().toLowerCase() === after.name.trim().toLowerCase()) return null;
  const [a, b] = [before, after].map((g) => g.thickener ?? thickenerIn(g.name)) as [
    Thickener | null,
    Thickener | null,
  ];
  if (!a || !b) {
    const strange = [...(a ? [] : [before.name]), ...(b ? [] : [after.name])].join(' and ');
    return {
      agreement: 'unknown',
      finding: `What thickens ${strange} is not known here.`,
      advice: 'Read the label. Until it is known they are taken to disagree: the old one comes out wholly.',
    };
  }
  const pair = `${capital(thickeners[a])} and ${thickeners[b]}`;
  switch (agreementOf(a, b)) {
    case 'same':
      return {
        agreement: 'same',
        finding: `Both are thickened with ${thickeners[a]}.`,
        advice: 'Their oils and additives may still not agree: the old one comes out.',
      };
    case 'agree':
      return {
        agreement: 'agree',
        finding: `${pair} mostly take each other.`,
        advice: 'All the same the old one comes out; ask the makers before a rest of it stays.',
      };
    case 'doubtful':
      return {
        agreement: 'doubtful',
        finding: `Whether ${pair.charAt(0).toLowerCase()}${pair.slice(1)} take each other is in doubt.`,
        advice: 'The old one comes out wholly: bearings, cavity, cap and seal lip washed and dry.',
      };
    case 'disagree':
      return {
        agreement: 'disagree',
        finding: `${pair} do not take each other: mixed they soften, run out and leave the bearing dry.`,
        advice:
          'Every trace comes out: bearings, cavity, cap and seal lip washed and dry, or the old kind goes in again.',
      };
  }
}
const capital = (text: string) => text.charAt(0).toUpperCase() + text.slice(1);
