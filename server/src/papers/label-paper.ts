import type { Content } from 'pdfmake/interfaces.js';
import { abreast } from './head.ts';
import { cutLines, figures, printed, words, type PaperSize } from './paper.ts';

export interface LabelPaper {
  part: { number: string; title: string };
  /** Where it lies. */
  places: readonly string[];
  copies: number;
  shop: string;
  at: Date;
  size: PaperSize;
}

const ABREAST = 3;

/** Labels for a shelf or a box: the number as a code and in words. A reader types the number. */
export function labelPaper({
  part,
  places,
  copies,
  shop,
  at,
  size,
}: LabelPaper): Promise<Uint8Array<ArrayBuffer>> {
  // Each label by itself: the printer writes into what it sets, and set twice it would be set once.
  const label = (): Content => ({
    columns: [
      { width: 'auto', qr: part.number, fit: 62, eccLevel: 'M' },
      {
        width: '*',
        stack: [
          figures(part.number, { bold: true, fontSize: 13 }),
          words(part.title, { fontSize: 8 }),
          words(places.join(', '), { bold: true, fontSize: 9, margin: [0, 3, 0, 0] }),
        ],
      },
    ],
    columnGap: 6,
    margin: [5, 6, 5, 6],
  });
  const labels = Array.from({ length: Math.ceil(copies / ABREAST) * ABREAST }, (_, i) =>
    i < copies ? label() : words(''),
  );
  return printed(
    [
      {
        table: { dontBreakRows: true, widths: ['*', '*', '*'], body: abreast(labels, ABREAST) },
        layout: cutLines,
      },
    ],
    { size, title: `Labels ${part.number}`, date: at, foot: `Cut along the dashes. ${shop}.` },
  );
}
