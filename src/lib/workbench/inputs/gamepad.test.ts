import { describe, expect, it } from 'vitest';
import { stickValue } from './gamepad.svelte.ts';

// the axes of the standard gamepad: right and down are positive (W3C Gamepad, standard mapping)
describe('a stick', () => {
  it('counts right and up to 100, left and down to -100', () => {
    expect([stickValue(1, 0, 0.1), stickValue(-1, 0, 0.1)]).toEqual([100, -100]);
    expect([stickValue(1, 1, 0.1), stickValue(-1, 1, 0.1)]).toEqual([-100, 100]);
  });
  it('counts as let go inside the dead zone, and begins at 0 beyond it', () => {
    expect(stickValue(0.1, 0, 0.1)).toBe(0);
    expect(Object.is(stickValue(-0.05, 1, 0.1), 0)).toBe(true);
    expect(stickValue(0.11, 0, 0.1)).toBe(1);
    expect(stickValue(0.55, 2, 0.1)).toBe(50);
  });
  it('stays in its range where a worn stick gives more', () => {
    expect(stickValue(1.2, 0, 0.1)).toBe(100);
  });
});
