import { strToU8, zipSync } from 'fflate';

const escaped = (text: string) =>
  text.replace(/[&<>]/g, (c) => ({ '&': '&amp;', '<': '&lt;', '>': '&gt;' })[c]!);
const column = (at: number) => String.fromCharCode('A'.charCodeAt(0) + at);

const cell = (value: string | number, row: number, at: number) =>
  typeof value === 'number'
    ? `<c r="${column(at)}${row}"><v>${value}</v></c>`
    : `<c r="${column(at)}${row}" t="inlineStr"><is><t>${escaped(value)}</t></is></c>`;

const MAIN = 'http://schemas.openxmlformats.org/spreadsheetml/2006/main';
const RELS = 'http://schemas.openxmlformats.org/officeDocument/2006/relationships';
const PACKAGE = 'http://schemas.openxmlformats.org/package/2006';
const XML = '<?xml version="1.0" encoding="UTF-8" standalone="yes"?>';

type Rows = readonly (readonly (string | number)[])[];

const kind = (of: string) => `application/vnd.openxmlformats-officedocument.spreadsheetml.${of}+xml`;
const worksheet = (rows: Rows) =>
  `<worksheet xmlns="${MAIN}"><sheetData>${rows
    .map((cells, i) => `<row r="${i + 1}">${cells.map((c, at) => cell(c, i + 1, at)).join('')}</row>`)
    .join('')}</sheetData></worksheet>`;

/**
 * A workbook, its sheets by their names, as an office program saves it; at most 26 columns.
 * @source ECMA-376, Office Open XML
 */
export function workbook(sheets: Readonly<Record<string, Rows>>): Uint8Array<ArrayBuffer> {
  const named = Object.entries(sheets).map(([name, rows], i) => ({ name, rows, nth: i + 1 }));
  const each = (part: (sheet: (typeof named)[number]) => string) => named.map(part).join('');
  const files = {
    '[Content_Types].xml': `<Types xmlns="${PACKAGE}/content-types"><Default Extension="rels" ContentType="application/vnd.openxmlformats-package.relationships+xml"/><Default Extension="xml" ContentType="application/xml"/><Override PartName="/xl/workbook.xml" ContentType="${kind('sheet.main')}"/>${each(({ nth }) => `<Override PartName="/xl/worksheets/sheet${nth}.xml" ContentType="${kind('worksheet')}"/>`)}</Types>`,
    '_rels/.rels': `<Relationships xmlns="${PACKAGE}/relationships"><Relationship Id="r1" Type="${RELS}/officeDocument" Target="xl/workbook.xml"/></Relationships>`,
    'xl/workbook.xml': `<workbook xmlns="${MAIN}" xmlns:r="${RELS}"><sheets>${each(({ name, nth }) => `<sheet name="${escaped(name)}" sheetId="${nth}" r:id="r${nth}"/>`)}</sheets></workbook>`,
    'xl/_rels/workbook.xml.rels': `<Relationships xmlns="${PACKAGE}/relationships">${each(({ nth }) => `<Relationship Id="r${nth}" Type="${RELS}/worksheet" Target="worksheets/sheet${nth}.xml"/>`)}</Relationships>`,
    ...Object.fromEntries(named.map(({ nth, rows }) => [`xl/worksheets/sheet${nth}.xml`, worksheet(rows)])),
  };
  return zipSync(
    Object.fromEntries(Object.entries(files).map(([name, text]) => [name, strToU8(XML + text)])),
  );
}
