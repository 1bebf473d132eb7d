import { getDocument, OPS } from 'pdfjs-dist/legacy/build/pdf.mjs';
import { describe, expect, it } from 'vitest';
import { labelPaper } from './label-paper.ts';
import type { PaperSize } from './paper.ts';

/** How often a paper has a text, how many shapes it fills, and its pages. */
async function readBack(data: Uint8Array, text: string) {
  const document = await getDocument({ data: new Uint8Array(data), verbosity: 0 }).promise;
  let [texts, fills] = [0, 0];
  for (let n = 1; n <= document.numPages; n++) {
    const page = await document.getPage(n);
    const { items } = await page.getTextContent();
    texts += items.filter((item) => 'str' in item && item.str === text).length;
    const { fnArray } = await page.getOperatorList();
    fills += fnArray.filter((fn) => fn === OPS.constructPath).length;
  }
  return { texts, fills, pages: document.numPages };
}

const labels = (copies: number, size: PaperSize) =>
  labelPaper({
    part: { number: '28-0651', title: 'Hub seal of the steer axle' },
    places: ['A3', 'B1'],
    copies,
    shop: 'Marrowbank Shared Works',
    at: new Date('2026-12-01T08:00:00Z'),
    size,
  });

describe('labels of a part', () => {
  it.each(['a4', 'letter'] as const)(
    'are as many as asked on %s, each with its number, place and code',
    async (size) => {
      const one = await readBack(await labels(1, size), '28-0651');
      for (const copies of [1, 2, 3, 4, 8, 40]) {
        const found = await readBack(await labels(copies, size), '28-0651');
        expect({ copies, texts: found.texts }).toEqual({ copies, texts: copies });
        // A code is drawn of squares: as many on every label.
        expect(found.fills).toBeGreaterThanOrEqual(one.fills * copies * 0.9);
        expect((await readBack(await labels(copies, size), 'A3, B1')).texts).toBe(copies);
      }
    },
  );
});
