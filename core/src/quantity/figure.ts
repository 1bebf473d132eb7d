/** What a typed figure can mean: one value, or two where its separator may be of decimals or of thousands. */
export type Figure = readonly [value: number] | readonly [withDecimals: number, withThousands: number];

/** One character each: ½ is written as 1⁄2 by its compatibility form. */
const VULGAR = /[\u00bc-\u00be\u2150-\u215e\u2189]/gu;
const FRACTION = /^(?:(\d{1,4})(?:\s*-\s*|\s+))?(\d{1,4})\s*[/\u2044]\s*(\d{1,4})$/u;
/** Groups of three digits with a space of any kind or an apostrophe between them, which never stands before decimals. */
const SPACED = /^\d{1,3}(?:[\s'’]\d{3})+(?=$|[.,])/u;

const isGrouped = (text: string, separator: string): boolean => {
  const [first = '', ...groups] = text.split(separator);
  return /^\d{1,3}$/.test(first) && groups.length > 0 && groups.every((g) => /^\d{3}$/.test(g));
};

/** Whole number and decimals, with the separator known. */
function decimal(text: string, separator: string): Figure | null {
  const plain = text.replace(separator, '.');
  return /^(?:\d+\.?\d*|\.\d+)$/.test(plain) ? [Number(plain)] : null;
}

function separated(text: string): Figure | null {
  const last = text.includes(',') && text.lastIndexOf(',') > text.lastIndexOf('.') ? ',' : '.';
  const other = last === ',' ? '.' : ',';
  if (text.includes(other)) {
    const [whole = '', ...decimals] = text.split(last);
    if (decimals.length !== 1 || !isGrouped(whole, other)) return null;
    return decimal(`${whole.replaceAll(other, '')}.${decimals[0]}`, '.');
  }
  const many = text.split(last).length - 1;
  if (many > 1) return isGrouped(text, last) ? [Number(text.replaceAll(last, ''))] : null;
  const one = decimal(text, last);
  // 0,125 is no group of thousands.
  if (one === null || !isGrouped(text, last) || text.startsWith('0')) return one;
  return [one[0], Number(text.replace(last, ''))];
}

function fraction(text: string): Figure | null {
  const match = FRACTION.exec(text);
  if (!match) return null;
  const [, whole = '0', above, below] = match;
  const [n, d] = [Number(above), Number(below)];
  if (d === 0 || (match[1] !== undefined && n >= d)) return null;
  return [Number(whole) + n / d];
}

/**
 * Reads a figure as people write it: `0.10`, `0,10`, `.005`, `1,050.50`, `611 240`, `3/16`, `1 11/16`, `4½`, `-2`.
 * @returns null where it is none
 */
export function readFigure(text: string): Figure | null {
  const spelled = text
    .replace(/[\u2212\u2013]/gu, '-')
    .replace(VULGAR, (c) => ` ${c.normalize('NFKD')}`)
    .trim();
  const sign = spelled.startsWith('-') ? -1 : 1;
  const digits = spelled.replace(/^[+-]\s*/, '');
  const plain = SPACED.test(digits) ? digits.replace(/[\s'’]/gu, '') : digits;
  const read = fraction(plain) ?? separated(plain);
  if (!read) return null;
  const signed = (value: number) => (value === 0 ? 0 : sign * value);
  return read.length === 1 ? [signed(read[0])] : [signed(read[0]), signed(read[1])];
}
