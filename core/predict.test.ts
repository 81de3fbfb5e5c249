import { expect, it } from 'vitest';
import { outcomes, predictionSchema } from './predict.ts';
import { b, run } from './testing/build.ts';

it('tells how far each guess was off, the nearest first', () => {
  // from x 1.5, y 1.5, facing right: 40 cm on, then a quarter turn to the left
  const trace = run([b('drive.measure', { amount: 40 }), b('turn.angle', { side: 'left', angle: 90 })]);
  const list = outcomes(
    [
      { who: 'Wren', place: { x: 1.5, y: 1.5, facingDeg: 90 } },
      { who: 'Newt', place: { x: 1.9, y: 1.5, facingDeg: 355 } },
      { who: 'Teasel', words: 'it turns round' }
    ],
    trace
  );
  expect(list.map((o) => o.who)).toEqual(['Newt', 'Wren', 'Teasel']);
  expect(list[0].offCm!).toBeLessThan(1);
  expect(list[0].offDeg!).toBeCloseTo(5, 0);
  expect(list[1].offCm!).toBeCloseTo(40, 0);
  expect(list[1].offDeg!).toBeCloseTo(-90, 0);
  expect(list[2]).toEqual({ who: 'Teasel', words: 'it turns round' });
  expect(predictionSchema.safeParse({ who: 'Wren', place: { x: 1, y: 2 } }).success).toBe(false);
});
