/** The whole procedure of sending against a real MicroPython, cut at every byte. */
import { loadMicroPython } from '@micropython/micropython-webassembly-pyscript';
import CRC32 from 'crc-32';
import { describe, expect, it } from 'vitest';
import { programFile } from '../../board/standin/program-file.ts';
import { utf8 } from '../bytes.ts';
import { barrow } from '../kit/kit.ts';
import { noQuirks } from '../kit/quirks.ts';
import { hall } from '../testing/build.ts';
import type { Trace } from '../trace/trace.ts';
import { StandIn, type Flash, type LoadMicroPython } from '../../board/standin/standin.ts';
import { Bed, file, library } from '../../board/standin/bed.ts';
import { LinkClosed, LinkProblem } from './port.ts';
import { pyBytes, pyString } from './repl.ts';
import { send, type Progress } from './send.ts';

const go = (
  bed: Bed,
  word: string,
  options: { install?: boolean; progress?: (p: Progress) => void; cancelled?: () => boolean } = {}
) =>
  send(bed, {
    file: file(word),
    library,
    mayInstall: async () => options.install ?? true,
    progress: options.progress ?? (() => {}),
    cancelled: options.cancelled
  });
const ready: Flash = { 'lib/mossbell.py': library.file };

describe('sending', () => {
  it('puts the program where the button starts it, and finds out what is there', async () => {
    const bed = await new Bed().boot(ready);
    const stages: string[] = [];
    const { found, number } = await go(bed, 'one', { progress: (p) => stages.push(p.stage) });
    expect(found).toMatchObject({ micropython: '1.27', library: '1.6', serial: 'MB-TEST', battery: 100, programs: [] });
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
    expect(Object.keys(bare.board.flash)).toEqual([]);
    await go(bare, 'now');
    expect(CRC32.buf(bare.board.flash['lib/mossbell.py'])).toBe(CRC32.buf(library.file));
    expect(await bare.says()).toEqual(['now']);
  });
  it('replaces an old library', async () => {
    const bed = await new Bed().boot({ 'lib/mossbell.py': utf8('VERSION = "0.3"\n') });
    const { found } = await go(bed, 'new');
    expect(found.library).toBe('0.3');
    expect(await bed.says()).toEqual(['new']);
  });
  it('cut at any byte, leaves the old program or the new one, whole and running', async () => {
    const whole = await new Bed().boot(ready);
    await go(whole, 'old');
    const flash = whole.board.flash;
    const before = whole.sent;
    await go(whole, 'new');
    const length = whole.sent - before;
    const seen = new Set<string>();
    // every byte near the end, where the pointer changes, and a spread over the rest
    const places = [
      ...Array.from({ length: 50 }, (_, i) => Math.floor((i * (length - 150)) / 50)),
      ...Array.from({ length: 150 }, (_, i) => length - 150 + i)
    ];
    for (const at of places) {
      const bed = await new Bed(at).boot(flash);
      await expect(go(bed, 'new')).rejects.toThrow(LinkClosed);
      const said = await bed.says();
      expect(['old', 'new'], `cut at byte ${at}`).toContain(said[0]);
      seen.add(said[0]);
    }
    expect(seen).toContain('old');
  }, 240_000);
  it('notices a byte that was lost on the way, and keeps the old program', async () => {
    const good = await new Bed().boot(ready);
    await go(good, 'old');
    const flash = good.board.flash;
    const probe = await new Bed().boot(flash);
    await go(probe, 'new');
    const bed = await new Bed(Infinity, probe.sent - 700).boot(flash);
    await expect(go(bed, 'new')).rejects.toThrow(LinkProblem);
    expect(await bed.says()).toEqual(['old']);
  });
  it('says which piece did not arrive whole, or that what arrived is another text, and keeps the old program', async () => {
    const good = await new Bed().boot(ready);
    await go(good, 'old');
    const flash = good.board.flash;
    for (const [garble, says] of [
      [(c: string) => c.replace('log(', 'og('), 'A piece of the program did not arrive whole'],
      [(c: string) => c.replace('log("new")', 'log("nev")'), 'What arrived differs from what was sent']
    ] as const) {
      const bed = await new Bed().boot(flash);
      bed.garble = garble;
      await expect(go(bed, 'new')).rejects.toThrow(says);
      expect(await bed.says()).toEqual(['old']);
      expect(bed.flash['p/2.py']).toBeUndefined();
    }
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
  it('is refused before anything is written where there is no room, and takes the last byte that is free', async () => {
    const free = (n: number) => (c: string) => c.replace('print(s[0] * s[3])', `print(${n})`);
    const size = file('tight').length;
    const bed = await new Bed().boot(ready);
    bed.garble = free(size - 1);
    await expect(go(bed, 'tight')).rejects.toThrow('The storage of the device is full');
    expect(Object.keys(bed.board.flash).filter((p) => p.startsWith('p/'))).toEqual([]);
    const next = await new Bed().boot(ready);
    next.garble = free(size);
    expect((await go(next, 'tight')).found.freeBytes).toBe(size);
  });
  it('passes on in words what the device says: full on the way, or something else', async () => {
    for (const [raised, says] of [
      ['OSError(28)', 'The storage of the device is full. Delete'],
      ['ValueError("a  b")', /^The device says: ValueError: a {2}b$/]
    ] as const) {
      const bed = await new Bed().boot(ready);
      bed.garble = (c) => (c.includes('_f.write(b') ? `raise ${raised}\x04` : c);
      await expect(go(bed, 'x')).rejects.toThrow(says);
    }
  });
  it('counts programs by number, whatever else lies beside them, and an odd library is an old one', async () => {
    const bed = await new Bed().boot({
      'lib/mossbell.py': utf8('VERSION = 3\n'),
      'p/7.py': file('seven'),
      'p/notes.py': utf8('# mine'),
      'p/8.txt': utf8('x')
    });
    const { found, number } = await go(bed, 'eight');
    expect([found.library, found.programs, number]).toEqual(['?', [7], 8]);
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
      send(dead, { file: file('x'), library, mayInstall: async () => true, progress: () => {} })
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
