/** What a device's drive takes and refuses, and that nothing that was there is lost by it. */
import { readFileSync } from 'node:fs';
import { createRequire } from 'node:module';
import { describe, expect, it } from 'vitest';
import { utf8 } from '../../core/bytes.ts';
import { dropped, imageOf, libraryFile, programFile, tooLarge } from '../../core/link/file.ts';
import { writeProject } from '../../core/project.ts';
import { demoProjects } from '../../demo/seed.ts';
import { AT, Bed, file, library, text } from './bed.ts';
import { BLOCK, Drive, programsIn, STORAGE, type Memory } from './drive.ts';

const unit = { name: 'Barrow 3', serial: 'MB-BAR-0003', device: 'barrow' };
const driveOf = (memory: Partial<Memory> = {}): Drive =>
  new Drive({ firmware: 'micropython', flash: { 'lib/mossbell.py': library.file }, ...memory }, unit);
/** Drops a file. @param pulled after so many sectors */
function drop(drive: Drive, name: string, bytes: Uint8Array, pulled = Infinity): string {
  const taking = drive.take(name, bytes);
  for (let i = 0; i < pulled; i++) {
    const next = taking.next();
    if (next.done) return 'took' in next.value ? next.value.took : `no: ${next.value.problem}`;
  }
  return 'pulled';
}
const libraryText = new TextDecoder().decode(library.file);
/** the firmware that stand-ins run */
const wasm = new Uint8Array(
  readFileSync(createRequire(import.meta.url).resolve('@micropython/micropython-webassembly-pyscript/micropython.wasm'))
);
const micropython = imageOf('micropython', '1.27', wasm);

describe('the drive of a device', () => {
  it('takes a program beside those that are there, and the button starts it', async () => {
    const drive = driveOf();
    expect(drop(drive, 'one.py', file('one'))).toBe('"one" is on the device as program 1, and Dot starts it.');
    expect(drop(drive, 'two.py', file('two', 'Früh am Bell'))).toContain(
      '"Früh am Bell" is on the device as program 2'
    );
    expect(drive.files.map((f) => f.name)).toEqual(['about.txt', 'program-1.py', 'program-2.py']);
    expect(drive.files[0].text).toContain('board library: 1.8');
    const bed = await new Bed().boot(drive.memory.flash);
    expect(await bed.says()).toEqual(['two']);
  });
  it('takes the board library, and firmware with programs and library as they were', async () => {
    const drive = driveOf({ firmware: '', flash: {} });
    expect(drop(drive, 'mossbell.py', utf8(libraryFile(libraryText, '1.7')))).toBe(
      'The board library 1.7 is on the device.'
    );
    drop(drive, 'one.py', file('one'));
    expect(drop(drive, 'micropython.img', micropython)).toBe('MicroPython 1.27 is installed.');
    expect(drive.memory.firmware).toBe('micropython');
    const bed = await new Bed().boot(drive.memory.flash, drive.memory.firmware);
    expect(await bed.says()).toEqual(['one']);
    expect(drop(drive, 'demo.img', imageOf('factory', '1', utf8('demo')))).toContain(
      'factory demo is on the device again'
    );
    expect([drive.memory.firmware, programsIn(drive.memory.flash)]).toEqual(['factory', [1]]);
  });
  it('pulled at any sector leaves the programs, no half firmware, and takes it all the next time', () => {
    const sectors = Math.ceil(micropython.length / 4096);
    for (const at of [1, 2, Math.floor(sectors / 2), sectors]) {
      const drive = driveOf();
      drop(drive, 'one.py', file('one'));
      expect(drop(drive, 'micropython.img', micropython, at)).toBe('pulled');
      expect([drive.memory.firmware, programsIn(drive.memory.flash)], `sector ${at}`).toEqual(['', [1]]);
      drop(drive, 'micropython.img', micropython);
      expect(drive.memory.firmware).toBe('micropython');
    }
    const drive = driveOf();
    drop(drive, 'one.py', file('one'));
    const before = { ...drive.memory.flash };
    expect(drop(drive, 'two.py', file('two'), 1)).toBe('pulled');
    expect(drive.memory.flash).toEqual(before);
  });
  it('refuses what is not for it with a sentence, and the old program stays', () => {
    const one = file('one');
    const old = utf8(programFile(text('one')));
    const newer = utf8(new TextDecoder().decode(one).replace(' 2 barrow', ' 9 barrow'));
    const bad: [string, Uint8Array, string][] = [
      [
        'notes.txt',
        utf8('milk, bread'),
        '"notes.txt" is not a program for a device. The drive takes the file that "Save for the device" writes.'
      ],
      ['empty.py', new Uint8Array(0), '"empty.py" is empty.'],
      ['half.py', one.subarray(0, one.length / 2), '"half.py" is not whole: its last line'],
      [
        'changed.py',
        utf8(new TextDecoder().decode(one).replace('"one"', '"ten"')),
        'was changed or cut short after it was saved'
      ],
      ['cut.py', one.subarray(0, one.length - 40), 'was changed or cut short|is not whole|is of an old format'],
      ['old.py', old, '"old.py" is of an old format. Open its project'],
      ['newer.py', newer, 'was saved by a newer Moss Bell'],
      ['other.py', file('one', 'one', 'saucer'), '"other.py" is for Saucer, and this is Barrow.'],
      [
        'cat.png',
        Uint8Array.of(0x89, 0x50, 0x4e, 0x47, 13, 10, 26, 10, 0, 0),
        '"cat.png" is a picture. The drive takes'
      ],
      ['cat.jpg', Uint8Array.of(0xff, 0xd8, 0xff, 0xe0, 0, 16), '"cat.jpg" is a picture.'],
      ['sound.bin', Uint8Array.of(1, 2, 0xc3, 0x28, 0xff), '"sound.bin" is no text.'],
      [
        'p.mossbell.json',
        utf8(writeProject(demoProjects()[0][1])),
        '"p.mossbell.json" is a project: open it on the shelf'
      ],
      [
        'half.img',
        micropython.subarray(0, micropython.length / 2),
        '"half.img" is not whole. Take the file once more.'
      ],
      [
        'strange.img',
        utf8('moss bell image 7 clock 1 4 00000000\nabcd'),
        'firmware of a kind that this device does not know'
      ],
      ['film.mp4', new Uint8Array(40_000_000), '"film.mp4" has 40.0 MB, and the drive takes files up to 2 MB.']
    ];
    for (const [name, bytes, says] of bad) {
      const drive = driveOf();
      drop(drive, 'first.py', file('first'));
      const before = { ...drive.memory.flash };
      expect(drop(drive, name, bytes), name).toMatch(new RegExp(`^no: .*(${says.replace(/[.?]/g, '\\$&')})`));
      expect(drive.memory, name).toEqual({ firmware: 'micropython', flash: before });
    }
    // it need not be read for that
    expect(tooLarge('film.mp4', 40_000_000)).toContain('40.0 MB');
    expect(tooLarge('p.py', 3000)).toBe('');
  });
  it('says when there is no room', () => {
    const drive = driveOf();
    const used = Math.ceil(library.file.length / BLOCK) * BLOCK;
    drive.memory.flash['big.bin'] = new Uint8Array(STORAGE - used - BLOCK);
    expect(drop(drive, 'one.py', file('one'))).toMatch(
      /^no: The storage of the device is full: "one\.py" has 0\.\d kB and 1\.0 kB are free/
    );
    expect(programsIn(drive.memory.flash)).toEqual([]);
  });
  it('knows a file by what it says, whatever its name is', () => {
    const found = dropped('x', file('one', 'A  name\nof two lines'), 'barrow');
    expect(found).toEqual({
      what: 'program',
      text: text('one'),
      called: { name: 'A name of two lines', device: 'barrow', at: AT }
    });
  });
});

describe('the factory demo', () => {
  it('lives when Dot is pressed, with neither a board library nor a program on the device, and names itself on the cable', async () => {
    const bed = await new Bed().boot({}, 'factory');
    expect(bed.board.start()).toBe('');
    const tones = bed.last!.events.filter((e) => e.type === 'tone');
    expect([bed.last!.ended, tones.length]).toEqual(['done', 3]);
    expect(bed.last!.events.some((e) => e.type === 'lamp')).toBe(true);
    await bed.write(utf8('\x03'));
    expect(new TextDecoder().decode((await bed.read(10))!)).toContain('factory demo 1 on Test');
    expect(Object.keys(bed.board.flash)).toEqual([]);
  });
});
