/** The raw REPL's grammar, byte by byte, against a board that speaks it as the MicroPython documentation has it. */
import fc from 'fast-check';
import { describe, expect, it } from 'vitest';
import { startProgram } from './board.ts';
import { type LinkPort } from './port.ts';
import { RawRepl } from './repl.ts';

/** Answers each code that ends in Ctrl-D from a script, in pieces of any size. */
class Scripted implements LinkPort {
  readonly got: string[] = [];
  private typed = '';
  private out: number[] = [];
  constructor(
    private readonly answers: Record<string, { out?: string; error?: string }>,
    private readonly pieces: number[] = [1000]
  ) {}
  private say(text: string): void {
    this.out.push(...Buffer.from(text, 'utf8'));
  }
  async write(bytes: Uint8Array): Promise<void> {
    for (const byte of bytes) {
      if (byte === 2) this.say('\r\nMicroPython v1.27.0; a board\r\n>>> ');
      else if (byte === 1) this.say('raw REPL; CTRL-B to exit\r\n>');
      else if (byte === 3 || byte === 13) this.typed = '';
      else if (byte === 4) {
        const code = this.typed;
        this.typed = '';
        this.got.push(code);
        const { out = '', error = '' } = this.answers[code] ?? {};
        this.say(`OK${out}\x04${error}\x04>`);
      } else this.typed += String.fromCharCode(byte);
    }
  }
  async read(): Promise<Uint8Array | undefined> {
    if (!this.out.length) return undefined;
    const size = this.pieces.shift() ?? 1000;
    return Uint8Array.from(this.out.splice(0, size));
  }
}

describe('the raw REPL', () => {
  it('tells output from errors, however the bytes come in', async () => {
    await fc.assert(
      fc.asyncProperty(fc.array(fc.integer({ min: 1, max: 7 }), { maxLength: 60 }), async (pieces) => {
        const port = new Scripted({ 'print(1)': { out: '1\r\n' }, 'print(2)': { out: 'zwei ü\r\n' } }, [...pieces]);
        const repl = new RawRepl(port);
        expect(await repl.enter()).toContain('MicroPython v1.27.0');
        expect(await repl.exec('print(1)')).toBe('1\r\n');
        expect(await repl.exec('print(2)')).toBe('zwei ü\r\n');
        expect(port.got).toEqual(['print(1)', 'print(2)']);
      }),
      { numRuns: 30 }
    );
  });
  it('has a port for itself until it leaves, or has started a program there', async () => {
    const port = new Scripted({});
    const one = new RawRepl(port);
    await one.enter();
    await expect(new RawRepl(port).enter()).rejects.toThrow('Something is being sent to this device already');
    await one.leave();
    await startProgram(port);
    await new RawRepl(port).enter();
  });
  it('makes a sentence of what the device says went wrong', async () => {
    const port = new Scripted({
      bad: {
        error: 'Traceback (most recent call last):\r\n  File "<stdin>", line 1\r\nNameError: name not defined\r\n'
      },
      full: { error: 'Traceback:\r\nOSError: [Errno 28] ENOSPC\r\n' }
    });
    const repl = new RawRepl(port);
    await repl.enter();
    await expect(repl.exec('bad')).rejects.toThrow(/^The device did not understand what it was sent\. Unplug it/);
    await expect(repl.exec('bad')).rejects.toMatchObject({ raised: 'NameError: name not defined' });
    await expect(repl.exec('full')).rejects.toThrow('The storage of the device is full');
    // and goes on
    expect(await repl.exec('fine')).toBe('');
  });
  it('gets through to a device whose program says things without end, and not to one that never stops', async () => {
    const flood = (bytes: number): LinkPort => {
      const port = new Scripted({ 'print(1)': { out: '1\r\n' } });
      let left = bytes;
      return {
        write: (more) => port.write(more),
        read: async () => {
          if (left <= 0) return port.read();
          left -= 5000;
          return new Uint8Array(5000).fill(46);
        }
      };
    };
    const repl = new RawRepl(flood(150_000));
    expect(await repl.enter()).toContain('MicroPython v1.27.0');
    expect(await repl.exec('print(1)')).toBe('1\r\n');
    await expect(new RawRepl(flood(Infinity)).enter()).rejects.toThrow('Something other than MicroPython answers');
  });
  it('gives up on a device that says nothing', async () => {
    const silent: LinkPort = { write: async () => {}, read: async () => undefined };
    await expect(new RawRepl(silent).enter()).rejects.toThrow('does not answer');
  });
});
