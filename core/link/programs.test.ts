/** What a device holds, asked of a real MicroPython over the same cable that programs are sent on. */
import { describe, expect, it } from 'vitest';
import CRC32 from 'crc-32';
import { utf8 } from '../bytes.ts';
import { AT, Bed, file, library, text } from '../../board/standin/bed.ts';
import { chooseProgram, deleteProgram, readProgram, showWhich, typeLine } from './programs.ts';
import { identify, send, type Found } from './send.ts';

const put = (bed: Bed, word: string, name = word): Promise<unknown> =>
  send(bed, {
    file: file(word, name),
    device: 'barrow',
    library,
    mayInstall: async () => true,
    progress: () => {}
  });
const ready = (): Promise<Bed> => new Bed().boot({ 'lib/mossbell.py': library.file });
const inShort = ({ programs }: Found) =>
  programs.map((p) => `${p.number} ${p.called?.name ?? '?'}${p.starts ? ' *' : ''}${p.whole ? '' : ' broken'}`);

describe('the programs on a device', () => {
  it('are listed with name, time and size, the newest first and the one that the button starts', async () => {
    const bed = await ready();
    expect((await identify(bed)).programs).toEqual([]);
    await put(bed, 'one', 'Früh am Bell');
    await put(bed, 'two', 'with "quotes"\nand a line');
    const held = await identify(bed);
    expect(inShort(held)).toEqual(['2 with "quotes" and a line *', '1 Früh am Bell']);
    expect(held.programs[1]).toEqual({
      number: 1,
      called: { name: 'Früh am Bell', at: AT, device: 'barrow' },
      crc: CRC32.str(text('one')) >>> 0,
      bytes: file('one', 'Früh am Bell').length,
      whole: true,
      starts: false
    });
  });
  it('are chosen for the button, which starts that one then', async () => {
    const bed = await ready();
    for (const word of ['one', 'two', 'three']) await put(bed, word);
    expect(inShort(await chooseProgram(bed, 2))).toEqual(['3 three', '2 two *', '1 one']);
    expect(await bed.says()).toEqual(['two']);
  });
  it('are taken away one by one; without the chosen one the newest is started', async () => {
    const bed = await ready();
    for (const word of ['one', 'two', 'three']) await put(bed, word);
    await chooseProgram(bed, 1);
    expect(inShort(await deleteProgram(bed, 1))).toEqual(['3 three *', '2 two']);
    expect(Object.keys(bed.board.flash).filter((path) => path.startsWith('p/1'))).toEqual([]);
    expect(inShort(await deleteProgram(bed, 3))).toEqual(['2 two *']);
    await expect(deleteProgram(bed, 3)).rejects.toThrow('Program 3 is not on the device any more.');
    expect(await bed.says()).toEqual(['two']);
  });
  it('are read back to the letter, however long and in whatever letters', async () => {
    const bed = await ready();
    await put(bed, 'one');
    const long = `Grün und 🌱 ${'moss '.repeat(150)}`;
    await put(bed, long);
    expect(await readProgram(bed, 1)).toBe(text('one'));
    expect(await readProgram(bed, 2)).toBe(text(long));
    await expect(readProgram(bed, 9)).rejects.toThrow('Program 9 is not on the device any more.');
    // and the device is as it was
    expect(inShort(await identify(bed))).toHaveLength(2);
  });
  it('that were cut short are told, not started, and neither chosen nor read; strange files are left alone', async () => {
    const bed = await new Bed().boot({
      'lib/mossbell.py': library.file,
      'p/1.py': file('one'),
      'p/2.py': file('two').subarray(0, 40),
      'p/mine.py': utf8('print(1)'),
      'p/3.py.tmp': utf8('half'),
      'p/active': utf8('2 0')
    });
    expect(inShort(await identify(bed))).toEqual(['2 ? broken', '1 one *']);
    await expect(chooseProgram(bed, 2)).rejects.toThrow('Program 2 is not whole: it was cut short.');
    await expect(readProgram(bed, 2)).rejects.toThrow('Program 2 is not whole');
    expect(inShort(await deleteProgram(bed, 2))).toEqual(['1 one *']);
    expect(bed.board.flash['p/mine.py']).toBeDefined();
    expect(await bed.says()).toEqual(['one']);
  });
  it('are chosen with the buttons of the device itself: Bar steps by number, Dot takes', async () => {
    const bed = await ready();
    bed.board.choose('next');
    expect(bed.shown).toBe(0);
    for (const word of ['one', 'two', 'three']) await put(bed, word);
    bed.board.write('p/4.py', file('four').subarray(0, 30));
    const shown: number[] = [];
    for (let i = 0; i < 5; i++) {
      bed.board.choose('next');
      shown.push(bed.shown);
    }
    // from the one that starts, round, and past the one that is not whole
    expect(shown).toEqual([3, 1, 2, 3, 1]);
    bed.board.choose('take');
    expect(bed.shown).toBe(0);
    expect(inShort(await identify(bed))).toEqual(['4 ? broken', '3 three', '2 two', '1 one *']);
    expect(await bed.says()).toEqual(['one']);
  });
});

describe('a device that waits', () => {
  it('answers a line of Python, with what it printed and what it came to', async () => {
    const bed = await ready();
    expect(await typeLine(bed, '2 + 3')).toBe('5');
    expect(await typeLine(bed, 'for i in range(2): print(i)')).toBe('0\n1');
    expect(await typeLine(bed, 'x = "Grün"')).toBe('');
    expect(await typeLine(bed, 'print(x)')).toBe('Grün');
    await expect(typeLine(bed, '1 / 0')).rejects.toThrow('The device says: ZeroDivisionError: divide by zero');
    await expect(typeLine(bed, 'def')).rejects.toThrow('SyntaxError');
  });
  it('shows which one it is', async () => {
    const bed = await ready();
    await showWhich(bed);
    expect(bed.showed).toBe(1);
  });
});
