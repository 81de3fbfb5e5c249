/** What a step does, as the definition of its block says it. */
import { definition } from './catalogue.ts';
import type { Counted, Slots, ValueDef } from './define.ts';
import { walkSteps, type Step } from './program.ts';

/** Whether board time passes in this step, so that what was shown or started before it lasts. */
export function takesTime(step: Step): boolean {
  const def = definition(step.kind);
  if (!('takesTime' in def) || !def.takesTime) return false;
  return def.takesTime === true || def.takesTime(step);
}
/** What a motor does that was commanded in this step, when the step is over. */
export function leaves(step: Step): 'running' | 'standing' | undefined {
  const def = definition(step.kind);
  return 'leaves' in def ? def.leaves : undefined;
}
/** Whether it puts something on the display. */
export function shows({ kind }: Step): boolean {
  const def = definition(kind);
  return 'shows' in def && !!def.shows;
}
export const runs = (step: Step): boolean => leaves(step) === 'running';
export const standsAfter = (step: Step): boolean => leaves(step) === 'standing';
/** Whether it does nothing but stop. */
export const isStop = (step: Step): boolean => standsAfter(step) && !takesTime(step);
/** What a value block says of its value. */
export function valueDef({ kind }: Step): ValueDef<Slots> | undefined {
  const def = definition(kind);
  return def.shape === 'value' ? def : undefined;
}
/** Whether it commands a single motor by its socket. */
const ofOneMotor = (step: Step): boolean => 'motor' in definition(step.kind).slots;
/** Whether a block stops what another one started, or commands it anew. */
export const stops = (step: Step, run: Step): boolean =>
  ofOneMotor(run) && ofOneMotor(step)
    ? leaves(step) !== undefined && step.slots.motor === run.slots.motor
    : standsAfter(step);
/** What counts on from here. */
export function zeroes({ kind }: Pick<Step, 'kind'>): Counted | undefined {
  const def = definition(kind);
  return 'zeroes' in def ? def.zeroes : undefined;
}
/** What it puts something into. */
export function sets({ kind }: Step): 'variable' | 'list' | undefined {
  const def = definition(kind);
  return 'sets' in def ? def.sets : undefined;
}
/** Whether its bodies are turns of a loop. */
export function isLoop({ kind }: Step): boolean {
  const def = definition(kind);
  return 'loop' in def && !!def.loop;
}
/** Whether it goes on, or stops turning, when its condition comes true. */
export function asksCondition({ kind }: Step): boolean {
  const def = definition(kind);
  return def.shape !== 'starter' && 'condition' in def.slots;
}
/** Whether it turns by itself, with nothing asked and nothing counted. */
export const turnsAgain = (step: Step): boolean => isLoop(step) && !asksCondition(step) && !sets(step);
/** The variables that a value asks. */
export const variablesIn = (value: Step): string[] =>
  [...walkSteps([value])].flatMap((s) => (valueDef(s)?.reads?.includes('variables') ? [String(s.slots.variable)] : []));
