import { expect, it } from 'vitest';
import { figure, headingAt, reading } from './units.ts';

it('a heading is never 360, however it is rounded', () => {
  expect([359.94, 359.96, 360, -0.01, 719.99, -90].map((d) => headingAt(d))).toEqual([359.9, 0, 0, 0, 0, 270]);
  expect(headingAt(359.96, 2)).toBe(359.96);
  expect([359.97, 359.4, 0.04].map((v) => reading('heading', v))).toEqual(['0.0', '359.4', '0.0']);
  expect(reading('heading', 359.6, 0)).toBe('0');
  expect(reading('facing', 359.996, 2)).toBe('0.00');
});
it('a number has places by its size, or as many as asked, and no minus before nothing', () => {
  expect([9.994, 9.996, 99.94, 123.6, -7.005, -0.004, -0.0, 0.006].map((v) => figure(v))).toEqual([
    '9.99',
    '10.00',
    '99.9',
    '124',
    '-7.00',
    '0.00',
    '0.00',
    '0.01'
  ]);
  expect([figure(-0.04, 1), figure(-0.4, 0), figure(-0.06, 1), figure(-20, 0), figure(1.25, 3)]).toEqual([
    '0.0',
    '0',
    '-0.1',
    '-20',
    '1.250'
  ]);
  expect(reading('accelX', -0.001)).toBe('0.00');
});
