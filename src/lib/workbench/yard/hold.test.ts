import { describe, expect, it, vi } from 'vitest';
import type { Input } from '../../../../core/trace/trace.ts';
import type { Pose } from '../../../../core/yard/mat.ts';
import { Hold } from './hold.svelte.ts';

/** A yard of 2 m x 1 m with a robot in its middle, and what happened to it. */
function yard(canMove: boolean, canGrab = true, paused = false) {
  const moved: Pose[] = [];
  const given: Input[] = [];
  const placed: Pose[] = [];
  const hold = new Hold({
    at: (e) => ({ x: e.clientX, y: e.clientY }),
    give: (input) => void given.push(input),
    place: (pose) => void placed.push(pose),
    pose: { x: 1, y: 0.5, facingDeg: 0 },
    size: { width: 2, height: 1 },
    canMove,
    canGrab,
    paused,
    moved: (pose) => moved.push(pose)
  });
  const event = (x: number, y: number) =>
    ({
      clientX: x,
      clientY: y,
      pointerId: 1,
      shiftKey: false,
      stopPropagation: () => {},
      currentTarget: { setPointerCapture: () => {} }
    }) as unknown as PointerEvent;
  return { hold, given, placed, event };
}

describe('the robot taken with the pointer', () => {
  it('is put elsewhere while it stands, and stays on the mat', () => {
    const { hold, given, placed, event } = yard(true);
    hold.down(event(1.1, 0.5), 'move');
    hold.move(event(9, 0.6));
    hold.up();
    expect(placed).toEqual([{ x: 2, y: 0.6, facingDeg: 0 }]);
    expect(given).toEqual([]);
  });
  it('turns in steps of 5 degrees by its handle', () => {
    const { hold, placed, event } = yard(true);
    hold.down(event(1, 0.6), 'turn');
    hold.move(event(1.5, 0.52));
    hold.up();
    expect(placed[0].facingDeg).toBe(90);
  });
  it('is lifted, carried and set down while it runs', () => {
    vi.useFakeTimers();
    const { hold, given, placed, event } = yard(false);
    hold.down(event(1, 0.5), 'move');
    hold.move(event(1.2, 0.55));
    hold.up();
    vi.runAllTimers();
    vi.useRealTimers();
    expect(placed).toEqual([]);
    expect(given[0]).toEqual({ lift: true });
    expect(given.at(-2)).toEqual({ carry: { x: 120, y: 55, facing: 0 } });
    expect(given.at(-1)).toEqual({ lift: false });
  });
  it('cannot be taken where nothing can', () => {
    const { hold, given, event } = yard(false, false);
    hold.down(event(1, 0.5), 'move');
    hold.up();
    expect([hold.held, given]).toEqual([undefined, []]);
  });
});
