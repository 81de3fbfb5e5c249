/**
 * MicroPython's raw REPL: Ctrl-C interrupts, Ctrl-A enters raw mode, Ctrl-D runs what was typed, Ctrl-B leaves. A reply is
 * "OK", output, 0x04, errors, 0x04, ">" (MicroPython documentation, "The MicroPython Interactive Interpreter Mode").
 */
import { utf8 } from '../bytes.ts';
import { LinkProblem, type LinkPort } from './port.ts';
import { say } from '../words.ts';

const TIMEOUT_MS = 4000;
const decode = (bytes: number[]): string => {
  const text = bytes.map((b) => String.fromCharCode(b)).join('');
  try {
    return decodeURIComponent(
      text.replace(/[^A-Za-z0-9]/g, (c) => `%${c.charCodeAt(0).toString(16).padStart(2, '0')}`)
    );
  } catch {
    return text;
  }
};

export class RawRepl {
  private waiting: number[] = [];
  constructor(private readonly port: LinkPort) {}

  private async until(end: string, timeoutMs = TIMEOUT_MS): Promise<string> {
    const tail = [...end].map((c) => c.charCodeAt(0));
    for (let looked = 0; ;) {
      for (; looked + tail.length <= this.waiting.length; looked++)
        if (tail.every((c, i) => this.waiting[looked + i] === c))
          return decode(this.waiting.splice(0, looked + tail.length).slice(0, looked));
      const more = await this.port.read(timeoutMs);
      if (!more)
        throw new LinkProblem(
          say(
            'The device does not answer. A cable that only charges carries no program: take another one. Otherwise unplug the device, plug it in again and try once more.'
          )
        );
      this.waiting.push(...more);
    }
  }

  /** Stops whatever runs and enters the raw REPL. @returns the banner's last line, with MicroPython's version */
  async enter(): Promise<string> {
    await this.port.write(utf8('\r\x03\x03\x02'));
    const banner = await this.until('>>> ');
    this.waiting.length = 0;
    await this.port.write(utf8('\r\x01'));
    await this.until('raw REPL; CTRL-B to exit\r\n>');
    return banner.split('\n').find((l) => l.includes('MicroPython')) ?? '';
  }

  /** Runs code; what it printed. @throws LinkProblem with the device's last line if it raised */
  async exec(code: string, timeoutMs = TIMEOUT_MS): Promise<string> {
    await this.port.write(utf8(code + '\x04'));
    await this.until('OK', timeoutMs);
    const out = await this.until('\x04', timeoutMs);
    const errors = await this.until('\x04>', timeoutMs);
    if (errors.trim()) {
      const last = errors.trim().split('\n').pop()!.trim();
      if (/OSError: (\[Errno )?28/.test(last))
        throw new LinkProblem(say('The storage of the device is full. Delete a program that is no longer needed.'));
      throw new LinkProblem(say('The device says: {last}', { last }));
    }
    return out;
  }

  async leave(): Promise<void> {
    await this.port.write(utf8('\x02'));
  }
}
/** Text as a Python literal with only ASCII in it. */
export const pyString = (text: string): string =>
  JSON.stringify(text).replace(/[\u007f-\uffff]/g, (c) => `\\u${c.charCodeAt(0).toString(16).padStart(4, '0')}`);
/** Bytes as a Python literal. */
export const pyBytes = (bytes: Uint8Array): string =>
  `b'${[...bytes].map((b) => (b >= 32 && b < 127 && b !== 39 && b !== 92 ? String.fromCharCode(b) : `\\x${b.toString(16).padStart(2, '0')}`)).join('')}'`;
