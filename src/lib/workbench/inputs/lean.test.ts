import { describe, expect, it } from 'vitest';
import { leanOf } from './lean.ts';

// signs by the W3C DeviceOrientation Event Specification
describe('a phone as a hand', () => {
  it('leans to the right when its right edge is down, and forwards when its far edge is down', () => {
    expect(leanOf(0, 0, 30, 0)).toEqual({ sideways: 30, forwards: 0, turned: 0 });
    expect(leanOf(0, -20, 0, 0)).toEqual({ sideways: 0, forwards: 20, turned: 0 });
  });
  it('turns clockwise when alpha falls, from where it was first held, the short way round', () => {
    expect(leanOf(80, 0, 0, 90).turned).toBe(10);
    expect(leanOf(350, 0, 0, 10).turned).toBe(20);
    expect(leanOf(10, 0, 0, 350).turned).toBe(-20);
  });
});
