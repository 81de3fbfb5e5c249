/** What somebody expects of a run before it runs, and how far off that was. */
import * as z from 'zod';
import { stateAt } from './trace/query.ts';
import { endUs, type Trace } from './trace/trace.ts';
import { poseSchema } from './yard/mat.ts';

export const predictionSchema = z.strictObject({
  who: z.string().trim().max(40),
  /** where it will stop and which way it will face: m, degrees clockwise from up */
  place: poseSchema.optional(),
  /** a picture, a value, a number of turns: in words */
  words: z.string().trim().max(400).optional()
});
export type Prediction = z.infer<typeof predictionSchema>;
export type Outcome = Prediction & {
  /** how far the place was off, cm; and the way it faces, degrees, -180 to 180, clockwise positive */
  offCm?: number;
  offDeg?: number;
};

/** Where it really stopped beside where it was expected, the nearest first; those in words after them, as they came. */
export function outcomes(predictions: readonly Prediction[], trace: Trace): Outcome[] {
  const { x, y, facingDeg } = stateAt(trace, endUs(trace));
  const all = predictions.map((p): Outcome => {
    if (!p.place) return p;
    const [dx, dy] = [x - p.place.x, y - p.place.y];
    const turn = facingDeg - p.place.facingDeg;
    return { ...p, offCm: Math.sqrt(dx * dx + dy * dy) * 100, offDeg: ((((turn + 180) % 360) + 360) % 360) - 180 };
  });
  return all.sort((a, b) => (a.offCm ?? Infinity) - (b.offCm ?? Infinity) || 0);
}
