/** Tables as files that a spreadsheet opens right, in the language of who asks. */
import Papa from 'papaparse';
import { tongue } from '../../../core/words.ts';

export type Cell = string | number | undefined;
/**
 * CSV (RFC 4180) with the byte order mark by which a spreadsheet knows UTF-8. Where numbers have a comma, a semicolon stands
 * between the cells, as spreadsheets of those languages want it. What one would take for a formula stands behind an apostrophe.
 */
export function csv(rows: readonly (readonly Cell[])[]): string {
  const { code } = tongue();
  const comma = new Intl.NumberFormat(code).formatToParts(0.5).find((p) => p.type === 'decimal')?.value === ',';
  const written = (cell: Cell): string =>
    typeof cell === 'number'
      ? String(cell).replace('.', comma ? ',' : '.')
      : (cell ?? '').replace(/^[=+\-@\t\r]/, "'$&");
  const body = Papa.unparse(
    rows.map((row) => row.map(written)),
    { delimiter: comma ? ';' : ',', newline: '\r\n' }
  );
  return `\ufeff${body}\r\n`;
}
/** A moment as spreadsheets know one, in the time of this computer; nothing where there is none. */
export function moment(at: number | null | undefined): string {
  if (at === null || at === undefined) return '';
  const d = new Date(at);
  const two = (n: number): string => String(n).padStart(2, '0');
  return `${d.getFullYear()}-${two(d.getMonth() + 1)}-${two(d.getDate())} ${two(d.getHours())}:${two(d.getMinutes())}`;
}
