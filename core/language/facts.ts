/** What a step does, as the definition of its block says it. */
import type { Kit } from '../kit/kit.ts';
import { definition } from './catalogue.ts';
import type { Counted, Slots, StepDef, ValueDef } from './define.ts';
import { walkSteps, type Step } from './program.ts';

type Kind = Pick<Step, 'kind'>;
function stepDef({ kind }: Kind): StepDef<Slots> | undefined {
  const def = definition(kind);
  return def.shape === 'value' || def.shape === 'starter' ? undefined : def;
}
/** Whether board time passes in this step, so that what was shown or started before it lasts. */
export function takesTime(step: Step): boolean {
  const takes = stepDef(step)?.takesTime;
  return typeof takes === 'function' ? takes(step) : !!takes;
}
/** What a motor does that was commanded in this step, when the step is over. */
export const leaves = (step: Kind): 'running' | 'standing' | undefined => stepDef(step)?.leaves;
/** Whether it puts something on the display. */
export const shows = (step: Kind): boolean => !!stepDef(step)?.shows;
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
export const zeroes = (step: Kind): Counted | undefined => stepDef(step)?.zeroes;
/** What it puts something into. */
export const sets = (step: Kind): 'variable' | 'list' | undefined => stepDef(step)?.sets;
/** Whether its bodies are turns of a loop. */
export const isLoop = (step: Kind): boolean => !!stepDef(step)?.loop;
/** Whether it goes on, or stops turning, when its condition comes true. */
export const asksCondition = (step: Kind): boolean => 'condition' in (stepDef(step)?.slots ?? {});
/** Whether it turns by itself, with nothing asked and nothing counted. */
export const turnsAgain = (step: Step): boolean => isLoop(step) && !asksCondition(step) && !sets(step);
/** The channels of the trace that a value block is read from on this kit, or 'variables'; not those of blocks in its slots. */
export function channelsRead(step: Step, kit: Kit): readonly string[] {
  const reads = valueDef(step)?.reads;
  return typeof reads === 'function' ? reads(step.slots as Record<string, string>, kit) : (reads ?? []);
}
/** Whether what a block is read from is a sensor or an encoder, and not a variable. */
export const readsSensor = (step: Step): boolean => {
  const reads = valueDef(step)?.reads;
  return typeof reads === 'function' || !!reads?.some((key) => key !== 'variables');
};
const asksVariable = (step: Step): boolean => {
  const reads = valueDef(step)?.reads;
  return typeof reads !== 'function' && !!reads?.includes('variables');
};
/** The variables that a value asks. */
export const variablesIn = (value: Step): string[] =>
  [...walkSteps([value])].flatMap((s) => (asksVariable(s) ? [String(s.slots.variable)] : []));
/** The side that words name, in the languages of the interface; nothing where they name none, or both. */
export function sideIn(words: string): 'left' | 'right' | undefined {
  const [left, right] = [/(^|[^a-z])(left|links)([^a-z]|$)/i, /(^|[^a-z])(right|rechts)([^a-z]|$)/i].map((w) =>
    w.test(words)
  );
  return left === right ? undefined : left ? 'left' : 'right';
}
