import fc from 'fast-check';
import { describe, expect, it } from 'vitest';
import { Ring } from './ring.ts';

describe('the ring of orders', () => {
  it('gives orders out in the order they were put in, whatever their lengths, round and round', () => {
    fc.assert(
      fc.property(
        fc.array(fc.oneof(fc.string({ maxLength: 60 }), fc.constant('take')), { maxLength: 200 }),
        (script) => {
          const buffer = Ring.make(512);
          const [page, board] = [new Ring(buffer), new Ring(buffer)];
          const waiting: unknown[] = [];
          for (const word of script) {
            if (word === 'take') expect(board.take()).toEqual(waiting.shift());
            else if (page.put({ word })) waiting.push({ word });
          }
          while (waiting.length) expect(board.take()).toEqual(waiting.shift());
          expect(board.take()).toBeUndefined();
        }
      )
    );
  });
  it('refuses an order for which there is no room, and takes it when there is', () => {
    const buffer = Ring.make(64);
    const ring = new Ring(buffer);
    expect(ring.put('x'.repeat(40))).toBe(true);
    expect(ring.put('y'.repeat(40))).toBe(false);
    expect(ring.take()).toBe('x'.repeat(40));
    expect(ring.put('y'.repeat(40))).toBe(true);
  });
});
