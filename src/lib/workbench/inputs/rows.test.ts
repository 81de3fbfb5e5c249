import fc from 'fast-check';
import { describe, expect, it } from 'vitest';
import { anyInput } from '../../../../core/testing/lives.ts';
import { inputSchema, parseInputs, writeInputs } from '../../../../core/trace/inputs.ts';
import { freshRow, inputOf, OF_THE_RUN, rowOf, whatOf, WHATS } from './rows.ts';

describe('inputs as rows', () => {
  it('have a kind for everything that a person can do, and each begins with something that a run takes', () => {
    const kinds = inputSchema.options.map((o) => Object.keys(o.shape)[0]).sort();
    expect(WHATS.map((w) => w.id).sort()).toEqual(kinds);
    for (const { id } of WHATS) {
      const { input } = inputOf(freshRow(0, id));
      expect(inputSchema.safeParse(input), id).toMatchObject({ success: true });
    }
  });
  it('say the same as the line that they come from', () => {
    fc.assert(
      fc.property(anyInput, fc.nat(9_000_000), fc.constantFrom(undefined, 'Barrow 7'), (input, tUs, other) => {
        const ofTheRun = 'set' in input || 'stop' in input;
        const timed = { tUs, input, ...(other && !ofTheRun ? { to: other } : {}) };
        const row = rowOf(timed);
        expect(inputOf(row)).toEqual(timed);
        expect(parseInputs(writeInputs([inputOf(row)])).ok).toBe(true);
        expect(OF_THE_RUN.has(row.what)).toBe(ofTheRun);
      })
    );
  });
  it('take no number that a run does not take', () => {
    for (const what of WHATS)
      for (const field of what.fields) {
        if (field.is !== 'number') continue;
        for (const [n, taken] of [
          [field.min, true],
          [field.max, true],
          [field.max + 1, what.id === 'around' && field.unit === '°C']
        ] as const) {
          const row = freshRow(0, what.id);
          const { input } = inputOf({ ...row, cells: { ...row.cells, [field.key]: n } });
          expect(inputSchema.safeParse(input).success, `${what.id} ${field.key} ${n}`).toBe(taken);
        }
      }
  });
  it('leave out what is not filled in, and read a number where a value may be one', () => {
    const lean = freshRow(1e6, 'lean');
    expect(inputOf(lean).input).toEqual({ lean: {} });
    expect(inputOf({ ...lean, cells: { ...lean.cells, forwards: -20 } }).input).toEqual({ lean: { forwards: -20 } });
    const set = (to: string) => inputOf({ ...freshRow(0, 'set'), cells: { variable: 'n', to } }).input;
    expect([set('4,5'), set('moss'), set('')]).toEqual([
      { set: { variable: 'n', to: 4.5 } },
      { set: { variable: 'n', to: 'moss' } },
      { set: { variable: 'n', to: '' } }
    ]);
    const message = freshRow(0, 'message');
    expect(inputOf({ ...message, cells: { message: 'go', from: '' } }).input).toEqual({ message: 'go' });
    expect(freshRow(0, 'stop', 'Barrow 7').to).toBeUndefined();
    expect(whatOf('push').within).toBe(true);
  });
});
