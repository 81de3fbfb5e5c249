/** The whole procedure of sending against a real MicroPython, cut at every byte. */
import { loadMicroPython } from '@micropython/micropython-webassembly-pyscript';
import CRC32 from 'crc-32';
import { describe, expect, it } from 'vitest';
import { programFile } from './file.ts';
import { utf8 } from '../bytes.ts';
import { barrow } from '../kit/kit.ts';
import { noQuirks } from '../kit/quirks.ts';
import { hall } from '../testing/build.ts';
import type { Trace } from '../trace/trace.ts';
import { StandIn, type Flash, type LoadMicroPython } from '../../board/standin/standin.ts';
import { Bed, file, library } from '../../board/standin/bed.ts';
import { LinkClosed, LinkProblem, type LinkPort } from './port.ts';
import { pyBytes, pyString } from './repl.ts';
import { CABLES } from '../../board/standin/cable.ts';
import { STORAGE, usedBytes } from '../../board/standin/drive.ts';
import { typeLine } from './programs.ts';
import { checkFits, identify, send, type Found, type Progress, type Sent } from './send.ts';

const go = (
  bed: Bed,
  word: string,
  options: { install?: boolean; progress?: (p: Progress) => void; cancelled?: () => boolean; device?: string } = {}
): Promise<Sent> =>
  send(bed, {
    file: file(word),
    device: options.device ?? 'barrow',
    library,
    mayInstall: async () => options.install ?? true,
    progress: options.progress ?? (() => {}),
    cancelled: options.cancelled
  });
/** Changes the program that is being written, behind the back of who sends it. */
const spoils = (bed: Bed) => (command: string) => {
  if (/p\/2\.py\.tmp/.test(command) && bed.board.flash['p/2.py.tmp']?.length === file('new').length)
    bed.board.write('p/2.py.tmp', utf8(new TextDecoder().decode(file('new')).replace('"new"', '"nev"')));
  return command;
};
const ready: Flash = { 'lib/mossbell.py': library.file };

const flashOf = (word: string) => ({ 'p/1.py': file(word) });
describe('sending', () => {
  it('puts the program where the button starts it, and finds out what is there', async () => {
    const bed = await new Bed().boot(ready);
    const stages: string[] = [];
    const { found, number } = await go(bed, 'one', { progress: (p) => stages.push(p.stage) });
    expect(found).toMatchObject({
      micropython: '1.27',
      library: '1.8',
      serial: 'MB-TEST',
      battery: 100,
      device: 'barrow',
      programs: []
    });
    expect(number).toBe(1);
    expect([...new Set(stages)]).toEqual(['asking', 'sending', 'checking', 'done']);
    expect(await bed.says()).toEqual(['one']);
    // one MicroPython a thread: from here on a device that boots from the same flash
    const next = await new Bed().boot(bed.flash);
    expect((await go(next, 'two')).number).toBe(2);
    expect(await next.says()).toEqual(['two']);
    // older programs stay
    expect(
      Object.keys(next.flash)
        .filter((p) => p.startsWith('p/'))
        .sort()
    ).toEqual(['p/1.py', 'p/2.py', 'p/active']);
  });
  it('offers the board library where it is missing, installs it whole, and changes nothing if that is refused', async () => {
    const bare = await new Bed().boot({});
    expect(bare.board.start()).toContain('The board library is missing');
    await expect(go(bare, 'x', { install: false })).rejects.toThrow('Nothing on the device was changed');
    // but for what it was asked with, which need not travel again
    expect(Object.keys(bare.board.flash)).toEqual(['lib/mossbell_link.py']);
    await go(bare, 'now');
    expect(CRC32.buf(bare.board.flash['lib/mossbell.py'])).toBe(CRC32.buf(library.file));
    expect(await bare.says()).toEqual(['now']);
  });
  it('is refused while something is sent already: the first arrives whole, and then the second may', async () => {
    const bed = await new Bed().boot(ready);
    const [one, two] = await Promise.allSettled([go(bed, 'one'), go(bed, 'two')]);
    expect([one.status, two.status]).toEqual(['fulfilled', 'rejected']);
    expect(String((two as PromiseRejectedResult).reason)).toContain('Something is being sent to this device already');
    expect(bed.board.flash['p/1.py']).toEqual(file('one'));
    await go(bed, 'two');
    expect(bed.board.flash['p/1.py']).toEqual(file('one'));
    expect(bed.board.flash['p/2.py']).toEqual(file('two'));
    // what came to nothing does not hold the next one up
    const other = await new Bed().boot(ready);
    other.garble = (c) => (c.startsWith('_w(') ? `raise OSError(5)\x04` : c);
    await expect(go(other, 'three')).rejects.toThrow(LinkProblem);
    other.garble = (c) => c;
    await go(other, 'four');
  });
  it('does not lie there twice: the same text is not written again, another version of the name goes if that is wished', async () => {
    const bed = await new Bed().boot(ready);
    const sends = (text: string, mayReplace?: () => Promise<boolean>): Promise<Sent> =>
      send(bed, {
        file: file(text, 'Ferns'),
        device: 'barrow',
        library,
        mayInstall: async () => true,
        mayReplace,
        progress: () => {}
      });
    const numbers = (sent: Sent): [number, boolean][] => sent.now.programs.map((p) => [p.number, p.starts]);
    let asked = 0;
    const answers = (yes: boolean) => async () => (asked++, yes);
    expect(numbers(await sends('one', answers(true)))).toEqual([[1, true]]);
    await go(bed, 'other');
    // the same again: it starts, and no second one lies there
    const again = await sends('one', answers(true));
    expect([again.number, asked]).toEqual([1, 0]);
    expect(numbers(again)).toEqual([
      [2, false],
      [1, true]
    ]);
    expect(numbers(await sends('two', answers(false)))).toEqual([
      [3, true],
      [2, false],
      [1, false]
    ]);
    expect(asked).toBe(1);
    // what is not asked takes nothing away
    expect(numbers(await sends('three'))).toHaveLength(4);
    expect(numbers(await sends('four', answers(true)))).toEqual([
      [5, true],
      [2, false]
    ]);
    expect(bed.board.flash['p/5.py']).toEqual(file('four', 'Ferns'));
  });
  it('replaces an old library', async () => {
    const bed = await new Bed().boot({ 'lib/mossbell.py': utf8('VERSION = "0.3"\n') });
    const { found } = await go(bed, 'new');
    expect(found.library).toBe('0.3');
    expect(await bed.says()).toEqual(['new']);
  });
  it('cut at every byte of the conversation, leaves the old program or the new one, whole, and a second send works', async () => {
    const whole = await new Bed().boot(ready);
    await go(whole, 'old');
    const flash = whole.board.flash;
    const before = whole.cable.bytes;
    await go(whole, 'new');
    const length = whole.cable.bytes - before;
    const stood = new Map<string, number>();
    // its power stays on: what it was in the middle of, it is in the middle of when the next cable comes
    for (let at = 0; at < length; at++) {
      whole.putBack(flash);
      await expect(go(whole.onAnotherCable({ diesAt: at }), 'new'), `cut at byte ${at}`).rejects.toThrow(LinkClosed);
      const again = whole.onAnotherCable();
      const { programs } = await identify(again);
      const first = programs.find((p) => p.starts)!;
      expect(programs.every((p) => p.whole) && first.whole, `cut at byte ${at}`).toBe(true);
      stood.set(first.called!.name, (stood.get(first.called!.name) ?? 0) + 1);
      if (at % 10) continue;
      expect((await go(again, 'third')).number).toBe(first.called!.name === 'new' || programs.length > 1 ? 3 : 2);
      expect((await identify(again)).programs[0]).toMatchObject({
        called: { name: 'third' },
        whole: true,
        starts: true
      });
    }
    expect(stood.get('old')).toBeGreaterThan(length / 2);
    expect(stood.get('new')).toBeGreaterThan(0);
    // of a device that was never talked to, what it is asked with goes over and is kept first
    const never = await new Bed().boot({ ...ready, ...flashOf('old') });
    await go(never, 'new');
    for (let at = 0; at < never.cable.bytes; at += 97) {
      const cut = await new Bed({ diesAt: at }).boot({ ...ready, ...flashOf('old') });
      await expect(go(cut, 'new'), `cut at byte ${at}`).rejects.toThrow(LinkClosed);
      const again = await new Bed().boot(cut.board.flash);
      expect((await identify(again)).programs.at(-1), `cut at byte ${at}`).toMatchObject({ number: 1, whole: true });
      await go(again, 'third');
      expect(await again.says()).toEqual(['third']);
    }
    // and it starts, in a device that has lost its power as well
    for (const share of [0.1, 0.3, 0.5, 0.6, 0.7, 0.8, 0.9, 0.95, 0.98, 0.99, 0.999]) {
      const bed = await new Bed({ diesAt: Math.floor(length * share) }).boot(flash);
      await expect(go(bed, 'new')).rejects.toThrow(LinkClosed);
      expect([['old'], ['new']], `cut at ${share}`).toContainEqual(await bed.says());
    }
  }, 600_000);
  it('goes on after a cut where it was, with the library and with the program', async () => {
    const probe = await new Bed().boot({});
    await go(probe, 'x');
    const bed = await new Bed({ diesAt: probe.cable.bytes / 2 }).boot({});
    const told: Progress[] = [];
    await expect(go(bed, 'x', { progress: (p) => told.push(p) })).rejects.toThrow(LinkClosed);
    const reached = told.at(-1)!;
    expect(reached.stage).toBe('library');
    const again = bed.onAnotherCable();
    const more: Progress[] = [];
    await go(again, 'x', { progress: (p) => more.push(p) });
    const first = more.find((p) => p.stage === 'library')!;
    expect(first.share).toBeGreaterThanOrEqual(reached.share);
    expect(again.cable.bytes).toBeLessThan(probe.cable.bytes * 0.65);
    expect(CRC32.buf(bed.board.flash['lib/mossbell.py'])).toBe(CRC32.buf(library.file));
    // of another text nothing is taken
    const other = await new Bed().boot({ ...ready, 'p/1.py.tmp': utf8('from mossbell import nothing') });
    await go(other, 'mine');
    expect(await other.says()).toEqual(['mine']);
  });
  it.each([1, 2, 3, 4, 5, 6])('over a flaky cable says again what was lost, and says so (seed %i)', async (seed) => {
    const bed = await new Bed({ cable: 'flaky', seed }).boot({});
    const { again } = await go(bed, 'through');
    expect(again).toBeGreaterThan(5);
    expect(CRC32.buf(bed.board.flash['lib/mossbell.py'])).toBe(CRC32.buf(library.file));
    expect(await bed.says()).toEqual(['through']);
  });
  it('gives up in words where most is lost, and where the cable only charges', async () => {
    const bed = await new Bed().boot(ready);
    bed.garble = (c) => (c.startsWith('_w(') ? c.replace('_w(', '_v(') : c);
    await expect(go(bed, 'x')).rejects.toThrow('The device did not understand what it was sent');
    const charges = await new Bed({ cable: 'charge' }).boot(ready);
    await expect(go(charges, 'x')).rejects.toThrow('A cable that only charges carries no program');
    expect(Object.keys(CABLES)).toContain('charge');
  });
  it('says that pieces do not arrive whole, or that what arrived is another text, and keeps the old program', async () => {
    const good = await new Bed().boot(ready);
    await go(good, 'old');
    const flash = good.board.flash;
    const garbled = await new Bed().boot(flash);
    // the line that says so arrives as another, each time
    garbled.garble = (c) => (c.startsWith('_w(') ? c.replace('log(', 'og(') : c);
    await expect(go(garbled, 'new')).rejects.toThrow('Too much is lost on the way');
    expect(await garbled.says()).toEqual(['old']);
    const spoiled = await new Bed().boot(flash);
    spoiled.garble = spoils(spoiled);
    await expect(go(spoiled, 'new')).rejects.toThrow('What arrived differs from what was sent');
    expect(await spoiled.says()).toEqual(['old']);
    expect(Object.keys(spoiled.flash).filter((p) => p.startsWith('p/2'))).toEqual([]);
  });
  it('tells how far it is, in hundredths that only grow, for the library and for the program', async () => {
    const bed = await new Bed().boot({});
    const told: Progress[] = [];
    await go(bed, 'x', { progress: (p) => told.push(p) });
    for (const [stage, word, bytes] of [
      ['library', 'Installing the board library', library.file.length],
      ['sending', 'Sending', file('x').length]
    ] as const) {
      const steps = told.filter((p) => p.stage === stage);
      expect(steps).toHaveLength(Math.ceil(bytes / 192));
      expect(steps.at(-1)).toEqual({ stage, share: 1, says: `${word}, 100 %` });
      steps.forEach(({ share, says }, i) => {
        expect(share).toBeCloseTo(Math.min(bytes, (i + 1) * 192) / bytes, 12);
        expect(says).toBe(`${word}, ${Math.round(share * 100)} %`);
      });
    }
    // and it leaves the device as it was found, in its friendly mode
    expect(bed.commands.at(-1)).toBe('\x02');
  });
  it('is refused before anything is written where there is no room, with what could go', async () => {
    const bed = await new Bed().boot({ ...ready, 'p/1.py': file('one'), 'p/2.py': file('two', 'Zwei') });
    const free = STORAGE - usedBytes(bed.board.flash);
    const names = Object.keys(bed.board.flash);
    bed.board.write('photos.bin', new Uint8Array(free));
    await expect(go(bed, 'tight')).rejects.toThrow(
      'The storage of the device is full: 2.0 kB are needed and 0.0 kB are free. These could go: one (1.0 kB), Zwei (1.0 kB).'
    );
    bed.board.write('photos.bin', new Uint8Array(free - 1024));
    await expect(go(bed, 'tight')).rejects.toThrow('These could go: one (1.0 kB).');
    expect(Object.keys(bed.board.flash).sort()).toEqual([...names, 'photos.bin'].sort());
    for (const path of ['p/1.py', 'p/2.py']) bed.board.remove(path);
    bed.board.write('photos.bin', new Uint8Array(free + 1024));
    await expect(go(bed, 'tight')).rejects.toThrow('Other files take the room');
    // the last blocks that are free are taken
    bed.board.write('photos.bin', new Uint8Array(free));
    const { found } = await go(bed, 'tight');
    expect([found.freeBytes, found.blockBytes]).toEqual([2048, 1024]);
    expect(await bed.says()).toEqual(['tight']);
  });
  it('passes on in words what the device says: full on the way, or something else', async () => {
    for (const [raised, says] of [
      ['OSError(28)', 'The storage of the device is full. Take'],
      ['ValueError("a  b")', /^The device did not understand what it was sent/],
      ['OSError(5)', /^The storage of the device cannot be read or written just now/],
      ['OSError(2)', /^A file on the device was gone/],
      ['MemoryError("x")', /^The memory of the device is full/]
    ] as const) {
      const bed = await new Bed().boot(ready);
      let tried = 0;
      bed.garble = (c) => (c.startsWith('_w(') ? (tried++, `raise ${raised}\x04`) : c);
      await expect(go(bed, 'x')).rejects.toThrow(says);
      // a full storage does not grow by asking again
      expect(tried === 1).toBe(raised === 'OSError(28)');
    }
    // the file system of the stand-in ends where a board's does
    const bed = await new Bed().boot(ready);
    bed.board.write('photos.bin', new Uint8Array(STORAGE - usedBytes(bed.board.flash) - 2048));
    await expect(typeLine(bed, `open('x', 'wb').write(bytes(3000))`)).rejects.toThrow(
      'The storage of the device is full'
    );
    expect(usedBytes(bed.board.flash)).toBeLessThanOrEqual(STORAGE);
  });
  it('sends nothing to another device, an old MicroPython, a factory demo, or what answers something else', async () => {
    const bed = await new Bed().boot(ready);
    await expect(go(bed, 'x', { device: 'saucer' })).rejects.toThrow(
      'This device is a Barrow, and the program is for a Saucer.'
    );
    // the oldest that will do, and the first of the next number
    for (const micropython of ['1.20', '2.0']) checkFits({ micropython, device: '' } as Found, 'barrow');
    expect(() => checkFits({ micropython: '0.99', device: '' } as Found, 'barrow')).toThrow('too old');
    expect(() => checkFits({ micropython: '1.19', device: '' } as Found, 'barrow')).toThrow(
      'MicroPython 1.19 on this device is too old: 1.20 or later is needed.'
    );
    expect(() => checkFits({ micropython: '2.0', device: '' } as Found, 'barrow')).not.toThrow();
    const factory = await new Bed().boot({}, 'factory');
    await expect(go(factory, 'x')).rejects.toMatchObject({ what: 'factory' });
    const bare = await new Bed().boot({}, '');
    await expect(go(bare, 'x')).rejects.toMatchObject({ what: 'silent' });
    const talks = (word: string): LinkPort => ({ write: async () => {}, read: async () => utf8(word) });
    await expect(go(talks('tick\r\n') as Bed, 'x')).rejects.toMatchObject({
      what: 'other firmware',
      message: expect.stringContaining('"tick"')
    });
    await expect(go(talks('Clockwork 2.1 ready\r\n>>> ') as Bed, 'x')).rejects.toThrow(
      'Something other than MicroPython answers on this device: "Clockwork 2.1 ready"'
    );
    for (const untouched of [bed, factory, bare])
      expect(Object.keys(untouched.board.flash).filter((f) => f.startsWith('p/'))).toEqual([]);
  });
  it('counts programs by number, whatever else lies beside them, and an odd library is an old one', async () => {
    const bed = await new Bed().boot({
      'lib/mossbell.py': utf8('VERSION = 3\n'),
      'p/7.py': file('seven'),
      'p/notes.py': utf8('# mine'),
      'p/8.txt': utf8('x')
    });
    const { found, number } = await go(bed, 'eight');
    expect([found.library, found.programs.map((p) => p.number), number]).toEqual(['?', [7], 8]);
    expect(await bed.says()).toEqual(['eight']);
  });
  it('can be cancelled, and says that the old program is still there', async () => {
    const bed = await new Bed().boot(ready);
    await go(bed, 'old');
    await expect(go(bed, 'new', { cancelled: () => true })).rejects.toThrow('The old program is still on the device');
    expect(await bed.says()).toEqual(['old']);
  });
  it('tells when the device does not answer', async () => {
    const dead: LinkPort = { write: async () => {}, read: async () => undefined };
    await expect(
      send(dead, { file: file('x'), device: 'barrow', library, mayInstall: async () => true, progress: () => {} })
    ).rejects.toThrow('does not answer');
  });
});

describe('the launcher', () => {
  it('falls back to the newest program whose checksum holds', async () => {
    const broken = file('broken');
    broken[30] ^= 1;
    const bed = await new Bed().boot({
      ...ready,
      'p/1.py': file('first'),
      'p/2.py': file('second'),
      'p/3.py': broken,
      'p/active': utf8('3 abc')
    });
    expect(await bed.says()).toEqual(['second']);
    const none = await new Bed().boot({ ...ready, 'p/active': utf8('9') });
    expect(none.board.start()).toBe('There is no program on this device yet.');
  });
  it('stops an endless program on Ctrl-C or when Bar is held for 2 s', async () => {
    const endless = utf8(
      programFile('from mossbell import *\n\n\ndef main():\n    while True:\n        pass\n\n\nrun(main)\n')
    );
    for (const how of ['interrupt', 'bar'] as const) {
      let ended: Trace | undefined;
      let pressed = false;
      const board: StandIn = await StandIn.boot({
        serial: 'T',
        name: 'T',
        flash: { ...ready, 'p/1.py': endless },
        load: loadMicroPython as unknown as LoadMicroPython,
        quirks: noQuirks,
        host: {
          write: () => {},
          began: () => {},
          ended: (t) => (ended = t),
          tick: (bench) => {
            if (bench.worldUs < 500_000 || pressed) return;
            pressed = true;
            if (how === 'interrupt') board.interrupt();
            else board.press('Bar', true);
          }
        }
      });
      board.place = { kit: barrow, mat: hall, pose: hall.start };
      board.start();
      expect(ended!.ended).toBe('stopped');
      expect(ended!.ticks).toBeLessThan(how === 'bar' ? 2600 : 600);
    }
  });
});

describe('literals for the raw REPL', () => {
  it('are ASCII and lose nothing; CRC-32 has its check value', () => {
    expect(pyString('é "x"\n')).toBe('"\\u00e9 \\"x\\"\\n"');
    expect(pyBytes(Uint8Array.of(65, 39, 92, 0, 255))).toBe("b'A\\x27\\x5c\\x00\\xff'");
    expect(pyBytes(Uint8Array.of(31, 32, 126, 127))).toBe("b'\\x1f ~\\x7f'");
    // check value of CRC-32 for "123456789" (ISO 3309 / ITU-T V.42; catalogued as 0xCBF43926)
    expect(CRC32.str('123456789') >>> 0).toBe(0xcbf43926);
  });
});
