/**
 * MicroPython's raw REPL: Ctrl-C interrupts, Ctrl-A enters raw mode, Ctrl-D runs what was typed, Ctrl-B leaves. A reply is
 * "OK", output, 0x04, errors, 0x04, ">" (MicroPython documentation, "The MicroPython Interactive Interpreter Mode").
 * A cable may lose bytes. So what is run over it comes with its checksum, is run only if that holds, and answers with
 * checksums of its own; what did not go through is said again. A lost byte never makes another command of one.
 */
import CRC32 from 'crc-32';
import { joined, utf8 } from '../bytes.ts';
import { LinkProblem, type LinkPort } from './port.ts';
import { say } from '../words.ts';

const TIMEOUT_MS = 4000;
/** how long a reply is awaited that should come at once; how often what did not go through is said */
const SOON_MS = 500;
const TRIES = 12;
const SAME = 4;
/** bytes of code at once: of a longer line too much would have to be said again */
const PIECE = 240;
/** a device that talks without end is not listened to for ever */
const FLOOD = 1 << 16;
const FACTORY = /factory demo/i;
const RAW = 'raw REPL; CTRL-B to exit\r\n>';
/**
 * What is put on the device first: `_a` takes a piece of longer code into `_k`; `_x` runs code whose result is in `r`, and `p`
 * the file that `_w` writes pieces of. Each tells what it heard by its checksum.
 */
const HELPERS = `import binascii
p = r = ''
_k = b''
_b = binascii.crc32
def _a(a, c, d):
    global _k
    if _b(d, a) != c:
        return print('again')
    _k = _k[:a] + d
    print(c, len(_k), end='')
def _x(c, s):
    global r
    if _b(s) != c:
        return print('again')
    r = ''
    exec(s, globals())
    t = str(r)
    print(c, _b(t.encode()), t, end='')
def _w(a, c, d):
    if _b(d, a) != c:
        return print('again')
    with open(p, 'r+b' if a else 'wb') as f:
        f.seek(a)
        f.write(d)
    print(c, a, len(d), end='')
`;
/** Questions that are asked again and again: how long a file is, and its CRC-32; and what there is on the device. */
const QUESTIONS = `
def _told(path):
    global p
    p = path
    n = c = 0
    try:
        with open(path, 'rb') as f:
            while True:
                d = f.read(512)
                if not d:
                    break
                n += len(d)
                c = _b(d, c)
    except OSError:
        pass
    return str(n) + ' ' + str(c)
def _ask():
    import os, sys
    library = ''
    try:
        with open('lib/mossbell.py') as f:
            line = [l for l in f.read(1500).split('\\n') if l.startswith('VERSION')]
        library = (line[0].split('"') + ['?', '?'])[1] if line else '?'
    except OSError:
        pass
    serial, battery, device = '', -1, ''
    try:
        import mossbell_port as port
        serial, battery, device = port.serial(), port.battery(), port.device()
    except (ImportError, AttributeError):
        pass
    for folder in ('p', 'lib'):
        try:
            os.mkdir(folder)
        except OSError:
            pass
    stat = os.statvfs('/')
    try:
        with open('p/active') as f:
            active = f.read().split()[0]
    except (OSError, IndexError):
        active = '-'
    lines = [str(sys.implementation[1][0]) + '.' + str(sys.implementation[1][1]), library, str(stat[0] * stat[3]), str(stat[0]), serial, str(battery), device, active]
    for name in os.listdir('p'):
        if not name.endswith('.py') or not name[:-3].isdigit():
            continue
        with open('p/' + name, 'rb') as f:
            data = f.read()
        cut = data.rfind(b'# moss bell crc ')
        crc, whole, tail = _b(data[:cut]), False, ''
        try:
            whole = cut >= 0 and crc == int(data[cut + 16:cut + 24], 16)
            tail = data[cut + 24:].decode().strip() if whole else ''
        except ValueError:
            pass
        lines.append(' '.join([name[:-3], str(len(data)), str(int(whole)), str(crc), tail]))
    return '\\n'.join(lines)
`;
/** Where all of it is kept on the device, so that it need not travel the next time; its last line tells which it is. */
const KEPT = 'mossbell_link';
const VERSION = CRC32.str(HELPERS + QUESTIONS) >>> 0;
const KEEPS = `
import os, sys
try:
    with open('lib/${KEPT}.py', 'wb') as f:
        f.write(_s + _k[:${utf8(QUESTIONS).length}] + b'\\n_v = ${VERSION}\\n')
except OSError:
    try:
        os.remove('lib/${KEPT}.py')
    except OSError:
        pass
sys.modules.pop('${KEPT}', None)
`;
const crcOf = (bytes: Uint8Array, from = 0): number => CRC32.buf(bytes, from) >>> 0;
const decoder = new TextDecoder();

/** Ports that somebody talks over: what two say at once would be a muddle. */
const talking = new WeakSet<LinkPort>();
/** What went wrong on the way, and may go right the next time. */
class Garbled extends Error {}

export class RawRepl {
  private waiting: Uint8Array = new Uint8Array(0);
  /** how often something had to be said again since it was entered */
  again = 0;
  private helped = false;
  /** the questions are there too */
  private asks = false;
  constructor(private readonly port: LinkPort) {}

  /**
   * Reads up to `end`, and past it. @returns what stood before it; undefined where it did not come in time
   * @param quietMs how long it may be silent once it has begun to speak
   */
  private async until(end: string, timeoutMs: number, quietMs = timeoutMs): Promise<string | undefined> {
    const tail = utf8(end);
    for (let looked = 0; ;) {
      for (; looked + tail.length <= this.waiting.length; looked++)
        if (tail.every((c, i) => this.waiting[looked + i] === c)) {
          const text = decoder.decode(this.waiting.subarray(0, looked));
          this.waiting = this.waiting.slice(looked + tail.length);
          return text;
        }
      if (this.waiting.length > FLOOD) return undefined;
      const more = await this.port.read(this.waiting.length ? quietMs : timeoutMs);
      if (!more) return undefined;
      this.waiting = joined([this.waiting, more]);
    }
  }
  private silent(): LinkProblem {
    return new LinkProblem(
      say(
        'The device does not answer. A cable that only charges carries no program: take another one. Otherwise unplug the device, plug it in again and try once more.'
      ),
      'silent'
    );
  }

  /** Stops whatever runs and enters the raw REPL. @returns MicroPython's line of the banner @throws LinkProblem if it is none */
  async enter(): Promise<string> {
    if (talking.has(this.port))
      throw new LinkProblem(
        say('Something is being sent to this device already. Wait until it is there, and send again.')
      );
    talking.add(this.port);
    try {
      return await this.entering();
    } catch (error) {
      talking.delete(this.port);
      throw error;
    }
  }
  private async entering(): Promise<string> {
    let heard = '';
    for (let tries = 0; tries < 4; tries++) {
      this.waiting = new Uint8Array(0);
      await this.port.write(utf8('\r\x03\x03\x02'));
      const banner = await this.until('>>> ', tries ? SOON_MS * 2 : TIMEOUT_MS / 2, SOON_MS);
      // of one that talks without end, its beginning
      heard ||= (banner ?? decoder.decode(this.waiting.subarray(0, 200))).trim();
      if (FACTORY.test(heard)) break;
      if (banner === undefined) continue;
      const line = banner.split('\n').find((l) => l.includes('MicroPython'));
      if (await this.rawMode()) return line?.trim() ?? '';
      if (!line) break;
    }
    if (FACTORY.test(heard))
      throw new LinkProblem(
        say(
          'The device has its factory demo and no MicroPython. Install MicroPython first: hold Dot while you plug it in, and it appears as a drive.'
        ),
        'factory'
      );
    if (heard)
      throw new LinkProblem(
        say('Something other than MicroPython answers on this device: "{heard}". Install MicroPython on it.', {
          heard: heard.split(/\r?\n/)[0].slice(0, 80)
        }),
        'other firmware'
      );
    throw this.silent();
  }
  private async rawMode(): Promise<boolean> {
    this.waiting = new Uint8Array(0);
    this.helped = this.asks = false;
    await this.port.write(utf8('\r\x03\x01'));
    return (await this.until(RAW, TIMEOUT_MS / 2)) !== undefined;
  }
  /** Back to where commands are taken, after something was lost. */
  private async recover(): Promise<void> {
    this.again++;
    for (let tries = 0; tries < TRIES; tries++) {
      this.waiting = new Uint8Array(0);
      await this.port.write(utf8('\r\x03\x03\x01'));
      if ((await this.until(RAW, SOON_MS)) !== undefined) return;
    }
    throw this.silent();
  }

  /** Runs code once, as it is; what it printed. @throws LinkProblem with the device's last line if it raised */
  async exec(code: string, timeoutMs = TIMEOUT_MS): Promise<string> {
    await this.port.write(utf8(code + '\x04'));
    const ok = await this.until('OK', timeoutMs);
    const out = ok === undefined ? undefined : await this.until('\x04', timeoutMs);
    const errors = out === undefined ? undefined : await this.until('\x04>', timeoutMs);
    if (errors === undefined) throw this.silent();
    if (errors.trim()) throw problemOf(errors);
    return out!;
  }
  /** Whether what is put there first lies on the device from before, whole and of this version. */
  private async kept(): Promise<boolean> {
    try {
      const said = await this.exec(`from ${KEPT} import _a,_x,_w,_v;print(_v)`, SOON_MS);
      return said.trim() === String(VERSION);
    } catch (error) {
      if (!(error instanceof LinkProblem)) throw error;
      if (error.what === 'silent') await this.recover();
      return false;
    }
  }
  /** Asks one of the QUESTIONS: `_told(path)` or `_ask()`. @throws LinkProblem */
  async question(call: string): Promise<string> {
    // the first word tells whether the questions lie there from before
    if (!this.helped) await this.ask('r=1');
    if (!this.asks) await this.ask(QUESTIONS + KEEPS);
    this.asks = true;
    return this.ask(`r=${call}`);
  }
  /** Says one line, again where it did not go through. @returns what follows `crc` in the answer */
  private async sure(line: string, crc: number, timeoutMs: number): Promise<string> {
    let said = '';
    let same = 0;
    for (let tries = 0; tries < TRIES; tries++) {
      try {
        if (!this.helped && (await this.kept())) this.helped = this.asks = true;
        if (!this.helped) {
          const code = utf8(HELPERS);
          const heard = await this.exec(
            `import binascii\n_s=${pyBytes(code)}\nprint(binascii.crc32(_s)==${crcOf(code)} and not exec(_s))`,
            timeoutMs
          );
          if (heard.trim() !== 'True') throw new Garbled();
          this.helped = true;
        }
        const out = await this.exec(line, timeoutMs);
        if (!out.startsWith(`${crc} `)) throw new Garbled();
        return out.slice(`${crc} `.length);
      } catch (error) {
        if (!(error instanceof Garbled || error instanceof LinkProblem)) throw error;
        const { message } = error;
        same = message && message === said ? same + 1 : 0;
        said = message;
        // what the device says again and again is so; a full storage does not grow by asking
        if (error instanceof LinkProblem && error.what !== 'silent' && (error.what === 'full' || same >= SAME))
          throw error;
        await this.recover();
      }
    }
    throw new LinkProblem(
      say('Too much is lost on the way: the cable or its plug is bad. Take another cable and send again.')
    );
  }
  /**
   * Runs code that may safely run twice, and that only if it arrived whole. @returns what it left in `r`, as a text
   * @throws LinkProblem
   */
  async ask(code: string, timeoutMs = TIMEOUT_MS): Promise<string> {
    const bytes = utf8(code);
    const long = bytes.length > 2 * PIECE;
    for (let tries = 0; tries < TRIES; tries++) {
      if (long)
        for (let at = 0; at < bytes.length; at += PIECE) {
          const piece = bytes.subarray(at, at + PIECE);
          await this.sure(`_a(${at},${crcOf(piece, at)},${pyBytes(piece)})`, crcOf(piece, at), SOON_MS);
        }
      const answer = await this.sure(`_x(${crcOf(bytes)},${long ? '_k' : pyBytes(bytes)})`, crcOf(bytes), timeoutMs);
      const cut = answer.indexOf(' ');
      const text = answer.slice(cut + 1).replaceAll('\r\n', '\n');
      if (crcOf(utf8(text)) === Number(answer.slice(0, cut))) return text;
      await this.recover();
    }
    throw this.silent();
  }
  /** Writes a piece of the file that `p` was set to by what was asked before: acknowledged, and again where it was not. */
  async writes(at: number, piece: Uint8Array): Promise<void> {
    const crc = crcOf(piece, at);
    for (let tries = 0; tries < TRIES; tries++) {
      if ((await this.sure(`_w(${at},${crc},${pyBytes(piece)})`, crc, SOON_MS)) === `${at} ${piece.length}`) return;
      await this.recover();
    }
    throw this.silent();
  }

  /** Others may talk over the port again, as it is. */
  letGo(): void {
    talking.delete(this.port);
  }
  async leave(): Promise<void> {
    this.letGo();
    await this.port.write(utf8('\x02'));
  }
}
function problemOf(errors: string): LinkProblem {
  const last = errors.trim().split('\n').pop()!.trim();
  return /ENOSPC|(Errno|OSError:) 28\b/.test(last)
    ? new LinkProblem(say('The storage of the device is full. Take a program off it that is no longer needed.'), 'full')
    : new LinkProblem(plainly(last), undefined, last);
}
/** What MicroPython raised, as a person can take it: what is the matter, and what to do. */
function plainly(last: string): string {
  const number = /(?:Errno |OSError: )(\d+)/.exec(last)?.[1];
  if (/ENOENT/.test(last) || number === '2')
    return say(
      'A file on the device was gone while it was needed. Does something else write to it too? Send once more.'
    );
  if (number || /^OSError/.test(last))
    return say(
      'The storage of the device cannot be read or written just now. Unplug it, plug it in again and send once more.'
    );
  if (/^MemoryError/.test(last))
    return say('The memory of the device is full. Unplug it, plug it in again and send once more.');
  return say('The device did not understand what it was sent. Unplug it, plug it in again and send once more.');
}
/** Text as a Python literal with only ASCII in it. */
export const pyString = (text: string): string =>
  JSON.stringify(text).replace(/[\u007f-\uffff]/g, (c) => `\\u${c.charCodeAt(0).toString(16).padStart(4, '0')}`);
/** Bytes as a Python literal. */
export const pyBytes = (bytes: Uint8Array): string =>
  `b'${[...bytes].map((b) => (b === 10 ? '\\n' : b >= 32 && b < 127 && b !== 39 && b !== 92 ? String.fromCharCode(b) : `\\x${b.toString(16).padStart(2, '0')}`)).join('')}'`;
