/**
 * Texts that people type: what blocks can say runs alike as text and as blocks, on a real MicroPython. What they cannot say
 * exactly is refused.
 */
import { loadMicroPython } from '@micropython/micropython-webassembly-pyscript';
import CRC32 from 'crc-32';
import fc from 'fast-check';
import { readFileSync } from 'node:fs';
import { describe, expect, it } from 'vitest';
import { utf8 } from '../../core/bytes.ts';
import { barrow } from '../../core/kit/kit.ts';
import { noQuirks } from '../../core/kit/quirks.ts';
import { printPython } from '../../core/language/python/print.ts';
import { readPython } from '../../core/language/python/read.ts';
import { rehearse } from '../../core/run/interpreter.ts';
import { hall, logs } from '../../core/testing/build.ts';
import { randomProgram } from '../../core/testing/random.ts';
import type { Trace } from '../../core/trace/trace.ts';
import { programFile } from '../../core/link/file.ts';
import { StandIn, type LoadMicroPython } from './standin.ts';

const library = readFileSync(new URL('../lib/mossbell.py', import.meta.url));
const whole = (lines: readonly string[]): string => `from mossbell import *

distance = Distance("J7")

n = 0
m = 0
word = 0
things = []


def main():
    global n, m, word
${lines.map((l) => `    ${l}`).join('\n')}


run(main)
`;

let there: Trace | undefined;
let known: { crc: number; blocks: (string | null)[] } | undefined;
const board = await StandIn.boot({
  serial: 'T',
  name: 'T',
  load: loadMicroPython as unknown as LoadMicroPython,
  flash: { 'lib/mossbell.py': library },
  host: { write: () => {}, began: () => {}, tick: () => {}, ended: (t) => (there = t) },
  quirks: noQuirks,
  noise: false,
  onBattery: false,
  seed: 4,
  limitS: 1,
  blocksOf: (crc) => (crc === known?.crc ? known.blocks : undefined)
});
function runs(text: string, blocks?: (string | null)[]): Trace {
  known = blocks && { crc: CRC32.str(text) >>> 0, blocks };
  board.write('p/1.py', utf8(programFile(text)));
  board.place = { kit: barrow, mat: hall, pose: hall.start };
  there = undefined;
  const message = board.start();
  if (!there) throw new Error(`${message}\n${text}`);
  return there;
}
const told = (trace: Trace) => [logs(trace), trace.ended, trace.events.find((e) => e.type === 'error')?.kind];
/** As text, as blocks on MicroPython, as blocks in the interpreter; or why not. */
const all = (lines: readonly string[]) => ways(whole(lines));
function ways(text: string): { ways: unknown[][]; refused?: string } {
  const read = readPython(text);
  if (!read.ok) return { ways: [], refused: read.problems.map((p) => p.message).join(' ') };
  const printed = printPython(read.program, barrow);
  const here = rehearse({ program: read.program, kit: barrow, mat: hall, seed: 4, noise: false, limitS: 1 });
  return { ways: [told(runs(text)), told(runs(printed.text, printed.blocks)), told(here)] };
}

describe('text as people type it', () => {
  it('runs alike as text and as blocks, or is refused: random lines of the readable part of Python', () => {
    const number: fc.Arbitrary<string> = fc.letrec<{ value: string }>((tie) => ({
      value: fc.oneof(
        { maxDepth: 3, withCrossShrink: true },
        fc.constantFrom('n', 'm', '0', '1', '2', '-3', '0.5'),
        fc.constantFrom('n', 'm', '1_000', '0x10', '1e3', '007', '9007199254740993'),
        fc
          .tuple(tie('value'), fc.constantFrom('+', '-', '*', '/', '+', '-', '*', '/', '//', '%'), tie('value'))
          .map(([a, sign, b]) => `${a} ${sign} ${b}`),
        tie('value').map((a) => `(${a})`),
        fc.tuple(tie('value'), tie('value')).map(([a, b]) => `larger(${a}, ${b})`),
        tie('value').map((a) => `-(${a})`)
      )
    })).value;
    const text = fc.constantFrom(
      '"moss"',
      "'it'",
      `'a "b"'`,
      '"7"',
      '"1e5"',
      String.raw`'\n'`,
      String.raw`"a\/b"`,
      '""',
      "'''x'''"
    );
    const condition: fc.Arbitrary<string> = fc.letrec<{ value: string }>((tie) => ({
      value: fc.oneof(
        { maxDepth: 3 },
        fc
          .tuple(number, fc.constantFrom('<', '>', '==', '!=', '<=', '>='), number)
          .map(([a, sign, b]) => `${a} ${sign} ${b}`),
        fc.tuple(number, fc.constantFrom('<', '=='), number, number).map(([a, s, b, c]) => `${a} ${s} ${b} ${s} ${c}`),
        fc.tuple(text, text).map(([a, b]) => `${a} == ${b}`),
        fc.tuple(tie('value'), fc.constantFrom('and', 'or'), tie('value')).map(([a, w, b]) => `${a} ${w} ${b}`),
        tie('value').map((a) => `not ${a}`),
        tie('value').map((a) => `not (${a})`),
        tie('value').map((a) => `(${a})`),
        fc.constantFrom('n', 'm', 'True', 'False')
      )
    })).value;
    const any = fc.oneof(number, text, condition, fc.constantFrom('None', 'word'));
    const line = fc.oneof(
      any.map((v) => [`log(${v})`]),
      number.map((v) => [`n = ${v}`, 'log(n)']),
      condition.map((v) => [`m = ${v}`, 'log(m)']),
      text.map((v) => [`word = ${v}`, 'log(word)', `log(word == ${v})`]),
      fc.tuple(fc.constantFrom('+=', '-='), number).map(([sign, v]) => [`n ${sign} ${v}`, 'log(n)']),
      condition.map((v) => [`if ${v}:`, '    log("yes")', 'else:', '    log("no")']),
      fc.tuple(any, any).map(([a, b]) => [`log(join(${a}, ${b}))`]),
      any.map((v) => [`put_at_end(${v}, things)`, 'log(things)'])
    );
    let read = 0;
    let errors = 0;
    fc.assert(
      fc.property(fc.array(line, { minLength: 1, maxLength: 3 }), (parts) => {
        const { ways, refused } = all(parts.flat());
        if (refused !== undefined) return;
        read++;
        if (ways[0][1] === 'error') errors++;
        expect(ways[1], 'blocks on MicroPython').toEqual(ways[0]);
        expect(ways[2], 'blocks in the interpreter').toEqual(ways[0]);
      }),
      { numRuns: 500, seed: 8 }
    );
    expect(read).toBeGreaterThan(150);
    expect(errors).toBeGreaterThan(5);
  }, 120_000);

  it('a text that the printer could have printed, but for one small change, runs alike or is refused', () => {
    /** a word or a line dropped, two lines swapped, a name or a number changed */
    const change = (text: string, how: string, at: number): string => {
      const lines = text.split('\n');
      const from = lines.findIndex((l) => /^(async )?def /.test(l));
      const inner = lines.flatMap((l, i) => (i >= from && l.trim() ? [i] : []));
      const i = inner[at % inner.length];
      if (how === 'line') lines.splice(i, 1);
      else if (how === 'swap') lines.splice(i, 2, ...lines.slice(i, i + 2).reverse());
      else {
        const words = [...lines[i].matchAll(how === 'number' ? /\b\d+(\.\d+)?\b/g : /\b[a-z_]\w*\b/gi)];
        if (!words.length) return text;
        const word = words[Math.floor(at / inner.length) % words.length];
        const other = { word: '', number: String(at % 7), name: ['n', 'things', 'x', 'await', 'brake'][at % 5] }[how]!;
        lines[i] = lines[i].slice(0, word.index) + other + lines[i].slice(word.index + word[0].length);
      }
      return lines.join('\n');
    };
    let [read, refused] = [0, 0];
    fc.assert(
      fc.property(
        randomProgram,
        fc.constantFrom('line', 'line', 'swap', 'word', 'number', 'name'),
        fc.nat({ max: 10_000 }),
        (p, how, at) => {
          const text = change(printPython(p, barrow).text, how, at);
          const { ways: found, refused: why } = ways(text);
          if (why !== undefined) {
            expect(why.length).toBeGreaterThan(10);
            refused++;
            return;
          }
          read++;
          // one that its time limit ends may be a step further on than the other
          const cut = found.some(([, ended]) => ended === 'time limit');
          const told = (one: unknown[]): unknown => (cut ? (one[0] as unknown[]).slice(0, least) : one);
          const least = Math.min(...found.map(([lines]) => (lines as unknown[]).length));
          expect(told(found[1]), `blocks on MicroPython\n${text}`).toEqual(told(found[0]));
          expect(told(found[2]), `blocks in the interpreter\n${text}`).toEqual(told(found[0]));
        }
      ),
      { numRuns: Number(process.env.TEXTS ?? 250), seed: 20_261_201 }
    );
    expect(read).toBeGreaterThan(40);
    expect(refused).toBeGreaterThan(40);
  }, 900_000);

  const refused: [string, RegExp][] = [
    ['log(10 < distance.cm() < 30)', /a < b and b < c/],
    ['log(n == 1 != 2)', /a < b and b < c/],
    ['n = n or "x"', /"x" alone is none/],
    ['break', /stands in a loop/],
    ['await wait(1)', /leave it out here/],
    ['put_at_end(1, things)\n    global things\n    things = 5', /write a_list/],
    ['n = n or m', /write bool\(\.\.\.\) around it/],
    ['log(n and m)', /write bool/],
    // a condition's place takes no number: such a block could not be saved
    ['n = bool(n or 3)', /3 alone is none/],
    ['wheels.stop("break")', /"break" is none of the words that can stand here: "brake", "coast"/],
    ['display.pixel(1, 1, "onn")', /"onn" is none of the words/],
    ['left_lamp.colour("rainbow")', /"rainbow" is none of the words/],
    ['log(motion.lean("left"))', /"left" is none of the words/],
    ['log(motion.acceleration("q"))', /"q" is none of the words/],
    [`log("${'x'.repeat(2001)}")`, /2003 characters: a block holds at most 2000/],
    ['log("a" + "b")', /join\(a, b\)/],
    ['n += "a"', /join\(a, b\)/],
    ['log(None)', /no None here/],
    ['log(007)', /does not begin with 0/],
    ['log(9007199254740993)', /too large/],
    ['log("""a""")', /a kind of text/],
    ['log(bool(n))', /No block says/]
  ];
  it('a text that looks like a number is a text on the blocks too, on both runners', () => {
    for (const [line, says] of [
      ['log(join("007", 1))', '0071'],
      ['log("1e5" == 100000)', 'False'],
      ['log(as_number(" 12 ") + 1)', '13'],
      ['log(characters("1.50"))', '4']
    ] as const) {
      const { refused, ways } = all([line]);
      expect(refused, line).toBeUndefined();
      for (const way of ways) expect(JSON.stringify(way), line).toContain(`"${says}"`);
    }
  });
  it.each(refused)('%s is refused with its reason', (line, reason) => {
    expect(all([line]).refused).toMatch(reason);
  });
  const exact: [string[], string[]][] = [
    [['log((10 < n) < 30)'], ['True']],
    [[`log('it said "moss"')`], ['it said "moss"']],
    [[String.raw`log('a\\b')`], [String.raw`a\b`]],
    [['log(n < 1 or m > 2)'], ['True']],
    [['log(as_text(7) == as_text(7))'], ['True']]
  ];
  it('a list that is put into itself, a name that means nothing, what has no such verb: each is told at its line', () => {
    const errorOf = (lines: string[]) => runs(whole(lines)).events.find((e) => e.type === 'error');
    expect(errorOf(['log(1)', 'put_at_end(things, things)'])).toMatchObject({
      kind: 'list-in-itself',
      block: 'line 14'
    });
    expect(all(['put_at_end(things, things)']).ways.map((w) => w[2])).toEqual(Array(3).fill('list-in-itself'));
    expect(errorOf(['log(1)', 'log(cuont)'])).toMatchObject({
      block: 'line 14',
      message: expect.stringContaining('The name cuont means nothing here')
    });
    expect(errorOf(['log(distance.mm())'])).toMatchObject({
      block: 'line 13',
      message: 'There is nothing called mm in this.'
    });
    expect(errorOf(['log(1, 2)'])).toMatchObject({ message: 'The function was given too many values, or too few.' });
    expect(errorOf(['distance = 5', 'log(n < "a")'])).toMatchObject({
      kind: 'unlike-things',
      message: expect.stringContaining('(a number and a text)')
    });
  });
  it('that were sent before the sockets were one row run on as they did', () => {
    const text = (left: string, right: string, servo: string, nose: string) => `from mossbell import *

wheels = Wheels(left="${left}", right="${right}", diameter_mm=68, track_mm=124)
striker = Servo("${servo}")
nose = Distance("${nose}")


def main():
    striker.angle(40)
    wheels.drive(cm=2, power=60, ending="brake")
    log(nose.cm() > 0)


run(main)
`;
    const [before, now] = [runs(text('P', 'Q', 'U', '10')), runs(text('J1', 'J2', 'J4', 'J7'))];
    expect(before.ended).toBe('done');
    expect(before.events).toEqual(now.events);
    expect(now.events.filter((e) => e.type === 'servo')).toMatchObject([{ socket: 'J4', angle: 40 }]);
  });
  it('print goes to the log, as Python puts it together', () => {
    expect(logs(runs(whole(['print("n is", n, [1, "a"])', 'print()', 'log(None)'])))).toEqual([
      'n is 0 [1, "a"]',
      '',
      'None'
    ]);
  });
  it('variables may begin as any literal: blocks set them first', () => {
    const text = whole(['log(n)', 'log(word)']).replace('n = 0', 'n = -2.5').replace('word = 0', "word = 'moss'");
    const read = readPython(text);
    if (!read.ok) throw new Error(JSON.stringify(read.problems));
    const here = rehearse({ program: read.program, kit: barrow, mat: hall, seed: 1 });
    expect(logs(here)).toEqual(['-2.5', 'moss']);
    expect(logs(runs(text))).toEqual(['-2.5', 'moss']);
    const two = text
      .replace('run(main)', 'def other():\n    log(1)\n\n\nrun(main, other)')
      .replace(/\bdef/g, 'async def');
    const told = readPython(two);
    expect(told.ok ? [] : told.problems.map((p) => [p.line, p.message])).toEqual([
      [4, 'In blocks a variable begins as 0. Give it this value in a function.'],
      [6, 'In blocks a variable begins as 0. Give it this value in a function.']
    ]);
  });
  it.each(exact)('%s is said by blocks', (lines, logged) => {
    const { ways, refused: why } = all(lines);
    expect(why).toBeUndefined();
    for (const way of ways) expect(way[0]).toEqual(logged);
  });
});
