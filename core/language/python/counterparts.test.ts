/** What people know of Python and no block says is answered with its counterpart, which is read as a block. */
import { describe, expect, it } from 'vitest';
import { allSteps } from '../program.ts';
import { fromText } from '../../testing/text.ts';
import { counterpart } from './counterparts.ts';

const problem = (text: string): string => {
  try {
    fromText(text);
    return '';
  } catch (error) {
    return (error as Error).message.split('\n').at(-1)!;
  }
};
const kinds = (text: string): string[] => [...allSteps(fromText(text))].slice(1).map((s) => s.kind);

describe('what no block says', () => {
  /** the text, what is told to be written, and how it then stands in a line */
  const told: readonly [string, string, ((write: string) => string)?][] = [
    ['print("x")', 'log(...)', () => 'log("x")'],
    ['n //= 2', 'n = floor(n / 2)'],
    ['n %= 2', 'n = remainder(n, 2)'],
    ['n *= 2', 'n = n * 2'],
    ['n = 7 // 2', 'floor(7 / 2)', (w) => `n = ${w}`],
    ['n = 7 % 2', 'remainder(7, 2)', (w) => `n = ${w}`],
    ['n = 2 ** 3', 'to_the_power(2, 3)', (w) => `n = ${w}`],
    ['log(3 in things)', 'is_in(3, things)', (w) => `log(${w})`],
    ['log(3 not in things)', 'not is_in(3, things)', (w) => `log(${w})`],
    ['log(n is 3)', 'n == 3', (w) => `log(${w})`],
    ['log(math.pi)', 'pi', (w) => `log(${w})`],
    ['log(atan2(1, 2))', 'arc_tangent_2(y, x)', () => 'log(arc_tangent_2(1, 2))'],
    ['log(math.sqrt(4))', 'square_root(...)', () => 'log(square_root(4))'],
    ['log(abs(-3))', 'absolute(...)', () => 'log(absolute(-3))'],
    ['log(int(2.5))', 'floor(...)', () => 'log(floor(2.5))'],
    ['log(str(5))', 'as_text(...)', () => 'log(as_text(5))'],
    ['log(float("5"))', 'as_number(...)', () => 'log(as_number("5"))'],
    ['log(max(1, 2))', 'larger(a, b)', () => 'log(larger(1, 2))'],
    ['log(random.randint(1, 6))', 'chance(1, 6)', (w) => `log(${w})`],
    ['log(random())', 'any_chance()', (w) => `log(${w})`],
    ['time.sleep(1)', 'wait(...)', () => 'wait(1)'],
    ['log(f"n is {n}")', 'join(a, b)', () => 'log(join("n is ", n))'],
    ['things[1] = 5', 'swap_at(1, things, ...)', () => 'swap_at(1, things, 5)'],
    ['del things[0]', 'take_out(0, things)'],
    ['things.append(3)', 'put_at_end(3, things)'],
    ['log(things.index(3))', 'where_in(3, things)', (w) => `log(${w})`],
    ['for n in things:\n    log(n)', 'for n in each(things):', (w) => `${w}\n    log(n)`],
    ['for n in range(3):\n    log(n)', 'for n in from_to(0, 2, 1):', (w) => `${w}\n    log(n)`],
    ['for n in range(1, 4):\n    log(n)', 'for n in from_to(1, 3, 1):', (w) => `${w}\n    log(n)`],
    ['for n in range(6, 0, -2):\n    log(n)', 'for n in from_to(6, 1, -2):', (w) => `${w}\n    log(n)`],
    ['for i in range(3):\n    beep()', 'for _ in range(3):', (w) => `${w}\n    beep()`],
    ['wheels.forward(20)', 'wheels.drive(cm=20, power=45, ending="brake")']
  ];
  it.each(told)('%s', (text, write, line = (w) => w) => {
    expect(problem(text)).toContain(`write ${write}.`);
    expect(problem(line(write))).toBe('');
  });
  it.each(
    [
      ['log(things[1])', 'place_of(1, things)'],
      ['log(len(things))', 'how_many(things)'],
      ['n = 1 if side > 2 else 0', 'an "if" of its own'],
      ['n = input("x")', 'no keyboard'],
      ['import time', 'from mossbell import *'],
      ['n = side = 3', 'One variable a line'],
      ['beep(); beep()', 'One statement a line'],
      ['log(sum(things))', 'no sum'],
      ['try:\n    beep()\nexcept:\n    beep()', 'ask with "if" before'],
      ['while n < 3:\n    n += 1\nelse:\n    beep()', 'no "else"'],
      ['exit()', 'is done when']
    ].filter(([text]) => text !== 'exit()')
  )('%s: tells %s', (text, says) => expect(problem(text)).toContain(says));
  it('of which nothing is known is said as it is', () => {
    expect(counterpart('wheels.dance()')).toBeUndefined();
    expect(problem('wheels.dance()')).toMatch(/No block says "wheels\.dance\(\)"\.$/);
  });
});
describe('what is taken though no block prints it so', () => {
  it('-= adds what is negative', () => {
    const [change] = [...allSteps(fromText('n -= 2'))].slice(1);
    expect([change.kind, change.slots.amount]).toEqual(['var.change', -2]);
    expect(kinds('n -= side')).toEqual(['var.change', 'calc.negative', 'var.value']);
    expect(kinds('log(-n)')).toEqual(['log.line', 'calc.negative', 'var.value']);
  });
  it('names in another order, where no call would be made before another', () => {
    const [, drive] = [...allSteps(fromText('wheels.drive(power=30, ending="coast", cm=20)'))];
    expect(drive.slots).toMatchObject({ amount: 20, unit: 'cm', power: 30, ending: 'coast' });
    expect(problem('wheels.drive(power=chance(1, 9), cm=chance(1, 9), ending="brake")')).toContain('No block says');
  });
});
