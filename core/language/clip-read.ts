/** What was copied, as it comes from outside: it is checked before it is put into a program. */
import * as z from 'zod';
import { repainted } from '../kit/repaint.ts';
import { say } from '../words.ts';
import { checkProgram } from './check.ts';
import type { Clip } from './clip.ts';
import { programSchema } from './program.ts';

const clipSchema = z.strictObject({
  format: z.literal('mossbell.blocks'),
  version: z.literal(1),
  stacks: z.array(programSchema.shape.stacks.element.shape.steps).max(500),
  variables: programSchema.shape.variables,
  routines: programSchema.shape.routines
});
/** A clip from outside, or a sentence on what is wrong with it. */
export function readClip(text: string): Clip | string {
  let value: unknown;
  try {
    value = JSON.parse(text);
  } catch {
    return say('What was copied is not JSON.');
  }
  const parsed = clipSchema.safeParse(repainted(value));
  if (!parsed.success) return say('What was copied are no blocks of Moss Bell.');
  const clip = parsed.data as Clip;
  const wrong = checkProgram({
    stacks: clip.stacks.map((steps, i) => ({ id: `clip${i}`, x: 0, y: 0, steps })),
    routines: clip.routines,
    variables: clip.variables,
    loose: []
  });
  return wrong ? say('What was copied cannot be pasted: {wrong}', { wrong }) : clip;
}
