import { describe, expect, it } from 'vitest';
import { flowsOf } from '../../../../../core/language/outline.ts';
import { b, cmp, log, program, start } from '../../../../../core/testing/build.ts';
import { layout } from './layout.ts';

describe('a flow chart', () => {
  it('has its lines begin and end at the corners of its decisions, yes below and no at the right', async () => {
    const [flow] = flowsOf(
      program(
        start(
          b(
            'repeat.times',
            { count: 3 },
            {
              do: [
                b('choose.if', { if1: cmp(b('sense.distance'), '<', 20) }, { then1: [log('a')], otherwise: [log('b')] })
              ]
            }
          ),
          log('c')
        )
      ),
      (socket) => socket
    );
    const placed = await layout(flow);
    const decisions = placed.nodes.filter((n) => n.kind === 'decision');
    expect(decisions).toHaveLength(2);
    const ends = (path: string): [number, number][] =>
      path
        .split(/[ML]/)
        .filter(Boolean)
        .map((p) => p.split(',').map(Number) as [number, number]);
    const near = (a: readonly number[], c: readonly number[]): boolean => Math.hypot(a[0] - c[0], a[1] - c[1]) < 0.2;
    for (const d of decisions) {
      const [top, below, left, right] = [
        [d.x + d.width / 2, d.y],
        [d.x + d.width / 2, d.y + d.height],
        [d.x, d.y + d.height / 2],
        [d.x + d.width, d.y + d.height / 2]
      ];
      const out = placed.edges.filter((e) => e.from === d.id);
      expect(out.map((e) => e.label?.text)).toEqual(['yes', 'no']);
      expect(near(ends(out[0].path)[0], below)).toBe(true);
      expect(near(ends(out[1].path)[0], right)).toBe(true);
      for (const e of placed.edges.filter((e) => e.to === d.id)) {
        const last = ends(e.path).at(-1)!;
        expect(near(last, top) || near(last, left)).toBe(true);
      }
      // what is said stands near where the line begins
      for (const e of out)
        expect(Math.hypot(e.label!.x - (d.x + d.width / 2), e.label!.y - (d.y + d.height))).toBeLessThan(d.width);
    }
  });
});
