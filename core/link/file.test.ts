/** Images of firmware by their first line: whole, of a known kind, and nothing else. */
import { describe, expect, it } from 'vitest';
import { joined, utf8 } from '../bytes.ts';
import { dropped, imageOf } from './file.ts';

describe('an image of firmware', () => {
  const image = imageOf('micropython', '1.27', utf8('what runs on the board'));
  const says = (bytes: Uint8Array): unknown => {
    const found = dropped('m.img', bytes, 'barrow');
    return 'problem' in found ? found.problem : [found.what, (found as { version: string }).version];
  };
  it('is taken whole', () => expect(says(image)).toEqual(['micropython', '1.27']));
  it('is refused cut short, longer, changed, or with another length in its first line', () => {
    const line = new TextDecoder().decode(image).split('\n')[0];
    const other = line.replace(/ \d+ ([0-9a-f]{8})$/, ' 21 $1');
    expect(other).not.toBe(line);
    for (const bytes of [
      image.subarray(0, image.length - 1),
      joined([image, utf8('!')]),
      joined([image.subarray(0, image.length - 1), utf8('D')]),
      joined([utf8(`${other}\n`), image.subarray(line.length + 1)])
    ])
      expect(says(bytes)).toBe('"m.img" is not whole. Take the file once more.');
  });
});
