import qr from 'qrcode';

/** Draws a QR code (ISO/IEC 18004) as squares, so that it prints sharp. */
export function drawCode(doc: PDFKit.PDFDocument, text: string, x: number, y: number, size: number): void {
  const { modules } = qr.create(text, { errorCorrectionLevel: 'M' });
  const cell = size / modules.size;
  for (let row = 0; row < modules.size; row++) {
    for (let col = 0; col < modules.size; col++) {
      if (modules.get(row, col)) doc.rect(x + col * cell, y + row * cell, cell, cell);
    }
  }
  doc.fill('black');
}
