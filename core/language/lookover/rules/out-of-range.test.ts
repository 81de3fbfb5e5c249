/** What the look-over says of a number beyond a slot's limits is what the run does. */
import { describe, expect, it } from 'vitest';
import { barrow, trowel } from '../../../kit/kit.ts';
import { b, program, run, start } from '../../../testing/build.ts';
import { catalogue } from '../../catalogue.ts';
import { lookOver } from '../lookover.ts';

/** Blocks that a run of a moment cannot tell of: they wait for a person, or stand in something else. */
const slots = [...catalogue.values()]
  .filter((def) => def.shape === 'step' && !def.kind.startsWith('pixel.'))
  .flatMap((def) =>
    Object.entries(def.slots).flatMap(([name, spec]) =>
      spec.type === 'number' && !spec.whole
        ? [
            ...(spec.min === undefined ? [] : [{ kind: def.kind, name, n: spec.min - 5 }]),
            ...(spec.max === undefined ? [] : [{ kind: def.kind, name, n: spec.max + 5 }])
          ]
        : []
    )
  );

describe('a number beyond the limits of its slot', () => {
  it('there are many such slots', () => expect(slots.length).toBeGreaterThan(20));
  it.each(slots)('$kind $name $n: the program stops just where that is said', ({ kind, name, n }) => {
    const kit = catalogue.get(kind)!.needs?.some((x) => ['edges', 'light'].includes(x)) ? trowel : barrow;
    const step = b(kind, { [name]: n });
    const p = program(start(step));
    const remark = lookOver({ program: p, kit }).find((r) => r.rule === 'out-of-range')!;
    expect(remark.blocks).toEqual([step.id]);
    const error = run(p, { kit, limitS: 1 }).events.find((e) => e.type === 'error' && e.kind === 'out-of-range');
    expect(remark.severity).toBe(error ? 'will not work' : 'probably not meant');
    const mended = remark.mends[0].apply(p, kit);
    expect(lookOver(mended).map((r) => r.rule)).not.toContain('out-of-range');
  });
});
