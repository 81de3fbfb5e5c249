import { describe, expect, it } from 'vitest';
import { checkProgram } from './check.ts';
import { run } from '../testing/build.ts';
import { longAisle } from '../yard/mats.ts';
import { catalogue } from './catalogue.ts';
import { exampleOf, exampleText, kitFor } from './example.ts';
import { allSteps } from './program.ts';

describe('the example of each block', () => {
  it.each([...catalogue.values()].map((d) => [d.kind, d] as const))(
    '%s: uses it, runs, and does something',
    (kind, def) => {
      const program = exampleOf(kind);
      expect(checkProgram(program)).toBeUndefined();
      expect([...allSteps(program)].map((s) => s.kind)).toContain(kind);
      const trace = run(program, {
        kit: kitFor(kind),
        mat: longAisle,
        limitS: 8,
        // whatever an example may wait for happens once
        inputs: [
          { tUs: 500_000, input: { word: true } },
          { tUs: 600_000, input: { press: 'Dot' } },
          { tUs: 700_000, input: { release: 'Dot' } },
          { tUs: 800_000, input: { key: 'W', down: true } },
          { tUs: 1_000_000, input: { nose: true } },
          { tUs: 1_100_000, input: { rim: 40, touched: true } },
          { tUs: 1_200_000, input: { lean: { sideways: -40 } } },
          { tUs: 1_600_000, input: { lean: { sideways: 170 } } },
          { tUs: 2_000_000, input: { lean: { sideways: 0 } } },
          { tUs: 2_500_000, input: { shake: 1 } },
          { tUs: 4_000_000, input: { toss: 40 } },
          { tUs: 5_000_000, input: { message: 'go' } }
        ]
      });
      const errors = trace.events.filter((e) => e.type === 'error');
      // Barrow comes without a spin servo and a colour sensor: there the example shows what an empty socket says
      expect(errors.map((e) => e.kind)).toEqual(
        ['servo.spin', 'sense.colour'].includes(def.kind) ? ['empty-socket'] : []
      );
      expect(trace.spans.count).toBeGreaterThan(0);
      expect(exampleText(kind)).toContain('run(');
    }
  );
});
