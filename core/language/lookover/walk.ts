import { definition, newStep } from '../catalogue.ts';
import { allIds, freshId, isLive, type Program, type Step } from '../program.ts';
import { typedNumber } from '../values.ts';

/** Every list of steps that can run, switched-off steps left out: stacks without their starter, routines, bodies. */
export function* liveLists(program: Program): Generator<Step[]> {
  const inner = function* (list: readonly Step[]): Generator<Step[]> {
    const on = list.filter((s) => !s.off);
    yield on;
    for (const step of on) for (const body of Object.values(step.bodies ?? {})) yield* inner(body);
  };
  for (const stack of program.stacks) if (isLive(stack)) yield* inner(stack.steps.slice(1));
  for (const routine of program.routines) yield* inner(routine.steps);
}
/** The number typed into a slot, or undefined where a block sits or letters stand. */
export function literal(step: Step, slot: string): number | undefined {
  const value = step.slots[slot];
  return typeof value === 'number' ? value : typeof value === 'string' ? typedNumber(value) : undefined;
}
/** Whether board time passes in this step, so that what was shown or started before it lasts. */
export function takesTime(step: Step): boolean {
  const def = definition(step.kind);
  if (step.kind === 'wait.time') return literal(step, 'time') !== 0;
  if (step.kind === 'display.write') return step.slots.how === 'passing';
  return 'takesTime' in def && !!def.takesTime;
}

/** Blocks that start a motor and go on. */
export const RUNS = ['wheels.run', 'motor.run', 'slide.run'];
/** Blocks after which a wheel's motor stands, or is commanded anew. */
export const STOPS = [
  'wheels.stop',
  'motor.stop',
  'motor.span',
  ...[
    'drive.measure',
    'drive.facing',
    'turn.angle',
    'turn.gyro',
    'turn.face',
    'curve.angle',
    'slide.measure',
    'wheels.span'
  ]
];
export const SHOWS = ['picture.show', 'picture.at', 'display.write', 'display.dark'];
/** A new block for a mend. */
export const fresh = (program: Program, kind: string, slots: Step['slots'] = {}): Step => {
  const step = newStep(kind, freshId(allIds(program)), program);
  return { ...step, slots: { ...step.slots, ...slots } };
};
/** Whether a block stops what another one started. */
export const stops = (step: Step, run: Step): boolean =>
  run.kind === 'motor.run'
    ? (step.kind.startsWith('motor.') && step.slots.motor === run.slots.motor) ||
      (!step.kind.startsWith('motor.') && STOPS.includes(step.kind))
    : STOPS.includes(step.kind);
/** Whether a block stands somewhere inside another one. */
export const contains = (outer: Step, inner: Step): boolean =>
  Object.values(outer.bodies ?? {}).some((b) => b.some((s) => s.id === inner.id || contains(s, inner)));
