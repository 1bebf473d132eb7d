import { createRequire } from 'node:module';
import type { Printer as PrinterClass } from 'pdfmake/js/Printer.js';
import type { Content, ContentText, CustomTableLayout, TableCell } from 'pdfmake/interfaces.js';
import { fontsInUse, runsOf } from './fonts.ts';

// As Node.js and Vite give a default export of CommonJS differently.
const { default: Printer } = createRequire(import.meta.url)('pdfmake/js/Printer.js') as {
  default: typeof PrinterClass;
};

/** Sizes that shops print on. */
const sizes = { a4: { name: 'A4', margin: 25 }, letter: { name: 'LETTER', margin: 22 } } as const;
export type PaperSize = keyof typeof sizes;

export const INK = '#1B2324';
export const MUTED = '#5A6463';
export const RULE = '#B9B19D';
export const WASH = '#F3F0E8';
export const RUST = '#8F3B1B';

type Style = Omit<ContentText, 'text' | 'font'>;

/** Words on paper, in whatever script they are. */
export const words = (text: string, style: Style = {}): ContentText => ({ ...style, text: runsOf(text) });

/** Figures on paper, in type of even width. */
export const figures = (text: string, style: Style = {}): ContentText => ({
  ...style,
  text: runsOf(text, 'figures'),
});

/** A label over what it names. */
export const caption = (text: string): ContentText => words(text, { fontSize: 7, color: MUTED });

export const heading = (text: string): ContentText =>
  words(text, { bold: true, fontSize: 11, margin: [0, 7, 0, 2], headlineLevel: 1 });

/** An empty box to tick, or a ticked one. */
export function box(ticked = false): Content {
  const cross = ticked
    ? '<path d="M2 5l2.4 2.6L8.4 2" stroke="#1B2324" stroke-width="1.4" fill="none"/>'
    : '';
  return {
    svg: `<svg viewBox="0 0 10 10"><rect x=".6" y=".6" width="8.8" height="8.8" fill="none" stroke="#1B2324" stroke-width=".9"/>${cross}</svg>`,
    width: 8,
  };
}

/** A line to write on, with what it is of before it and its unit behind. */
export function blank(of: string, unit = '', width = 38): Content {
  return {
    columns: [
      ...(of ? [{ width: 'auto' as const, ...words(of, { color: MUTED, noWrap: true }) }] : []),
      {
        width,
        svg: `<svg viewBox="0 0 ${width} 10"><path d="M0 9.5h${width}" stroke="#5A6463" stroke-width=".7"/></svg>`,
      },
      ...(unit ? [{ width: 'auto' as const, ...words(unit, { color: MUTED, noWrap: true }) }] : []),
    ],
    columnGap: 2,
  };
}

/** Thin rules between rows, none between columns. */
const ruled: CustomTableLayout = {
  hLineWidth: (i, { table }) => (i === 0 || i === table.body.length ? 0.8 : 0.4),
  vLineWidth: () => 0,
  hLineColor: () => RULE,
  paddingLeft: () => 0,
  paddingRight: () => 6,
  paddingTop: () => 1.1,
  paddingBottom: () => 1.1,
};

/** A table: a row whose label stands left, and a column for each of what is beside it. */
export function table(
  head: readonly TableCell[],
  rows: readonly (readonly TableCell[])[],
  widths: (number | string)[],
): Content {
  return {
    table: {
      headerRows: head.length > 0 ? 1 : 0,
      dontBreakRows: true,
      widths,
      body: [...(head.length > 0 ? [[...head]] : []), ...rows.map((r) => [...r])],
    },
    layout: ruled,
  };
}

/** Dashes to cut along, round tags and labels. */
export const cutLines: CustomTableLayout = {
  hLineStyle: () => ({ dash: { length: 3, space: 3 } }),
  vLineStyle: () => ({ dash: { length: 3, space: 3 } }),
  hLineColor: () => '#8D8674',
  vLineColor: () => '#8D8674',
};

interface About {
  size: PaperSize;
  title: string;
  /** Of the content: what is printed again of the same content is the same paper. */
  date: Date;
  /** What ties the paper to its record; the page's number stands beside it. */
  foot: string;
}

/** Nothing on a paper comes from elsewhere; fonts and pictures are handed over. */
const nothingFetched = {
  resolve: () => Promise.resolve(),
  resolved: () => Promise.resolve(),
};

/** A PDF of what is set. */
export async function printed(
  content: readonly Content[],
  { size, title, date, foot }: About,
): Promise<Uint8Array<ArrayBuffer>> {
  const { name, margin } = sizes[size];
  const footRuns = runsOf(foot);
  const tail = runsOf('Page 0123456789 of')[0]!.font;
  const { names, files } = fontsInUse();
  const fonts = {
    existsSync: (name: string) => files.has(name),
    readFileSync: (name: string) => files.get(name)!,
  };
  const printer = new Printer(names, fonts, nothingFetched, () => false);
  const doc = await printer.createPdfKitDocument({
    pageSize: name,
    pageMargins: [margin, margin, margin, margin + 8],
    info: { title, creator: 'Lanternwright', creationDate: date, modDate: date },
    defaultStyle: { font: tail, fontSize: 8.5, color: INK, lineHeight: 1.12 },
    content: [...content],
    // A heading does not stand alone at the end of a page.
    pageBreakBefore: (node, { getFollowingNodesOnPage }) =>
      node.headlineLevel === 1 && getFollowingNodesOnPage().length === 0,
    footer: (page, count) => ({
      columns: [
        { width: '*', text: footRuns, fontSize: 6.5, color: MUTED },
        { width: 'auto', text: `Page ${page} of ${count}`, fontSize: 6.5, color: MUTED },
      ],
      margin: [margin, 6, margin, 0],
    }),
  });
  const chunks: Buffer[] = [];
  doc.on('data', (chunk: Buffer) => chunks.push(chunk));
  const ended = new Promise<void>((resolve, reject) => {
    doc.on('end', resolve);
    doc.on('error', reject);
  });
  doc.end();
  await ended;
  return Buffer.concat(chunks);
}
