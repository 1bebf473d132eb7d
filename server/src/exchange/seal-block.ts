import type { Seal } from '../record/seals.ts';
import { heading, MARGIN, type Page } from './page.ts';
import { drawCode } from './qr-code.ts';

const CODE = 110;

/**
 * The seal of the record, as text and as a code that holds all of it: whoever keeps the paper can tell later whether
 * the record is still the one it was.
 */
export function sealBlock({ doc }: Page, seal: Seal | null, sayTime: (iso: string) => string): void {
  if (doc.y > doc.page.height - MARGIN - CODE - 60) doc.addPage();
  heading(doc, 'Seal of the record');
  if (!seal) {
    doc.text('Not sealed yet: print this again after the next hour.');
    return;
  }
  const top = doc.y;
  drawCode(doc, JSON.stringify(seal), MARGIN, top, CODE);
  const words = [
    `Record ${seal.seq} of the shop, sealed ${sayTime(seal.at)} with key ${seal.key}.`,
    `Hash ${seal.hash}`,
    `Of the record that begins with ${seal.chain}`,
    `Signature ${seal.signature}`,
    'The shop’s own check (verify-records) tells whether its record is still the one that was sealed here.',
  ];
  const width = doc.page.width - 2 * MARGIN - CODE - 16;
  doc.fillColor('black').text(words.join('\n'), MARGIN + CODE + 16, top, { width });
  doc.x = MARGIN;
  doc.y = Math.max(doc.y, top + CODE) + 4;
}
