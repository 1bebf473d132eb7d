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

/** A workbook of one sheet, at most 26 columns, as an office program saves it. @source ECMA-376, Office Open XML */
export function workbook(rows: readonly (readonly (string | number)[])[]): Buffer {
  const sheet = rows
    .map((cells, i) => `<row r="${i + 1}">${cells.map((c, at) => cell(c, i + 1, at)).join('')}</row>`)
    .join('');
  const kind = (of: string) => `application/vnd.openxmlformats-officedocument.spreadsheetml.${of}+xml`;
  const files = {
    '[Content_Types].xml': `<Types xmlns="${PACKAGE}/content-types"><Default Extension="rels" ContentType="application/vnd.openxmlformats-package.relationships+xml"/><Default Extension="xml" ContentType="application/xml"/><Override PartName="/xl/workbook.xml" ContentType="${kind('sheet.main')}"/><Override PartName="/xl/worksheets/sheet1.xml" ContentType="${kind('worksheet')}"/></Types>`,
    '_rels/.rels': `<Relationships xmlns="${PACKAGE}/relationships"><Relationship Id="r1" Type="${RELS}/officeDocument" Target="xl/workbook.xml"/></Relationships>`,
    'xl/workbook.xml': `<workbook xmlns="${MAIN}" xmlns:r="${RELS}"><sheets><sheet name="Fleet" sheetId="1" r:id="r1"/></sheets></workbook>`,
    'xl/_rels/workbook.xml.rels': `<Relationships xmlns="${PACKAGE}/relationships"><Relationship Id="r1" Type="${RELS}/worksheet" Target="worksheets/sheet1.xml"/></Relationships>`,
    'xl/worksheets/sheet1.xml': `<worksheet xmlns="${MAIN}"><sheetData>${sheet}</sheetData></worksheet>`,
  };
  return Buffer.from(
    zipSync(Object.fromEntries(Object.entries(files).map(([name, text]) => [name, strToU8(XML + text)]))),
  );
}
