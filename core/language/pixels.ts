/** Pictures of 7 x 5 levels, as text: '.' dark, '1' to '9' for 10 to 90 %, '#' full; five rows with a space between. */
import type { Picture } from './program.ts';

export const WIDTH = 7;
export const HEIGHT = 5;
export const DARK = '....... ....... ....... ....... .......';

/** Level of a character, 0 to 100 %. */
export const levelOf = (c: string | undefined): number =>
  c === '#' ? 100 : c && c >= '1' && c <= '9' ? Number(c) * 10 : 0;
/** The character for a level, to the nearest ten. */
export function charOf(level: number): string {
  const ten = Math.round(level / 10);
  return ten <= 0 ? '.' : ten >= 10 ? '#' : String(ten);
}
export const pixelAt = (picture: string, x: number, y: number): string => picture[y * (WIDTH + 1) + x] ?? '.';
export function withPixel(picture: string, x: number, y: number, c: string): string {
  const at = y * (WIDTH + 1) + x;
  return picture.slice(0, at) + c + picture.slice(at + 1);
}
const make = (at: (x: number, y: number) => string): string =>
  Array.from({ length: HEIGHT }, (_, y) => Array.from({ length: WIDTH }, (_, x) => at(x, y)).join('')).join(' ');
const inside = (x: number, y: number): boolean => x >= 0 && x < WIDTH && y >= 0 && y < HEIGHT;

/** Moved right and down by whole pixels; what leaves is lost. */
export const shifted = (picture: string, dx: number, dy: number): string =>
  make((x, y) => (inside(x - dx, y - dy) ? pixelAt(picture, x - dx, y - dy) : '.'));
/** Moved round: what leaves on one side comes in on the other. */
export const rolled = (picture: string, dx: number, dy: number): string =>
  make((x, y) => pixelAt(picture, (x - dx + WIDTH) % WIDTH, (y - dy + HEIGHT) % HEIGHT));
/** As a display shows it that is mounted turned clockwise about its middle pixel; what falls beside it is not seen. */
export function shownAs(picture: string, turnedDeg: 0 | 90 | 180 | 270): string {
  if (turnedDeg === 0) return picture;
  return make((x, y) => {
    const at = pixelShownAt(x, y, turnedDeg);
    return at ? pixelAt(picture, at.x, at.y) : '.';
  });
}
/** The pixel of the program that a lamp of a display shows which is mounted turned; none in the corners of a wide one. */
export function pixelShownAt(
  x: number,
  y: number,
  turnedDeg: 0 | 90 | 180 | 270
): { x: number; y: number } | undefined {
  const [cx, cy] = [(WIDTH - 1) / 2, (HEIGHT - 1) / 2];
  const [cos, sin] = { 0: [1, 0], 90: [0, 1], 180: [-1, 0], 270: [0, -1] }[turnedDeg];
  const [dx, dy] = [x - cx, y - cy];
  const at = { x: cx + cos * dx + sin * dy, y: cy - sin * dx + cos * dy };
  return inside(at.x, at.y) ? at : undefined;
}
/** Whether a display that is mounted so has a lamp for this pixel of the program. */
export const isSeen = (x: number, y: number, turnedDeg: 0 | 90 | 180 | 270): boolean =>
  pixelShownAt(x, y, ((360 - turnedDeg) % 360) as 0 | 90 | 180 | 270) !== undefined;
export const inverted = (picture: string): string => make((x, y) => charOf(100 - levelOf(pixelAt(picture, x, y))));
export const mirrored = (picture: string, way: 'sideways' | 'upside down'): string =>
  make((x, y) => (way === 'sideways' ? pixelAt(picture, WIDTH - 1 - x, y) : pixelAt(picture, x, HEIGHT - 1 - y)));
/** The upper one hides the lower one where it is lit. */
export const overlay = (top: string, under: string): string =>
  make((x, y) => (pixelAt(top, x, y) === '.' ? pixelAt(under, x, y) : pixelAt(top, x, y)));

/** Characters of the matrix, 3 wide and 5 high, drawn for Moss Bell: five rows of three bits each, as octal digits. */
const FONT: Record<string, string> = {
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

/** The first two characters side by side; one alone stands in the middle. */
export function written(text: string): Picture {
  const two = [...text].slice(0, 2).map(glyph);
  const left = two.length === 1 ? 2 : 0;
  return {
    picture: make((x, y) => {
      const column = x - left;
      const which = column < 3 ? 0 : 1;
      const inner = which === 0 ? column : column - 4;
      return two[which] && inner >= 0 && inner < 3 && lit(two[which], inner, y) ? '#' : '.';
    })
  };
}
/** The pictures of a text that passes from right to left, column by column, until the matrix is dark. */
export function passing(text: string): Picture[] {
  const glyphs = [...text].map(glyph);
  const columns = glyphs.length * 4;
  const at = (column: number, y: number): boolean => {
    const g = glyphs[Math.floor(column / 4)];
    const inner = column % 4;
    return column >= 0 && g !== undefined && inner < 3 && lit(g, inner, y);
  };
  return Array.from({ length: columns + WIDTH }, (_, n) => ({
    picture: make((x, y) => (at(x - WIDTH + 1 + n, y) ? '#' : '.'))
  }));
}
