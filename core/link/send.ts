/**
 * Sending a program (design: link.md). A new file is written beside the old ones, checked, renamed, and only then made the
 * active one: cut at any byte, the device still has its old program, whole. What was written before a cut is not sent again.
 */
import CRC32 from 'crc-32';
import { say } from '../words.ts';
import { utf8 } from '../bytes.ts';
import { calledIn, hex, kitName, type Called } from './file.ts';
import { LinkProblem, type LinkPort } from './port.ts';
import { pyString, RawRepl } from './repl.ts';

/** A program that lies on a device. */
export type Held = {
  number: number;
  /** of a program that was put there by another way there is neither name nor time */
  called?: Called;
  bytes: number;
  /** its checksum holds: what is not whole is not started */
  whole: boolean;
  /** the one that the button starts */
  starts: boolean;
  /** CRC-32 of its text, which tells one version of a program from another */
  crc: number;
};
export type Found = {
  micropython: string;
  /** of the board library, or '' where it is missing */
  library: string;
  freeBytes: number;
  /** a file takes whole blocks of so many bytes */
  blockBytes: number;
  /** '' and -1 where the device does not tell */
  serial: string;
  battery: number;
  /** which kit its board is for; '' where it does not tell */
  device: string;
  /** the newest first */
  programs: Held[];
};
export type Progress = { stage: 'asking' | 'library' | 'sending' | 'checking' | 'done'; share: number; says: string };
export type Step = (progress: Progress) => void;

const CHUNK = 192;
/** The board library needs it. */
const OLDEST = [1, 20];
/** Reads what is on the device. The raw REPL must have been entered. */
export async function ask(repl: RawRepl): Promise<Found> {
  const [micropython, library, free, block, serial, battery, device, active, ...lines] = (
    await repl.question('_ask()')
  ).split('\n');
  const programs = lines.flatMap((line): Held[] => {
    const found = /^(\d+) (\d+) ([01]) (\d+)( .*)?$/.exec(line);
    if (!found) return [];
    const [, number, bytes, whole, crc, tail = ''] = found;
    const called = calledIn(tail);
    return [
      {
        number: Number(number),
        bytes: Number(bytes),
        whole: whole === '1',
        starts: false,
        crc: Number(crc),
        ...(called ? { called } : {})
      }
    ];
  });
  programs.sort((a, b) => b.number - a.number);
  // as the launcher does: the one that was made so, or the newest that is whole
  const first = programs.find((p) => p.whole && String(p.number) === active) ?? programs.find((p) => p.whole);
  return {
    micropython,
    library,
    freeBytes: Number(free),
    blockBytes: Number(block),
    serial,
    battery: Number(battery),
    device,
    programs: programs.map((p) => ({ ...p, starts: p === first }))
  };
}
/** In the raw REPL, which is left again, whatever comes of it. */
export async function within<T>(port: LinkPort, does: (repl: RawRepl) => Promise<T>): Promise<T> {
  const repl = new RawRepl(port);
  await repl.enter();
  try {
    return await does(repl);
  } finally {
    await repl.leave().catch(() => undefined);
  }
}
/** What is on the device, asked over its cable. @throws LinkProblem */
export const identify = (port: LinkPort): Promise<Found> => within(port, ask);

/** Makes a program the one that the button starts: the pointer is replaced as a whole. */
export const makeActive = (repl: RawRepl, number: number, crc: number): Promise<string> =>
  repl.ask(
    `import os\nwith open('p/active.tmp', 'w') as f:\n    f.write('${number} ${hex(crc)}')\nos.rename('p/active.tmp', 'p/active')`
  );
const crcOf = (bytes: Uint8Array): number => CRC32.buf(bytes) >>> 0;
const LIBRARY = 'lib/mossbell.py';
const LAST_LINE = '# moss bell crc ';
/** How many bytes a file on the device has, and their CRC-32; 0 and 0 where there is none. */
const told = async (repl: RawRepl, path: string): Promise<[number, number]> =>
  (await repl.question(`_told(${pyString(path)})`)).split(' ').map(Number) as [number, number];
async function holds(repl: RawRepl, path: string, bytes: Uint8Array): Promise<boolean> {
  const [size, crc] = await told(repl, path);
  return size === bytes.length && crc === crcOf(bytes);
}
function stopIf(cancelled: () => boolean): void {
  if (cancelled()) throw new LinkProblem(say('Sending was cancelled. The old program is still on the device.'));
}
/**
 * Writes a file in acknowledged pieces to `path`.tmp, reads back size and checksum, renames it. Where a beginning of it lies
 * there already, it goes on from that.
 */
async function put(
  repl: RawRepl,
  path: string,
  bytes: Uint8Array,
  said: (share: number) => void,
  cancelled: () => boolean
): Promise<void> {
  const part = `${path}.tmp`;
  const tmp = pyString(part);
  const [there, crc] = await told(repl, part);
  const from = there <= bytes.length && crc === crcOf(bytes.subarray(0, there)) ? there : 0;
  for (let at = from; at < bytes.length; at += CHUNK) {
    stopIf(cancelled);
    await repl.writes(at, bytes.subarray(at, at + CHUNK));
    said(Math.min(1, (at + CHUNK) / bytes.length));
  }
  const [size, whole] = await told(repl, part);
  if (size !== bytes.length || whole !== crcOf(bytes)) {
    await repl.ask(`import os\ntry:\n    os.remove(${tmp})\nexcept OSError:\n    pass`);
    throw new LinkProblem(
      say('What arrived differs from what was sent. Send it again; the old program is still on the device.')
    );
  }
  await repl.ask(
    `import os\ntry:\n    os.rename(${tmp}, ${pyString(path)})\nexcept OSError:\n    os.stat(${pyString(path)})`
  );
}

/** CRC-32 of a whole program file that lies on the device. */
export const crcOn = async (repl: RawRepl, number: number): Promise<number> => (await told(repl, `p/${number}.py`))[1];
export const takeAway = (repl: RawRepl, number: number): Promise<string> =>
  repl.ask(`import os\ntry:\n    os.remove('p/${number}.py')\nexcept OSError:\n    pass`);
/** CRC-32 of the text in a program file, and what its last line calls it. */
function ofFile(file: Uint8Array): { crc: number; called?: Called } {
  const text = new TextDecoder().decode(file);
  const cut = text.lastIndexOf(LAST_LINE);
  const called = cut < 0 ? undefined : calledIn(text.slice(cut + LAST_LINE.length + 8).trimEnd());
  return { crc: crcOf(utf8(text.slice(0, Math.max(0, cut)))), ...(called ? { called } : {}) };
}
export type SendOptions = {
  /** program text, with the checksum line that the launcher looks for */
  file: Uint8Array;
  /** the kit that the program is for */
  device: string;
  /** the board library as it ships, and its version */
  library: { file: Uint8Array; version: string };
  /** what else a board of one's own needs: put there where it differs */
  files?: readonly { path: string; bytes: Uint8Array }[];
  /** asked when the library is missing or old */
  mayInstall: (found: Found) => Promise<boolean>;
  /** asked where another version of a program of this name lies there: whether it goes once the new one is there. None goes otherwise. */
  mayReplace?: (old: Held) => Promise<boolean>;
  progress: Step;
  cancelled?: () => boolean;
};
export type Sent = {
  /** what was there before */
  found: Found;
  /** and what is there now */
  now: Found;
  /** under which the program now stands */
  number: number;
  /** how often something was lost on the way and said again */
  again: number;
};

/** What a device must be to take a program for `device`. @throws LinkProblem with what is in the way */
export function checkFits(found: Found, device: string): void {
  const [major, minor] = found.micropython.split('.').map(Number);
  if (major < OLDEST[0] || (major === OLDEST[0] && minor < OLDEST[1]))
    throw new LinkProblem(
      say('MicroPython {version} on this device is too old: {oldest} or later is needed. Install MicroPython on it.', {
        version: found.micropython,
        oldest: OLDEST.join('.')
      }),
      'old MicroPython'
    );
  if (found.device && found.device !== device)
    throw new LinkProblem(
      say(
        'This device is a {other}, and the program is for a {device}. Take the right device, or open a project for this one.',
        {
          other: kitName(found.device),
          device: kitName(device)
        }
      ),
      'another device'
    );
}
const kB = (bytes: number): string => (bytes / 1000).toFixed(1);
/** @throws LinkProblem where it has no room for files of these sizes and the pointer, with what could go */
function checkRoom(found: Found, ...files: number[]): void {
  const takes = (bytes: number): number => Math.ceil(bytes / found.blockBytes) * found.blockBytes;
  const needed = [...files, 1].reduce((sum, bytes) => sum + takes(bytes), 0);
  if (needed <= found.freeBytes) return;
  let free = found.freeBytes;
  // the oldest first, and the one that the button starts last of all
  const old = [...found.programs].reverse().sort((a, b) => Number(a.starts) - Number(b.starts));
  const go = old.filter((p) => {
    const goes = free < needed;
    if (goes) free += takes(p.bytes);
    return goes;
  });
  throw new LinkProblem(
    say('The storage of the device is full: {needed} kB are needed and {free} kB are free.', {
      needed: kB(needed),
      free: kB(found.freeBytes)
    }) +
      ' ' +
      (free >= needed
        ? say('These could go: {programs}.', {
            programs: go
              .map(
                (p) => `${p.called?.name ?? say('program {number}', { number: p.number })} (${kB(takes(p.bytes))} kB)`
              )
              .join(', ')
          })
        : say('Other files take the room: take them off the device first.')),
    'full'
  );
}

/** The whole procedure. */
export async function send(
  port: LinkPort,
  { file, device, library, files = [], mayInstall, mayReplace, progress, cancelled = () => false }: SendOptions
): Promise<Sent> {
  const repl = new RawRepl(port);
  progress({ stage: 'asking', share: 0, says: say('Asking the device what it has') });
  await repl.enter();
  try {
    const found = await ask(repl);
    const old = found.library !== library.version;
    checkFits(found, device);
    if (old && !(await mayInstall(found)))
      throw new LinkProblem(
        say('Without the board library the program cannot run. Nothing on the device was changed.')
      );
    const own = ofFile(file);
    const named = found.programs.filter((p) => own.called && p.called?.name === own.called.name);
    const same = named.find((p) => p.whole && p.crc === own.crc);
    checkRoom(found, ...(same ? [] : [file.length]), ...(old ? [library.file.length] : []));
    const needed = [...(old ? [{ path: LIBRARY, bytes: library.file }] : []), ...files];
    for (const { path, bytes } of needed) {
      if (path !== LIBRARY && (await holds(repl, path, bytes))) continue;
      await put(
        repl,
        path,
        bytes,
        (share) =>
          progress({
            stage: 'library',
            share,
            says: say('Installing the board library, {round} %', { round: Math.round(share * 100) })
          }),
        cancelled
      );
    }
    const goes = !same && named.length > 0 && !!(await mayReplace?.(named[0]));
    const number = same?.number ?? Math.max(0, ...found.programs.map((p) => p.number)) + 1;
    // the very same text lies there already
    if (!same)
      await put(
        repl,
        `p/${number}.py`,
        file,
        (share) =>
          progress({ stage: 'sending', share, says: say('Sending, {round} %', { round: Math.round(share * 100) }) }),
        cancelled
      );
    stopIf(cancelled);
    progress({ stage: 'checking', share: 1, says: say('Making it the one the button starts') });
    await makeActive(repl, number, same ? await crcOn(repl, number) : CRC32.buf(file));
    // the new one is there and starts: only now the old ones go
    for (const p of goes ? named : []) await takeAway(repl, p.number);
    const now = await ask(repl);
    await repl.leave();
    progress({ stage: 'done', share: 1, says: say('The program is on the device') });
    return { found, now, number, again: repl.again };
  } catch (error) {
    // it is left as it was found, in its friendly mode
    await repl.leave().catch(() => undefined);
    throw error;
  }
}
