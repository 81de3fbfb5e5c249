/** Files for a device: programs and images of firmware, whole and of a known kind, and nothing else. */
import zlib from 'node:zlib';
import { describe, expect, it } from 'vitest';
import { joined, utf8 } from '../bytes.ts';
import { barrow } from '../kit/kit.ts';
import { boardFiles, pinsFile } from './board.ts';
import { calledIn, dropped, imageOf, LARGEST_FILE, libraryFile, programFile, tooLarge } from './file.ts';

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

describe('what is dropped on the drive of a device', () => {
  const TEXT = 'from mossbell import *\n\nprint("moss")\n';
  const CALLED = { name: 'Potting', at: 1_777_624_200_000, device: 'barrow' };
  const says = (content: string | Uint8Array, device = 'barrow'): unknown => {
    const found = dropped('p.device.py', typeof content === 'string' ? utf8(content) : content, device);
    return 'problem' in found ? found.problem : found;
  };
  const WANTED = 'The drive takes the file that "Save for the device" writes.';
  it('is a program, told by its last line, in the words that the format has', () => {
    const file = programFile(TEXT, { ...CALLED, name: ' Potting  shed\n', at: 1_777_624_200_000.4 });
    // the checksum is that of ISO 3309 (CRC-32), as zlib reckons it
    const crc = zlib.crc32(Buffer.from(TEXT)).toString(16).padStart(8, '0');
    expect(file).toBe(`${TEXT}# moss bell crc ${crc} 2 barrow 1777624200000 Potting shed\n`);
    const called = { name: 'Potting shed', at: 1_777_624_200_000, device: 'barrow' };
    expect(says(file)).toEqual({ what: 'program', text: TEXT, called });
    // an editor that leaves out the last line's end changes nothing
    expect(says(file.trimEnd())).toEqual({ what: 'program', text: TEXT, called });
  });
  it('is the board library for any device, with its version', () => {
    const file = libraryFile('"""Moss Bell board library"""\n', '1.8');
    for (const device of ['barrow', 'saucer']) expect(says(file, device)).toEqual({ what: 'library', version: '1.8' });
  });
  it('is refused for another device, by the names of both', () =>
    expect(says(programFile(TEXT, CALLED), 'saucer')).toBe('"p.device.py" is for Barrow, and this is Saucer.'));
  it('is refused with any one byte of its text changed, or cut before its name', () => {
    const file = programFile(TEXT, CALLED);
    const bytes = utf8(file);
    for (let at = 0; at < TEXT.length; at++)
      expect([at, says(bytes.with(at, bytes[at] ^ 1))]).toEqual([
        at,
        '"p.device.py" was changed or cut short after it was saved. Save it for the device once more.'
      ]);
    for (let at = 1; at < file.indexOf(CALLED.name); at++)
      expect([at, typeof says(file.slice(0, at))]).not.toEqual([at, 'object']);
    // (its name alone may be cut: the text is whole)
    // the whole of a checksum, from its first letter on
    expect(says(file.replace('crc ', 'crc x'))).toContain('was changed or cut short');
    expect(says(file.replace(/crc ([0-9a-f])/, 'crc '))).toContain('was changed or cut short');
  });
  it('is refused without its last line, by what it is then', () => {
    expect(says(TEXT)).toContain('is not whole: its last line');
    expect(says(`"""Moss Bell board library"""\n`)).toContain('is not whole: its last line');
    expect(says('print("moss")\n')).toBe(`"p.device.py" is not a program for a device. ${WANTED}`);
    expect(says('x = 1 # from mossbell import\n')).toContain('is not a program for a device.');
  });
  it('is refused from a newer format and from an older one', () => {
    const as = (tail: string): string => programFile(TEXT).trimEnd() + `${tail}\n`;
    expect(says(as(' 2 barrow 1 P'))).toMatchObject({ called: { name: 'P', at: 1 } });
    for (const tail of [' 3 barrow 1 P', ' 12 barrow 1 P'])
      expect(says(as(tail))).toBe('"p.device.py" was saved by a newer Moss Bell. Save it with this one.');
    for (const tail of ['', ' 1 barrow 1 P', ' 2 barrow', ' barrow 3 P'])
      expect(says(as(tail))).toContain('is of an old format.');
  });
  it.each([
    ['PNG', [0x89, 0x50, 0x4e, 0x47]],
    ['JPEG', [0xff, 0xd8, 0xff, 0xe0]],
    ['GIF', [0x47, 0x49, 0x46, 0x38]],
    ['WebP', [0x52, 0x49, 0x46, 0x46]],
    ['BMP', [0x42, 0x4d, 0x00, 0x00]]
  ])('is no picture: %s', (_, first) =>
    expect(says(Uint8Array.from([...first, 0x20, 0x20]))).toBe(`"p.device.py" is a picture. ${WANTED}`)
  );
  it('is no text, no project, not nothing and not too much', () => {
    expect(says(Uint8Array.from([0x66, 0xc3, 0x28]))).toBe(`"p.device.py" is no text. ${WANTED}`);
    expect(says('{"format":"mossbell.project"}')).toContain('is a project: open it on the shelf');
    expect(says('')).toBe('"p.device.py" is empty. Save it once more and drop it again.');
    expect(tooLarge('p', LARGEST_FILE)).toBe('');
    expect(tooLarge('p', LARGEST_FILE + 1)).toContain('"p" has 2.0 MB, and the drive takes files up to 2 MB.');
    expect(says(new Uint8Array(LARGEST_FILE + 1).fill(0x20))).toContain('has 2.0 MB');
  });
  it('is firmware of a kind that is known, by all of its first line', () => {
    const image = new TextDecoder().decode(imageOf('factory', '1', utf8('x')));
    expect(says(image)).toEqual({ what: 'factory', version: '1' });
    const UNKNOWN = '"p.device.py" is firmware of a kind that this device does not know.';
    for (const other of [
      image.replace('image 1', 'image 2'),
      image.replace('factory', 'other'),
      image.replace('\n', ' and more\n')
    ])
      expect(says(other)).toBe(UNKNOWN);
  });
});
describe('the last line of a program', () => {
  it('says what it is called, or nothing', () => {
    expect(calledIn(' 2 barrow 5 A name of four words')).toEqual({
      name: 'A name of four words',
      at: 5,
      device: 'barrow'
    });
    for (const tail of ['', ' 2 barrow', '2 barrow 5 P', ' 2 barrow x P', ' two barrow 5 P'])
      expect(calledIn(tail)).toBeUndefined();
  });
});
it('a board of one’s own gets its port, its pins and what it starts with', () => {
  const files = boardFiles(barrow, 'the port');
  expect(files.map((f) => [f.path, new TextDecoder().decode(f.bytes)])).toEqual([
    ['lib/mossbell_port.py', 'the port'],
    ['lib/mossbell_pins.py', pinsFile(barrow)],
    ['main.py', 'import mossbell\n\nmossbell.launcher()\n']
  ]);
});
