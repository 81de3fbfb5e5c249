import fc from 'fast-check';
import { describe, expect, it } from 'vitest';
import { barrow } from '../../kit/kit.ts';
import { checkProgram } from '../check.ts';
import { b, log, program, start } from '../../testing/build.ts';
import { anyProgram } from '../../testing/random.ts';
import { catalogue } from '../catalogue.ts';
import { allSteps, isStep, type Program, type Slot, type Step } from '../program.ts';
import { printPython } from './print.ts';
import { readPython } from './read.ts';
import { syntaxProblem } from './syntax.ts';

/** A program without what the text does not hold: places; and with ids counted off in the order they are read. */
export function plain(p: Program): unknown {
  const ids = new Map<string, string>();
  const id = (old: string): string => {
    if (!ids.has(old)) ids.set(old, `#${ids.size}`);
    return ids.get(old)!;
  };
  const known = new Set([
    ...p.variables.map((v) => v.id),
    ...p.routines.flatMap((r) => [r.id, ...(r.inputs ?? []).map((i) => i.id)])
  ]);
  const slot = (value: Slot): unknown =>
    isStep(value) ? step(value) : typeof value === 'string' && known.has(value) ? id(value) : value;
  const step = (s: Step): unknown => ({
    kind: s.kind,
    slots: Object.entries(s.slots)
      .map(([name, value]): [string, unknown] => [
        name.startsWith('in:') ? `in:${id(name.slice(3))}` : name,
        slot(value)
      ])
      .sort(([x], [y]) => (x < y ? -1 : 1)),
    bodies: Object.entries(s.bodies ?? {})
      .map(([name, body]): [string, unknown] => [name, body.map(step)])
      .sort(([x], [y]) => (x < y ? -1 : 1)),
    note: s.note,
    off: s.off
  });
  return {
    variables: p.variables.map((v) => ({ id: id(v.id), name: v.name, list: v.list })),
    routines: p.routines.map((r) => ({
      id: id(r.id),
      name: r.name,
      note: r.note,
      inputs: (r.inputs ?? []).map((i) => ({ ...i, id: id(i.id) })),
      steps: r.steps.map(step)
    })),
    stacks: p.stacks.map((s) => ({ parked: s.parked, steps: s.steps.map(step) })),
    loose: p.loose.map((l) => step(l.value))
  };
}
function back(p: Program): { text: string; program: Program } {
  const { text } = printPython(p, barrow);
  const read = readPython(text);
  if (!read.ok) throw new Error(`${JSON.stringify(read.problems)}\n${text}`);
  return { text, program: read.program };
}

describe('text that the printer could have printed', () => {
  it('turns back into the same program, whatever the program', () => {
    const seen = new Set<string>();
    fc.assert(
      fc.property(anyProgram, (p) => {
        for (const s of allSteps(p)) seen.add(s.kind);
        const { text, program } = back(p);
        expect(plain(program), text).toEqual(plain(p));
        expect(checkProgram(program)).toBeUndefined();
        // and printing it once more changes nothing
        expect(printPython(program, barrow).text).toBe(text);
      }),
      { numRuns: 400, seed: 7 }
    );
    // the property speaks of every block there is
    expect([...catalogue.keys()].filter((k) => !seen.has(k))).toEqual([]);
  });
  it('keeps names that no identifier can tell', () => {
    const p = {
      ...program(start(log(b('var.value', { variable: 'v1' })))),
      variables: ['Länge', 'for', '🌱', 'a b', 'a_b', 'مرحبا', '3rd', 'wait'].map((name, i) => ({ id: `v${i}`, name }))
    };
    expect(back(p).program.variables.map((v) => v.name)).toEqual(p.variables.map((v) => v.name));
  });
});

describe('text beyond that', () => {
  const problems = (text: string) => {
    const read = readPython(text);
    return read.ok ? [] : read.problems;
  };
  it('says which line has no block, and why', () => {
    const text = `from mossbell import *

count = 0


def main():
    global count
    count = 3
    x = [n * 2 for n in range(3)]
    wheels.dance()
    display.pixel(count, 2, "on")


run(main)
`;
    expect(problems(text)).toEqual([
      { line: 8, message: 'There is no variable called x.' },
      { line: 9, message: 'No block says "wheels.dance()".' },
      { line: 10, message: 'A whole number belongs here: write whole(...) around it.' }
    ]);
  });
  it('says what cannot be read, what stands outside, and what is missing', () => {
    expect(problems('def main(:\n    log(1)\n')[0]).toEqual({
      line: 0,
      message: syntaxProblem('def main(:\n    log(1)\n')!.message
    });
    expect(problems('from mossbell import *\nimport os\nlog(1)\nrun(main)\n').map((p) => p.line)).toEqual([1, 2, 3]);
    expect(problems('from mossbell import *\n')[0].message).toContain('There is no run(...)');
  });
  it('takes what a pupil types otherwise than it is printed', () => {
    const read = readPython(
      "from mossbell import *\nwheels = Wheels(left='J1', right='J2', diameter_mm=68, track_mm=124)\ndef main():\n  wheels.drive( cm = (30), power=45, ending='brake' )\n  log('moss')\nrun(main)"
    );
    expect(read.ok && read.program.stacks[0].steps.map((s) => s.kind)).toEqual([
      'begin.start',
      'drive.measure',
      'log.line'
    ]);
  });
});

describe('comments', () => {
  const text = (...lines: string[]) =>
    ['from mossbell import *', '', '', 'def main():', ...lines.map((l) => `    ${l}`), '', '', 'run(main)', ''].join(
      '\n'
    );
  it('above a line and behind it are its note; others are told, so that none is lost silently', () => {
    const read = readPython(text('# wake up', 'beep()  # once', '', '# alone', '', 'silence()', '# at the end'));
    if (!read.ok) throw new Error(read.problems[0].message);
    expect(read.program.stacks[0].steps.map((s) => s.note)).toEqual([undefined, 'wake up\nonce', undefined]);
    expect(read.lost.map((l) => l.line + 1)).toEqual([8, 11]);
    expect(read.lost[0].message).toBe('This comment belongs to no block and would be lost.');
  });
  it('of a printed program are all taken up', () => {
    fc.assert(
      fc.property(anyProgram, (p) => {
        const read = readPython(printPython(p, barrow).text);
        expect(read.ok && read.lost).toEqual([]);
      }),
      { numRuns: 100, seed: 8 }
    );
  });
});
