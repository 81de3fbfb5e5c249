/** What is kept of a try of an errand, beside its run. */
import * as z from 'zod';

export const resultSchema = z.strictObject({
  errand: z.string().min(1).max(60),
  met: z.boolean(),
  /** goals that were met, of so many */
  got: z.number().int().min(0).max(20),
  of: z.number().int().min(1).max(20),
  /** when the last goal was met, s */
  seconds: z.number().min(0).max(36_000).optional(),
  blocks: z.number().int().min(0).max(10_000).optional(),
  /** the nearest miss: which goal, and by how much where that can be measured */
  nearest: z
    .strictObject({ goal: z.number().int().min(0), amount: z.number().optional(), unit: z.string().max(20).optional() })
    .optional(),
  /** of each situation, whether all goals were met in it; goals are told of the first that was missed */
  situations: z.array(z.boolean()).max(6).optional(),
  /** of each goal, whether it was met; and where it stopped, m */
  goals: z.array(z.boolean()).max(20).optional(),
  stop: z.strictObject({ x: z.number().min(-100).max(100), y: z.number().min(-100).max(100) }).optional(),
  /** what was changed since the try before */
  changed: z.array(z.string().max(120)).max(6)
});
export type TryResult = z.infer<typeof resultSchema>;

/** The heaviest findings of a run, beside it: what the teacher sees on the wall. */
export const toldSchema = z
  .array(
    z.strictObject({
      rule: z.string().max(40),
      says: z.string().max(300),
      blocks: z.array(z.string().max(80)).max(3)
    })
  )
  .max(3);
export type Told = z.infer<typeof toldSchema>[number];
