import { expect, it } from 'vitest';
import { spread } from './spread.ts';

it('half of the guesses lie in the ellipse (chi-square with two degrees of freedom: 1.386 at 50 %, published tables)', () => {
  // scattered by 20 cm along a line of 30 degrees, and by 5 cm across
  let at = 7;
  const random = () => (at = (at * 16_807) % 2_147_483_647) / 2_147_483_647;
  const bell = () => Math.sqrt(-2 * Math.log(random())) * Math.cos(2 * Math.PI * random());
  const [cos, sin] = [Math.cos(Math.PI / 6), Math.sin(Math.PI / 6)];
  const guesses = Array.from({ length: 4000 }, () => {
    const [u, v] = [0.2 * bell(), 0.05 * bell()];
    return { x: 1 + u * cos - v * sin, y: 0.5 + u * sin + v * cos };
  });
  const { middle, half, n } = spread(guesses)!;
  expect(n).toBe(4000);
  expect([middle.x, middle.y]).toEqual([expect.closeTo(1, 1), expect.closeTo(0.5, 1)]);
  expect(half!.turnedDeg).toBeCloseTo(30, -0.5);
  expect(half!.a / 0.2).toBeCloseTo(Math.sqrt(1.386), 1);
  expect(half!.b / 0.05).toBeCloseTo(Math.sqrt(1.386), 1);
  const turn = (half!.turnedDeg * Math.PI) / 180;
  const inside = guesses.filter(({ x, y }) => {
    const [dx, dy] = [x - middle.x, y - middle.y];
    const [u, v] = [dx * Math.cos(turn) + dy * Math.sin(turn), -dx * Math.sin(turn) + dy * Math.cos(turn)];
    return (u * u) / (half!.a * half!.a) + (v * v) / (half!.b * half!.b) < 1;
  });
  expect(inside.length / 4000).toBeCloseTo(0.5, 1);
});
it('tells how far they were off: the middle one and the nearest, in cm', () => {
  const guesses = [
    { x: 0, y: 0 },
    { x: 0.3, y: 0.4 },
    { x: 1, y: 0 }
  ];
  expect(spread(guesses, { x: 0, y: 0 })!.offCm).toEqual({ median: 50, nearest: 0 });
  expect(spread(guesses.slice(0, 2))!.half).toBeUndefined();
  expect(spread([])).toBeUndefined();
  // all at one place: no scatter, and no number that is none
  expect(spread([guesses[0], guesses[0], guesses[0]])!.half).toMatchObject({ a: 0, b: 0 });
});
it('of a few guesses has the variance of a sample, n - 1 (any textbook of statistics)', () => {
  // on a line of 45 degrees, 1 m apart each: variance of x and y 1, covariance 1, so the long axis has 2
  const { half } = spread([0, 1, 2].map((v) => ({ x: v, y: v })))!;
  expect(half!.a).toBeCloseTo(Math.sqrt(2 * Math.LN2 * 2), 9);
  expect(half!.b).toBeCloseTo(0, 6);
  expect(half!.turnedDeg).toBeCloseTo(45, 9);
});
