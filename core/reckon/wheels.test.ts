import { expect, it } from 'vitest';
import { circumference, rollForAngle, turnsForAngle, turnsForDistance } from './wheels.ts';

it('reckons wheels as plane geometry has it', () => {
  // pi d and s / (pi d); the first pair of numbers is design: devices.md, the second is common practice
  expect(circumference(6.8)).toBeCloseTo(21.4, 1);
  expect(turnsForDistance(80, 6.8)).toBeCloseTo(3.74, 2);
  expect(circumference(5.6)).toBeCloseTo(17.6, 1);
  expect(turnsForDistance(80, 5.6)).toBeCloseTo(4.55, 2);
  // on the spot each wheel rolls angle x track / 2 (Dudek and Jenkin, Computational Principles of Mobile Robotics)
  expect(turnsForAngle(90, 12.4, 6.8)).toBeCloseTo(0.456, 3);
  expect(rollForAngle(360, 12.4)).toBeCloseTo(Math.PI * 12.4, 9);
});
