/** The yards in which a try of an errand runs: its own, and its other situations. */
import type { Kit } from '../kit/kit.ts';
import type { Project } from '../project.ts';
import type { TimedInput, Trace } from '../trace/trace.ts';
import { recordedInputs } from '../trace/track.ts';
import { hash } from '../run/spec.ts';
import { say } from '../words.ts';
import type { Mat } from '../yard/mat.ts';
import { inputsOf, toldIn, type Task, type Told } from './task.ts';

export type World = { kit: Kit; mat: Mat; start?: Project['start']; others?: Project['others'] };
type Tried = Pick<Task, 'inputs' | 'limitS' | 'situations'>;
/** A yard that a try runs in; `says` what is otherwise in it, of all but the first. */
export type Yard = World & Pick<Task, 'inputs'> & { says?: Told };
/** All of them: the one that is seen first, then the other situations. */
export const yardsOf = ({ inputs, situations = [] }: Tried, world: World): Yard[] => [
  { ...world, inputs },
  ...situations.map(({ says, mat = world.mat, start = mat === world.mat ? world.start : undefined, ...other }) => ({
    ...world,
    mat,
    start,
    inputs: other.inputs ?? inputs,
    says
  }))
];
/** What a yard is known by: the mat, where the device starts on it, and who else is there. */
export const yardMark = ({ mat, start = mat.start, others = [] }: Omit<World, 'kit'>): string =>
  hash([mat, start, others]);
/** Whether a project's yard is still that of the errand which is done in it. */
export const inItsYard = ({ yard }: Pick<Task, 'yard'>, world: Omit<World, 'kit'>): boolean =>
  yard === undefined || yard === yardMark(world);
/** What a hand does to the world, and not to the device's own buttons, keys and sticks. */
const WORLD = ['carry', 'lift', 'push', 'set', 'around', 'soil'] as const;
const TICK_US = 1000;
/** Whether nothing was done to the world of a run but what the errand itself does to it. */
export function untouched(task: Pick<Task, 'inputs'>, trace: Pick<Trace, 'events' | 'ticks'>): boolean {
  const end = trace.ticks * TICK_US;
  const told = (list: readonly TimedInput[]): string[] =>
    list
      .filter(({ tUs, input }) => tUs < end && WORLD.some((kind) => kind in input))
      .map(({ tUs, ...what }) => JSON.stringify([Math.round(tUs / TICK_US), what]));
  return told(inputsOf(task)).join('\n') === told(recordedInputs(trace)).join('\n');
}
/** What a yard is called among several. */
export const situationSays = ({ says }: Pick<Yard, 'says'>): string =>
  says === undefined ? say('as the yard shows it') : toldIn(says);
