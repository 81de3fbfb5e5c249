/** Text on a display: characters side by side, or passing from right to left. */
import { fitting, LETTER, type Raster } from '../kit/display.ts';
import { painted } from './pixels.ts';
import type { Picture } from './program.ts';

/** Characters of displays, 3 wide and 5 high, drawn for Moss Bell: five rows of three bits each, as octal digits. */
export const FONT: Record<string, string> = {
  ' ': '00000',
  '0': '75557',
  '1': '26227',
  '2': '71747',
  '3': '71717',
  '4': '55711',
  '5': '74717',
  '6': '74757',
  '7': '71122',
  '8': '75757',
  '9': '75717',
  A: '25755',
  B: '65656',
  C: '34443',
  D: '65556',
  E: '74647',
  F: '74644',
  G: '34553',
  H: '55755',
  I: '72227',
  J: '11152',
  K: '55655',
  L: '44447',
  M: '57755',
  N: '65555',
  O: '25552',
  P: '65644',
  Q: '25563',
  R: '65655',
  S: '34216',
  T: '72222',
  U: '55557',
  V: '55552',
  W: '55775',
  X: '55255',
  Y: '55222',
  Z: '71247',
  '.': '00002',
  ',': '00024',
  '!': '22202',
  '?': '61202',
  '-': '00700',
  '+': '02720',
  '=': '07070',
  ':': '02020',
  '/': '11244',
  '°': '25200',
  '%': '51245',
  "'": '22000',
  '"': '55000',
  '(': '12221',
  ')': '42224',
  '<': '12421',
  '>': '42124',
  '*': '05250',
  _: '00007',
  '#': '57575'
};
/** What the font lacks, letters with marks above all, is shown as its plain letter, or as a block. */
function glyph(c: string): string {
  const plain = c.normalize('NFD')[0].toUpperCase();
  return FONT[c] ?? FONT[plain] ?? '77777';
}
const lit = (rows: string, x: number, y: number): boolean => (Number(rows[y]) >> (2 - x)) % 2 === 1;

/** As many characters as fit, side by side in its middle. */
export function written(text: string, raster: Raster): Picture {
  const some = [...text].slice(0, fitting(raster)).map(glyph);
  const width = some.length * (LETTER.columns + 1) - 1;
  const left = Math.max(0, Math.floor((raster.columns - width) / 2));
  const top = Math.max(0, Math.floor((raster.rows - LETTER.rows) / 2));
  return { picture: painted(raster, (x, y) => (letterAt(some, x - left, y - top) ? '#' : '.')) };
}
/** The pictures of a text that passes from right to left, column by column, until the display is dark. */
export function passing(text: string, raster: Raster): Picture[] {
  const glyphs = [...text].map(glyph);
  const top = Math.max(0, Math.floor((raster.rows - LETTER.rows) / 2));
  return Array.from({ length: glyphs.length * (LETTER.columns + 1) + raster.columns }, (_, n) => ({
    picture: painted(raster, (x, y) => (letterAt(glyphs, x - raster.columns + 1 + n, y - top) ? '#' : '.'))
  }));
}
/** Whether a line of characters is lit there, column and row counted from its upper left corner. */
function letterAt(glyphs: readonly string[], column: number, y: number): boolean {
  const g = glyphs[Math.floor(column / (LETTER.columns + 1))];
  const x = column % (LETTER.columns + 1);
  return g !== undefined && column >= 0 && x < LETTER.columns && y >= 0 && y < LETTER.rows && lit(g, x, y);
}
