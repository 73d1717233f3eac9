import { csvFormatRows } from 'd3-dsv';

/** A cell that a spreadsheet would take for a formula. */
const FORMULA = /^[=+\-@\t\r]/;
const NUMBER = /^-?\d+([.,]\d+)?$/;

/**
 * Rows as a CSV file (RFC 4180). What a spreadsheet would run as a formula gets an apostrophe before it: names and what players tell may
 * come from people who mean harm.
 */
export const csvOf = (rows: readonly (readonly string[])[]): string =>
  `${csvFormatRows(rows.map((row) => row.map((cell) => (FORMULA.test(cell) && !NUMBER.test(cell) ? `'${cell}` : cell))))}\n`;

/** Has the browser save a text as a file. The mark at its beginning tells spreadsheets that it is UTF-8. */
export function saveText(name: string, text: string, type = 'text/csv'): void {
  const address = URL.createObjectURL(new Blob(['\ufeff', text], { type: `${type};charset=utf-8` }));
  const link = document.createElement('a');
  link.href = address;
  link.download = name;
  link.click();
  URL.revokeObjectURL(address);
}
