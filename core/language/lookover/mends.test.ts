/** Every mend that is offered leaves a program that can be saved, whatever stands around it. */
import fc from 'fast-check';
import { expect, it } from 'vitest';
import { barrow } from '../../kit/kit.ts';
import { anyProgram } from '../../testing/random.ts';
import { b, program, start } from '../../testing/build.ts';
import { checkProgram } from '../check.ts';
import { lookOver } from './lookover.ts';

it('in random programs', () => {
  let mended = 0;
  fc.assert(
    fc.property(anyProgram, (p) => {
      if (checkProgram(p) !== undefined) return;
      for (const { rule, mends } of lookOver({ program: p, kit: barrow }))
        for (const mend of mends) {
          mended++;
          expect(checkProgram(mend.apply(p, barrow).program), `${rule}: ${mend.label}`).toBeUndefined();
        }
    }),
    { seed: 20_261_202, numRuns: 300 }
  );
  expect(mended).toBeGreaterThan(100);
});
it('where the block that it would go below ends its list', () => {
  const held = b('sense.button', { button: 'Dot' });
  const p = program(
    start(
      b(
        'repeat.ever',
        {},
        {
          do: [
            b(
              'choose.if',
              { if1: held },
              { then1: [b('var.change', { variable: 'v1', amount: 1 }), b('routine.give')] }
            )
          ]
        }
      )
    )
  );
  const remarks = lookOver({ program: p, kit: barrow });
  const counted = remarks.find((r) => r.rule === 'counts-while-held')!;
  const next = counted.mends[0].apply(p, barrow).program;
  expect(checkProgram(next)).toBeUndefined();
  expect(JSON.stringify(next)).toContain('wait.until');
});
