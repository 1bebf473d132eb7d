/** The part of pdfmake that its types leave out: a document as pdfkit writes it. */
declare module 'pdfmake/js/Printer.js' {
  import type { TDocumentDefinitions } from 'pdfmake/interfaces.js';

  interface Resolver {
    resolve: () => Promise<void>;
    resolved: () => Promise<unknown>;
  }
  export class Printer {
    constructor(
      fonts: Record<string, { normal: string; bold: string }>,
      files: { existsSync: (name: string) => boolean; readFileSync: (name: string) => Buffer },
      resolver: Resolver,
      mayRead: (path: string) => boolean,
    );
    createPdfKitDocument(definition: TDocumentDefinitions): Promise<PDFKit.PDFDocument>;
  }
}
