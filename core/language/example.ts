/** A small program that shows a block at work: its own example, or the block as it comes out of the tray. */
import { abilities, kits, type Kit } from '../kit/kit.ts';
import { newStep, definition } from './catalogue.ts';
import { placed, regrow } from './edit.ts';
import { emptyProgram, type Program, type Step } from './program.ts';
import { printPython } from './python/print.ts';
import { readPython } from './python/read.ts';

/** Names that examples may use without saying where they come from. */
const TOP = `from mossbell import *

wheels = Wheels(left="J1", right="J2", diameter_mm=68, track_mm=124)
display = Display()
gyro = Gyro()
nose = Nose()
rim = Rim()
distance = Distance("J7")
motion = Motion()
left_lamp = Lamp("left")
right_lamp = Lamp("right")
left_edge = Edge("left")
right_edge = Edge("right")
dot = Button("Dot")
bar = Button("Bar")
striker = Servo("J4")
pan = Servo("J5")
left_line = Line("J8")
right_line = Line("J9")
left_motor = Motor("J1")
right_motor = Motor("J2")

count = 0
things = []

`;

/** The first device that can do what a block needs. */
export const kitFor = (kind: string): Kit =>
  Object.values<Kit>(kits).find((kit) => (definition(kind).needs ?? []).every((n) => abilities(kit).has(n))) ??
  Object.values(kits)[0];

/** @returns the program of the example; lines of Python in a definition stand in main, unless they define it themselves */
export function exampleOf(kind: string): Program {
  const def = definition(kind);
  if (def.example) {
    const whole = /^(async )?def /m.test(def.example);
    const body = whole
      ? def.example
      : `def main():\n    global count\n${def.example.replace(/^/gm, '    ')}\n\n\nrun(main)\n`;
    const read = readPython(TOP + body);
    if (!read.ok) throw new Error(`the example of ${kind}: ${read.problems[0].message}`);
    const used = new Set(JSON.stringify([read.program.stacks, read.program.routines]).match(/"v\d+"/g) ?? []);
    return regrow(placed({ ...read.program, variables: read.program.variables.filter((v) => used.has(`"${v.id}"`)) }));
  }
  const program: Program = {
    ...emptyProgram(),
    variables: [
      { id: 'v1', name: 'count' },
      { id: 'v2', name: 'things', list: true }
    ]
  };
  let n = 0;
  const make = (k: string, slots: Step['slots'] = {}): Step => {
    const step = newStep(k, `e${++n}`, program);
    return { ...step, slots: { ...step.slots, ...slots } };
  };
  const it = make(kind);
  const start = make('begin.start');
  let steps: Step[];
  if (def.shape === 'starter') steps = [it, make('sound.beep')];
  else if (def.shape === 'value') {
    const { gives } = def;
    if (gives === 'picture') steps = [start, make('picture.show', { picture: it }), make('wait.time', { time: 1 })];
    else if (gives === 'condition')
      steps = [
        start,
        { ...make('choose.if', { if1: it }), bodies: { then1: [make('lamp.set')], otherwise: [make('sound.beep')] } }
      ];
    else steps = [start, make('log.line', { value: it })];
  } else {
    const bodies = it.bodies && Object.fromEntries(Object.keys(it.bodies).map((b) => [b, [make('sound.beep')]]));
    steps = [start, { ...it, ...(bodies ? { bodies } : {}) }];
    if (def.shape === 'step' && !('takesTime' in def && def.takesTime)) steps.push(make('wait.time', { time: 1 }));
  }
  const used = new Set(JSON.stringify(steps).match(/"v\d+"/g) ?? []);
  return {
    ...program,
    variables: program.variables.filter((v) => used.has(`"${v.id}"`)),
    stacks: [{ id: 's1', x: 24, y: 24, steps }]
  };
}
/** The lines of Python of the example. */
export const exampleText = (kind: string): string => printPython(exampleOf(kind), kitFor(kind)).text;
