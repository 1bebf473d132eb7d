import PDFDocument from 'pdfkit';

/** Paper sizes that shops print on. */
const papers = { a4: 'A4', letter: 'LETTER' } as const;
export type Paper = keyof typeof papers;

export const MARGIN = 40;
const RULE = '#B9B19D';
const MUTED = '#5A6463';

/** Room that a new heading and its first line need, in points. */
const ROOM = 70;

/** A document being written, and its bytes once it is ended. */
export interface Page {
  doc: PDFKit.PDFDocument;
  bytes: () => Promise<Uint8Array<ArrayBuffer>>;
}

/** An empty document. @param date of the content, so that the same content gives the same bytes */
export function openPage(paper: Paper, title: string, date: Date): Page {
  const doc = new PDFDocument({
    size: papers[paper],
    margin: MARGIN,
    bufferPages: true,
    info: { Title: title, Creator: 'Lanternwright', CreationDate: date, ModDate: date },
  });
  const chunks: Buffer[] = [];
  doc.on('data', (chunk: Buffer) => chunks.push(chunk));
  const ended = new Promise<void>((resolve, reject) => {
    doc.on('end', resolve);
    doc.on('error', reject);
  });
  return {
    doc,
    async bytes() {
      doc.end();
      await ended;
      return Buffer.concat(chunks);
    },
  };
}

/** The standard fonts know Latin text; what they do not know is written as it is said. */
export function plain(text: string): string {
  return text
    .replace(/[≥≤]/g, (c) => (c === '≥' ? 'at least ' : 'at most '))
    .replace(/ε/g, 'epsilon')
    .replace(/[^\u0020-\u007e\u00a0-\u00ff\u2013\u2014\u2018\u2019\u201c\u201d\u2022\u2026\n]/g, '?');
}

export function heading(doc: PDFKit.PDFDocument, text: string): void {
  if (doc.y > doc.page.height - MARGIN - ROOM) doc.addPage();
  doc.moveDown(0.8).font('Helvetica-Bold').fontSize(12).text(plain(text), MARGIN);
  doc
    .moveTo(MARGIN, doc.y + 2)
    .lineTo(doc.page.width - MARGIN, doc.y + 2)
    .strokeColor(RULE)
    .stroke();
  doc.moveDown(0.4).font('Helvetica').fontSize(9);
}

/** A line with its label or time on the left. */
export function line(doc: PDFKit.PDFDocument, label: string, text: string, labelWidth = 110): void {
  const width = doc.page.width - 2 * MARGIN - labelWidth;
  const height = Math.max(
    doc.heightOfString(plain(text), { width }),
    doc.heightOfString(plain(label), { width: labelWidth - 6 }),
  );
  if (doc.y + height > doc.page.height - MARGIN - 20) doc.addPage();
  const top = doc.y;
  doc.fillColor(MUTED).text(plain(label), MARGIN, top, { width: labelWidth - 6 });
  doc.fillColor('black').text(plain(text), MARGIN + labelWidth, top, { width });
  doc.x = MARGIN;
  doc.y = top + height + 2;
}

/** Page numbers and the line that ties the paper to the record. */
export function footers(doc: PDFKit.PDFDocument, words: string): void {
  const { start, count } = doc.bufferedPageRange();
  for (let i = start; i < start + count; i++) {
    doc.switchToPage(i);
    const at = doc.page.height - MARGIN + 8;
    doc.page.margins.bottom = 0;
    doc
      .font('Helvetica')
      .fontSize(7)
      .fillColor(MUTED)
      .text(plain(`${words} Page ${i - start + 1} of ${count}.`), MARGIN, at, {
        width: doc.page.width - 2 * MARGIN,
        lineBreak: false,
      });
    doc.page.margins.bottom = MARGIN;
  }
}
