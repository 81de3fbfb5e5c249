/**
 * Sending a program (design: link.md). A new file is written beside the old ones, checked, renamed, and only then made the
 * active one: cut at any byte, the device still has its old program, whole.
 */
import CRC32 from 'crc-32';
import { LinkProblem, type LinkPort } from './port.ts';
import { pyBytes, pyString, RawRepl } from './repl.ts';

export type Found = {
  micropython: string;
  /** of the board library, or '' where it is missing */
  library: string;
  freeBytes: number;
  serial: string;
  battery: number;
  programs: number[];
};
export type Progress = { stage: 'asking' | 'library' | 'sending' | 'checking' | 'done'; share: number; says: string };
export type Step = (progress: Progress) => void;
/** A program as the list on the device has it. */
export type Called = { name: string; at: number };
const toldOf = ({ name, at }: Called): string => `${Math.round(at)} ${name}`;

const CHUNK = 192;
const ASK = `
import os, sys
def _ask():
    try:
        with open('lib/mossbell.py') as f:
            line = [l for l in f.read(1500).split('\\n') if l.startswith('VERSION')]
        version = (line[0].split('"') + ['?', '?'])[1] if line else '?'
    except OSError:
        version = ''
    try:
        import mossbell_port as p
        serial, battery = p.serial(), p.battery()
    except ImportError:
        serial, battery = '', -1
    for folder in ('p', 'lib'):
        try:
            os.mkdir(folder)
        except OSError:
            pass
    s = os.statvfs('/')
    print(sys.implementation[1][0], sys.implementation[1][1], sep='.')
    print(version)
    print(s[0] * s[3])
    print(serial)
    print(battery)
    print(' '.join([n[:-3] for n in os.listdir('p') if n.endswith('.py')]))
_ask()
`;
import { say } from '../words.ts';

/** Reads what is on the device. The raw REPL must have been entered. */
export async function ask(repl: RawRepl): Promise<Found> {
  const [micropython, library, free, serial, battery, programs] = (await repl.exec(ASK)).split(/\r?\n/);
  return {
    micropython,
    library,
    freeBytes: Number(free),
    serial,
    battery: Number(battery),
    // files of other names are somebody's own
    programs: (programs ?? '')
      .split(' ')
      .filter((name) => /^\d+$/.test(name))
      .map(Number)
  };
}

/** Makes a program the one that the button starts: the pointer is replaced as a whole. `os` has been imported. */
export const makeActive = (repl: RawRepl, number: number, crc: number): Promise<string> =>
  repl.exec(
    `_f = open('p/active.tmp', 'w')\n_f.write('${number} ${(crc >>> 0).toString(16)}')\n_f.close()\nos.rename('p/active.tmp', 'p/active')`
  );
/** Writes a file in acknowledged chunks to `path`.tmp, reads back size and checksum, renames it. */
async function put(
  repl: RawRepl,
  path: string,
  bytes: Uint8Array,
  said: (share: number) => void,
  cancelled: () => boolean
): Promise<void> {
  const tmp = pyString(`${path}.tmp`);
  await repl.exec(`import os, binascii\n_f = open(${tmp}, 'wb')`);
  try {
    for (let at = 0; at < bytes.length; at += CHUNK) {
      if (cancelled()) throw new LinkProblem(say('Sending was cancelled. The old program is still on the device.'));
      const wrote = await repl.exec(`print(_f.write(${pyBytes(bytes.subarray(at, at + CHUNK))}))`);
      if (Number(wrote) !== Math.min(CHUNK, bytes.length - at))
        throw new LinkProblem(say('A piece of the program did not arrive whole. Send it again.'));
      said(Math.min(1, (at + CHUNK) / bytes.length));
    }
  } finally {
    await repl.exec('_f.close()').catch(() => undefined);
  }
  const [size, crc] = (await repl.exec(`_d = open(${tmp}, 'rb').read()\nprint(len(_d), binascii.crc32(_d))\n_d = None`))
    .trim()
    .split(' ')
    .map(Number);
  if (size !== bytes.length || crc !== CRC32.buf(bytes) >>> 0)
    throw new LinkProblem(
      say('What arrived differs from what was sent. Send it again; the old program is still on the device.')
    );
  await repl.exec(`os.rename(${tmp}, ${pyString(path)})`);
}

export type SendOptions = {
  /** program text, with the checksum line that the launcher looks for */
  file: Uint8Array;
  /** what its list of programs calls it, and when it was sent, ms since 1970 */
  called?: Called;
  /** the board library as it ships, and its version */
  library: { file: Uint8Array; version: string };
  /** asked when the library is missing or old */
  mayInstall: (found: Found) => Promise<boolean>;
  progress: Step;
  cancelled?: () => boolean;
};

/** The whole procedure. @returns what was found, and the number under which the program now stands */
export async function send(
  port: LinkPort,
  { file, called, library, mayInstall, progress, cancelled = () => false }: SendOptions
): Promise<{ found: Found; number: number }> {
  const repl = new RawRepl(port);
  progress({ stage: 'asking', share: 0, says: say('Asking the device what it has') });
  await repl.enter();
  const found = await ask(repl);
  if (found.library !== library.version) {
    if (!(await mayInstall(found))) {
      await repl.leave();
      throw new LinkProblem(
        say('Without the board library the program cannot run. Nothing on the device was changed.')
      );
    }
    await put(
      repl,
      'lib/mossbell.py',
      library.file,
      (share) =>
        progress({
          stage: 'library',
          share,
          says: say('Installing the board library, {round} %', { round: Math.round(share * 100) })
        }),
      cancelled
    );
  }
  if (file.length > found.freeBytes)
    throw new LinkProblem(say('The storage of the device is full. Delete a program that is no longer needed.'));
  const number = Math.max(0, ...found.programs) + 1;
  await put(
    repl,
    `p/${number}.py`,
    file,
    (share) =>
      progress({ stage: 'sending', share, says: say('Sending, {round} %', { round: Math.round(share * 100) }) }),
    cancelled
  );
  progress({ stage: 'checking', share: 1, says: say('Making it the one the button starts') });
  // what it is called stands beside it; the pointer comes last
  if (called) await repl.exec(`_f = open('p/${number}.txt', 'w')\n_f.write(${pyString(toldOf(called))})\n_f.close()`);
  await makeActive(repl, number, CRC32.buf(file));
  await repl.leave();
  progress({ stage: 'done', share: 1, says: say('The program is on the device') });
  return { found, number };
}
