import { readFileSync } from 'node:fs';
import { createRequire } from 'node:module';
import { dirname, join } from 'node:path';
import { create, type Font } from 'fontkit';

const require = createRequire(import.meta.url);

/**
 * Fonts that papers are set in, and behind them those for names in other scripts, tried in this order; with how heavy
 * their bold is.
 */
const bolds = {
  '@fontsource/archivo': 700,
  '@fontsource/noto-sans': 700,
  '@fontsource/noto-sans-arabic': 700,
  '@fontsource/noto-sans-hebrew': 700,
  '@fontsource/noto-sans-thai': 700,
  // Japanese, Korean, Chinese.
  '@fontsource/sawarabi-gothic': 400,
  '@fontsource/nanum-gothic': 700,
  '@fontsource/zcool-xiaowei': 400,
  '@fontsource/sometype-mono': 700,
} as const;
type Package = keyof typeof bolds;
const even = '@fontsource/sometype-mono';
const text = (Object.keys(bolds) as Package[]).filter((p) => p !== even);
const figures = [even, ...text] as const;

/** A file of a font: some characters of it. */
interface Piece {
  /** The name it has in a document. */
  family: string;
  package: Package;
  subset: string;
}

interface Typeface {
  folder: string;
  /** Files by the characters that are in them, as first and last code point. */
  ranges: readonly { from: number; to: number; subset: string }[];
}

const typefaces = new Map<Package, Typeface>();
function typeface(of: Package): Typeface {
  const known = typefaces.get(of);
  if (known) return known;
  const folder = dirname(require.resolve(`${of}/unicode.json`));
  const subsets = JSON.parse(readFileSync(join(folder, 'unicode.json'), 'utf8')) as Record<string, string>;
  const ranges = Object.entries(subsets).flatMap(([subset, list]) =>
    list.split(',').map((range) => {
      const [from = '', to = from] = range.replace('U+', '').split('-');
      return { from: parseInt(from, 16), to: parseInt(to, 16), subset: subset.replace(/[[\]]/g, '') };
    }),
  );
  const found = { folder, ranges };
  typefaces.set(of, found);
  return found;
}

function fileOf({ package: of, subset }: Piece, weight: number): string {
  const name = of.slice(of.indexOf('/') + 1);
  return join(typeface(of).folder, 'files', `${name}-${subset}-${weight}-normal.woff`);
}

const read = new Map<string, Buffer>();
/** A file of a font, read once. */
function bytesOf(file: string): Buffer {
  const known = read.get(file);
  if (known) return known;
  const bytes = readFileSync(file);
  read.set(file, bytes);
  return bytes;
}

const opened = new Map<string, Font>();
function openFont(piece: Piece): Font {
  const known = opened.get(piece.family);
  if (known) return known;
  const font = create(bytesOf(fileOf(piece, 400))) as Font;
  opened.set(piece.family, font);
  return font;
}

const has = (piece: Piece, character: string) =>
  openFont(piece).hasGlyphForCodePoint(character.codePointAt(0)!);

/** The file that has a character; null where none has. */
function pieceFor(character: string, order: readonly Package[]): Piece | null {
  const point = character.codePointAt(0)!;
  for (const of of order)
    for (const { from, to, subset } of typeface(of).ranges) {
      const piece = { family: `${of} ${subset}`, package: of, subset };
      if (point >= from && point <= to && has(piece, character)) return piece;
    }
  return null;
}

const used = new Map<string, Piece>();

/** Some characters of a text that stand in one file, and how that is called in a document. */
export interface Run {
  text: string;
  font: string;
}

const rightToLeft: ReadonlySet<Package> = new Set([
  '@fontsource/noto-sans-arabic',
  '@fontsource/noto-sans-hebrew',
]);

interface Set {
  text: string;
  piece: Piece;
}

/** Words of a script that is read from the right, one after another, in the order in which they stand on paper. */
function turned(runs: readonly Set[]): Set[] {
  const isTurned = (run: Set | undefined) => run !== undefined && rightToLeft.has(run.piece.package);
  const out: Set[] = [];
  for (let i = 0; i < runs.length;) {
    let end = i + 1;
    if (isTurned(runs[i]))
      while (isTurned(runs[end]) || (runs[end]?.text === ' ' && isTurned(runs[end + 1]))) end++;
    out.push(...runs.slice(i, end).reverse());
    i = end;
  }
  return out;
}

const unprintable = /[\p{Cc}\u200e\u200f\u202a-\u202e\u2066-\u2069]/gu;

/**
 * A text as it is set: each run in the font that has its characters. What no font here has is set as a question mark.
 * @param as figures stand in a type of even width
 */
export function runsOf(words: string, as: 'text' | 'figures' = 'text'): Run[] {
  const order = as === 'text' ? text : figures;
  const runs: Set[] = [];
  for (const character of words.normalize('NFC').replace(unprintable, ' ')) {
    const last = runs.at(-1);
    // A mark over a letter stays with it, whichever other font has it as well.
    const stays = last && last.piece.package !== order[0] && character !== ' ' && has(last.piece, character);
    const found = stays ? last.piece : pieceFor(character, order);
    const piece = found ?? pieceFor('?', order)!;
    const shown = found ? character : '?';
    if (last?.piece.family === piece.family) last.text += shown;
    else runs.push({ text: shown, piece });
  }
  return turned(runs).map(({ text: run, piece }) => {
    used.set(piece.family, piece);
    return { text: run, font: piece.family };
  });
}

/** Fonts as a document takes them: what each is called in its two weights, and their files by those names. */
export interface FontsInUse {
  names: Record<string, { normal: string; bold: string }>;
  files: ReadonlyMap<string, Buffer>;
}

/** Every font that a run has named so far. */
export function fontsInUse(): FontsInUse {
  const names: FontsInUse['names'] = {};
  const files = new Map<string, Buffer>();
  for (const [family, piece] of used) {
    names[family] = { normal: fileOf(piece, 400), bold: fileOf(piece, bolds[piece.package]) };
    for (const file of Object.values(names[family])) files.set(file, bytesOf(file));
  }
  return { names, files };
}
