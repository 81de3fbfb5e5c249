/** The yards in which a try of an errand runs: its own, and its other situations. */
import type { Kit } from '../kit/kit.ts';
import type { Project } from '../project.ts';
import { say } from '../words.ts';
import type { Mat } from '../yard/mat.ts';
import { toldIn, type Task, type Told } from './task.ts';

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
/** What a yard is called among several. */
export const situationSays = ({ says }: Pick<Yard, 'says'>): string =>
  says === undefined ? say('as the yard shows it') : toldIn(says);
