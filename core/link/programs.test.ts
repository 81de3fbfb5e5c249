/** What a device holds, asked of a real MicroPython over the same cable that programs are sent on. */
import { describe, expect, it } from 'vitest';
import { utf8 } from '../bytes.ts';
import { Bed, file, library, text } from '../../board/standin/bed.ts';
import { chooseProgram, deleteProgram, listPrograms, readProgram, type Held } from './programs.ts';
import { send } from './send.ts';

const AT = Date.UTC(2026, 4, 1, 8, 30);
const put = (bed: Bed, word: string, name = word): Promise<unknown> =>
  send(bed, {
    file: file(word),
    called: { name, at: AT },
    library,
    mayInstall: async () => true,
    progress: () => {}
  });
const ready = (): Promise<Bed> => new Bed().boot({ 'lib/mossbell.py': library.file });
const inShort = (held: readonly Held[]) =>
  held.map((p) => `${p.number} ${p.called?.name ?? '?'}${p.starts ? ' *' : ''}${p.whole ? '' : ' broken'}`);

describe('the programs on a device', () => {
  it('are listed with name, time and size, the newest first and the one that the button starts', async () => {
    const bed = await ready();
    expect(await listPrograms(bed)).toEqual([]);
    await put(bed, 'one', 'Früh am Bell');
    await put(bed, 'two', 'with "quotes"\nand a line');
    const held = await listPrograms(bed);
    expect(inShort(held)).toEqual(['2 with "quotes" and a line *', '1 Früh am Bell']);
    expect(held[1]).toEqual({
      number: 1,
      called: { name: 'Früh am Bell', at: AT },
      bytes: file('one').length,
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
    expect(inShort(await listPrograms(bed)).length).toBe(2);
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
    expect(inShort(await listPrograms(bed))).toEqual(['2 ? broken', '1 ? *']);
    await expect(chooseProgram(bed, 2)).rejects.toThrow('Program 2 is not whole: it was cut short.');
    await expect(readProgram(bed, 2)).rejects.toThrow('Program 2 is not whole');
    expect(inShort(await deleteProgram(bed, 2))).toEqual(['1 ? *']);
    expect(bed.board.flash['p/mine.py']).toBeDefined();
    expect(await bed.says()).toEqual(['one']);
  });
});
