/** How far somebody is with a lesson, and what was answered. */
import * as z from 'zod';

/** One of those to choose from, words, or a place on the mat in metres. */
const answer = z.union([
  z.strictObject({ chose: z.number().int().min(0).max(50) }),
  z.strictObject({ wrote: z.string().max(2000) }),
  z.strictObject({ x: z.number().min(-100).max(100), y: z.number().min(-100).max(100) })
]);
export type Answer = z.infer<typeof answer>;
export const readingSchema = z.strictObject({
  /** by the keys of the questions (core/lesson/page.ts) */
  answers: z.record(z.string().max(20), answer).refine((all) => Object.keys(all).length <= 300),
  /** steps that were gone through, by their titles */
  done: z.array(z.string().max(300)).max(300),
  /** the step that is open */
  at: z.number().int().min(0).max(300)
});
export type Reading = z.infer<typeof readingSchema>;
