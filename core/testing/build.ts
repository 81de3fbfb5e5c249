/** Small builders for tests: programs in a line, runs in a line. */
import { barrow } from '../kit/kit.ts';
import { newStep } from '../language/catalogue.ts';
import { emptyProgram, type Program, type Slot, type Step } from '../language/program.ts';
import type { RunOptions } from '../run/spec.ts';
import { rehearse } from '../run/interpreter.ts';
import { stateAt, type State } from '../trace/query.ts';
import type { Trace } from '../trace/trace.ts';
import type { Mat } from '../yard/mat.ts';

let ids = 0;
export const b = (kind: string, slots: Record<string, Slot> = {}, bodies?: Record<string, Step[]>): Step => {
  const step = newStep(kind, `b${++ids}`);
  Object.assign(step.slots, slots);
  return bodies ? { ...step, bodies } : step;
};
export const program = (...stacks: Step[][]): Program => ({
  ...emptyProgram(),
  stacks: stacks.map((steps, i) => ({ id: `s${i}`, x: 0, y: 0, steps })),
  variables: [
    { id: 'v1', name: 'count' },
    { id: 'v2', name: 'Länge' },
    { id: 'l1', name: 'things', list: true }
  ]
});
export const start = (...steps: Step[]): Step[] => [b('begin.start'), ...steps];
export const log = (value: Slot): Step => b('log.line', { value });
export const sum = (a: Slot, sign: string, c: Slot): Step => b('calc.sum', { a, sign, b: c });
export const cmp = (a: Slot, sign: string, c: Slot): Step => b('calc.compare', { a, sign, b: c });
export const variable = (id: string): Step => b('var.value', { variable: id });
export const list = (id: string): Step => b('list.value', { list: id });
export const wait = (time: number, unit = 's'): Step => b('wait.time', { time, unit });

/** An empty hall, 3 m by 3 m, the robot in its middle facing right (x). */
export const hall: Mat = {
  name: 'Hall',
  width: 3,
  height: 3,
  colour: '#ffffff',
  reflectance: 90,
  airC: 20,
  start: { x: 1.5, y: 1.5, facingDeg: 90 },
  areas: [],
  lines: [],
  walls: [],
  things: [],
  hoops: [],
  marks: []
};

export const run = (steps: Step[] | Program, options: Partial<RunOptions> = {}): Trace =>
  rehearse({
    program: Array.isArray(steps) ? program(start(...steps)) : steps,
    kit: barrow,
    mat: hall,
    seed: 1,
    noise: false,
    ...options
  });
export const end = (trace: Trace): State => stateAt(trace, trace.ticks * 1000);
export const logs = (trace: Trace): string[] => trace.events.flatMap((e) => (e.type === 'log' ? [e.text] : []));
