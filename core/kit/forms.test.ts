import { describe, expect, it } from 'vitest';
import { formOf, FORMS, type Ask } from './forms.ts';
import { hauler, plugged, trowel, type Part } from './kit.ts';
import { PART_TYPES, partSchema } from './parts/parts.ts';

/** A part of each kind as it comes, and an LED with its resistor, of which more is asked. */
const parts: [string, Part][] = [
  ...PART_TYPES.map((type): [string, Part] => [type, plugged(type === 'lamp' ? trowel : hauler, 'J1', type)]),
  ['bare LED', { socket: 'J2', type: 'lamp', name: 'lamp', ohm: 220, colour: 'green' }]
];
const asksOf = (part: Part): Ask<Part>[] => {
  const { mounted, rows } = formOf(part);
  return [...(mounted ? [mounted.ask] : []), ...(rows?.(part) ?? []).flatMap((row) => row.asks)];
};

describe('what the kit sheet asks of a part', () => {
  it.each(parts)('%s: each answer is taken, and stands there then', (_, part) => {
    for (const ask of asksOf(part)) {
      const answers = ask.type === 'choice' ? ask.options().map(([value]) => value) : [ask.min, ask.max];
      for (const answer of answers) {
        const to = (ask as { put: (value: unknown, p: Part) => Partial<Part> }).put(answer, part);
        const after = partSchema.parse(JSON.parse(JSON.stringify({ ...part, ...to })));
        expect(ask.of(after), ask.aria(part)).toBe(answer);
      }
      expect(ask.aria(part)).not.toContain('{');
      expect(ask.change.length).toBeGreaterThan(5);
    }
  });
  it('is asked of motors, servos and lamps; of a bare LED how much flows through it', () => {
    expect(PART_TYPES.filter((type) => Object.keys(FORMS[type]).length)).toEqual(['motor', 'servo', 'lamp']);
    const rows = (part: Part) => formOf(part).rows?.(part) ?? [];
    const [, plain] = parts.find(([name]) => name === 'lamp')!;
    const [, led] = parts.at(-1)!;
    expect([rows(plain).length, rows(led).length]).toEqual([1, 3]);
    const told = (ohm: number) => {
      const part = { ...led, ohm } as Part;
      return rows(part)[2].told!(part);
    };
    expect(told(220)).toMatchObject({ isTooMuch: false });
    expect(told(10)).toMatchObject({ text: expect.stringMatching(/^\d+\.\d mA$/), isTooMuch: true });
  });
});
