import { expect, it } from 'vitest';
import { fair } from './fair.ts';

const soon = () => new Promise<void>((done) => setImmediate(done));
it('lets each asker have a turn, so many at once, and goes on after what failed', async () => {
  const inTurn = fair(2);
  const order: string[] = [];
  let [at, most] = [0, 0];
  const work = (name: string) => async () => {
    most = Math.max(most, ++at);
    await soon();
    at--;
    order.push(name);
    if (name === 'many 1') throw new Error('this one fails');
    return name;
  };
  const many = Array.from({ length: 6 }, (_, i) => inTurn('many', work(`many ${i}`)));
  const one = inTurn('one', work('one'));
  const other = inTurn('other', work('other'));
  const settled = await Promise.allSettled([...many, one, other]);
  expect(settled.map((s) => s.status)).toEqual(
    Array.from({ length: 8 }, (_, i) => (i === 1 ? 'rejected' : 'fulfilled'))
  );
  expect(await one).toBe('one');
  expect(most).toBe(2);
  // two were under way before the others asked; those are served before the rest of the many
  expect(order.indexOf('one')).toBeLessThan(5);
  expect(order.indexOf('other')).toBeLessThan(5);
  expect(order.filter((n) => n.startsWith('many'))).toEqual([
    'many 0',
    'many 1',
    'many 2',
    'many 3',
    'many 4',
    'many 5'
  ]);
});
