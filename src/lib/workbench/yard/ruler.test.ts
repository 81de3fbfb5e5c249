import { describe, expect, it } from 'vitest';
import { measure, Ruler } from './ruler.svelte.ts';

describe('the ruler', () => {
  it('measures length and direction, clockwise from up (Pythagoras: 3, 4, 5)', () => {
    expect(measure({ from: { x: 0, y: 0 }, to: { x: 0.3, y: 0.4 } }).cm).toBeCloseTo(50, 9);
    const deg = (x: number, y: number) => measure({ from: { x: 1, y: 1 }, to: { x: 1 + x, y: 1 + y } }).deg;
    expect([deg(0, 1), deg(1, 0), deg(0, -1), deg(-1, 0), deg(1, 1)].map(Math.round)).toEqual([0, 90, 180, 270, 45]);
  });
  it('keeps to a place that means something, and follows the pointer until it is let go', () => {
    const ruler = new Ruler();
    const on = { closest: () => null, setPointerCapture: () => {} };
    const event = { button: 0, pointerId: 1, target: on, currentTarget: on } as unknown as PointerEvent;
    ruler.pointer(event, 'down', { x: 0.501, y: 0.499 }, [{ x: 0.5, y: 0.5 }]);
    ruler.pointer(event, 'move', { x: 0.9, y: 0.5 }, [{ x: 0.5, y: 0.5 }]);
    ruler.pointer(event, 'up', { x: 0.9, y: 0.5 }, []);
    ruler.pointer(event, 'move', { x: 2, y: 2 }, []);
    expect(ruler.line).toEqual({ from: { x: 0.5, y: 0.5 }, to: { x: 0.9, y: 0.5 } });
    ruler.away();
    expect(ruler.line).toBeUndefined();
  });
});
