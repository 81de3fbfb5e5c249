import { expect, it } from 'vitest';
import { trowel } from '../../../kit/kit.ts';
import { PARTS } from '../../../kit/parts/parts.ts';
import { cases } from '../../../testing/cases.ts';
import { KITS } from '../../../testing/kits.ts';
import { catalogue } from '../../catalogue.ts';
import { MISSING } from './kit-lacks.ts';

it('has a word for everything that a block needs and no part in a socket brings', () => {
  const needs = new Set([...catalogue.values()].flatMap((def) => def.needs ?? []));
  expect([...needs].filter((n) => !(n in PARTS) && !(n in MISSING))).toEqual([]);
  expect(Object.keys(MISSING).filter((n) => !needs.has(n))).toEqual([]);
});
cases('kit-lacks', {
  kit: KITS['without a display'].kit,
  fires: { 'a picture': 'display.show(Picture("#"))\nwait(1)', 'a word': 'display.write("hi")\nwait(1)' },
  silent: { 'a lamp': 'left_lamp.on()\nwait(1)' }
});
cases('kit-lacks', {
  kit: KITS['with a strip'].kit,
  fires: { 'letters on one row': 'display.write("hi")\nwait(1)' },
  silent: { 'a pixel in colour': 'display.colour(0, 0, "red")\nwait(1)' }
});
cases('kit-lacks', {
  kit: trowel,
  fires: { 'wheels of a board': 'wheels.stop("brake")' },
  silent: { 'its display': 'display.write("hi")\nwait(1)' }
});
