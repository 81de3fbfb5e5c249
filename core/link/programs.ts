/** The programs that a device holds: their list, which one its button starts, reading one back, taking one away. */
import { bytesOf, joined } from '../bytes.ts';
import { say } from '../words.ts';
import { LinkProblem, type LinkPort } from './port.ts';
import { RawRepl } from './repl.ts';
import { makeActive, type Called } from './send.ts';

export type Held = {
  number: number;
  /** of a program that was put there by another way there is neither */
  called?: Called;
  bytes: number;
  /** its checksum holds: what is not whole is not started */
  whole: boolean;
  /** the one that the button starts */
  starts: boolean;
};
const LIST = `
import os, binascii
def _list():
    try:
        with open('p/active') as f:
            print(f.read().split()[0])
    except (OSError, IndexError):
        print('-')
    try:
        names = os.listdir('p')
    except OSError:
        names = []
    for name in names:
        if not name.endswith('.py') or not name[:-3].isdigit():
            continue
        with open('p/' + name, 'rb') as f:
            data = f.read()
        cut = data.rfind(b'# moss bell crc ')
        try:
            whole = cut >= 0 and binascii.crc32(data[:cut]) == int(data[cut + 16:cut + 24], 16)
        except ValueError:
            whole = False
        try:
            with open('p/' + name[:-3] + '.txt') as f:
                told = f.read()
        except (OSError, ValueError):
            told = ''
        print(name[:-3], len(data), int(whole), told.replace('\\n', ' '))
_list()
`;
async function listed(repl: RawRepl): Promise<Held[]> {
  const [active, ...lines] = (await repl.exec(LIST)).trimEnd().split(/\r?\n/);
  const held = lines.flatMap((line): Held[] => {
    const found = /^(\d+) (\d+) ([01]) ?(?:(\d+) (.*))?$/.exec(line);
    if (!found) return [];
    const [, number, bytes, whole, at, name] = found;
    return [
      {
        number: Number(number),
        bytes: Number(bytes),
        whole: whole === '1',
        starts: false,
        ...(name ? { called: { name, at: Number(at) } } : {})
      }
    ];
  });
  held.sort((a, b) => b.number - a.number);
  // as the launcher does: the one that was made so, or the newest that is whole
  const first = held.find((p) => p.whole && String(p.number) === active) ?? held.find((p) => p.whole);
  return held.map((p) => ({ ...p, starts: p === first }));
}
/** In the raw REPL, which is left again, whatever comes of it. */
async function within<T>(port: LinkPort, does: (repl: RawRepl) => Promise<T>): Promise<T> {
  const repl = new RawRepl(port);
  await repl.enter();
  try {
    return await does(repl);
  } finally {
    await repl.leave().catch(() => undefined);
  }
}
/** @returns the newest first */
export const listPrograms = (port: LinkPort): Promise<Held[]> => within(port, listed);

const PIECE = 180;
/** The text of a program that is whole. */
async function textOf(repl: RawRepl, { number, bytes }: Held): Promise<string> {
  await repl.exec(`import binascii\n_f = open('p/${number}.py', 'rb')`);
  const pieces: Uint8Array[] = [];
  try {
    for (let at = 0; at < bytes; at += PIECE)
      pieces.push(bytesOf((await repl.exec(`print(binascii.b2a_base64(_f.read(${PIECE})).decode().strip())`)).trim()));
  } finally {
    await repl.exec('_f.close()').catch(() => undefined);
  }
  const text = new TextDecoder().decode(joined(pieces));
  return text.slice(0, text.lastIndexOf('# moss bell crc '));
}
async function held(repl: RawRepl, number: number): Promise<Held> {
  const found = (await listed(repl)).find((p) => p.number === number);
  if (!found) throw new LinkProblem(say('Program {number} is not on the device any more.', { number }));
  return found;
}
async function whole(repl: RawRepl, number: number): Promise<Held> {
  const program = await held(repl, number);
  if (!program.whole)
    throw new LinkProblem(say('Program {number} is not whole: it was cut short. Send it again.', { number }));
  return program;
}
/** @throws LinkProblem where it is not whole, or not there */
export const readProgram = (port: LinkPort, number: number): Promise<string> =>
  within(port, async (repl) => textOf(repl, await whole(repl, number)));
/** Makes it the one that the button starts. @throws LinkProblem where it is not whole, or not there */
export const chooseProgram = (port: LinkPort, number: number): Promise<Held[]> =>
  within(port, async (repl) => {
    await whole(repl, number);
    const crc = Number(
      await repl.exec(`import os, binascii\nprint(binascii.crc32(open('p/${number}.py', 'rb').read()))`)
    );
    await makeActive(repl, number, crc);
    return listed(repl);
  });
/** Takes it away; the button starts the newest then, where it was the one. */
export const deleteProgram = (port: LinkPort, number: number): Promise<Held[]> =>
  within(port, async (repl) => {
    await held(repl, number);
    await repl.exec(
      `import os\nos.remove('p/${number}.py')\ntry:\n    os.remove('p/${number}.txt')\nexcept OSError:\n    pass`
    );
    return listed(repl);
  });
