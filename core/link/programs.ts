/** The programs that a device holds: which one its button starts, reading one back, taking one away; and a line of Python. */
import { bytesOf, joined } from '../bytes.ts';
import { say } from '../words.ts';
import { LinkProblem, type LinkPort } from './port.ts';
import { pyString, type RawRepl } from './repl.ts';
import { ask, crcOn, makeActive, takeAway, within, type Found, type Held } from './send.ts';

const PIECE = 360;
/** The text of a program that is whole. */
async function textOf(repl: RawRepl, { number, bytes }: Held): Promise<string> {
  const pieces: Uint8Array[] = [];
  for (let at = 0; at < bytes; at += PIECE)
    pieces.push(
      bytesOf(
        await repl.ask(
          `import binascii\nwith open('p/${number}.py', 'rb') as f:\n    f.seek(${at})\n    r = binascii.b2a_base64(f.read(${PIECE})).decode().strip()`
        )
      )
    );
  const text = new TextDecoder().decode(joined(pieces));
  return text.slice(0, text.lastIndexOf('# moss bell crc '));
}
async function held(repl: RawRepl, number: number): Promise<Held> {
  const found = (await ask(repl)).programs.find((p) => p.number === number);
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
export const chooseProgram = (port: LinkPort, number: number): Promise<Found> =>
  within(port, async (repl) => {
    await whole(repl, number);
    await makeActive(repl, number, await crcOn(repl, number));
    return ask(repl);
  });
/** Takes it away; the button starts the newest then, where it was the one. */
export const deleteProgram = (port: LinkPort, number: number): Promise<Found> =>
  within(port, async (repl) => {
    await held(repl, number);
    await takeAway(repl, number);
    return ask(repl);
  });
/**
 * A line of Python that a person types to a device that waits: what it printed and what it came to, as in any Python.
 * It is run once, whatever becomes of the answer.
 */
export const typeLine = (port: LinkPort, line: string): Promise<string> =>
  within(port, async (repl) => {
    try {
      const said = await repl.exec(
        `_l = ${pyString(line)}\ntry:\n    _c = compile(_l, '', 'eval')\nexcept SyntaxError:\n    exec(_l)\nelse:\n    _v = eval(_c)\n    if _v is not None:\n        print(repr(_v))`
      );
      return said.replaceAll('\r\n', '\n').trimEnd();
    } catch (error) {
      // who types Python is answered in Python
      const raised = error instanceof LinkProblem ? error.raised : undefined;
      throw raised === undefined ? error : new LinkProblem(say('The device says: {last}', { last: raised }));
    }
  });
/** Shows which device it is: its lamps blink and it beeps, where its board library can. */
export const showWhich = (port: LinkPort): Promise<string> =>
  within(port, (repl) => repl.ask(`import mossbell\nmossbell.show_which()\nr = 1`));
