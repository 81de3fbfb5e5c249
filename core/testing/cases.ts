/** Cases of one rule of the look-over: programs in which it must fire, and programs in which it must not. */
import { describe, expect, it } from 'vitest';
import { barrow, type Kit } from '../kit/kit.ts';
import { lookOver } from '../language/lookover/lookover.ts';
import type { Remark } from '../language/lookover/remark.ts';
import { allSteps, type Program } from '../language/program.ts';
import { printPython } from '../language/python/print.ts';
import { fromText } from './text.ts';

type Case = string | Program;
const program = (c: Case, kit: Kit): Program => (typeof c === 'string' ? fromText(c, kit) : c);
const rulesOf = (p: Program, kit: Kit): string[] => lookOver({ program: p, kit }).map((r) => r.rule);

/** A remark as a person meets it: how grave, where, its sentences, and the text of the program after each mend. */
const asTold = (remark: Remark, p: Program, kit: Kit): string =>
  [
    `${remark.severity}: ${remark.blocks.map((id) => [...allSteps(p)].find((s) => s.id === id)?.kind ?? '?').join(', ')}`,
    remark.says,
    remark.todo,
    ...remark.mends.map((mend) => {
      const after = mend.apply(p, kit);
      return `> ${mend.label}\n${printPython(after.program, after.kit).text}`;
    })
  ].join('\n');

/** @param mended every mend that is offered in these programs makes the remark go away */
export function cases(
  rule: string,
  {
    fires,
    silent,
    kit = barrow,
    mended = true
  }: { fires: Record<string, Case>; silent: Record<string, Case>; kit?: Kit; mended?: boolean }
): void {
  describe(rule, () => {
    for (const [name, c] of Object.entries(fires))
      it(`fires: ${name}`, () => {
        const p = program(c, kit);
        const remarks = lookOver({ program: p, kit }).filter((r) => r.rule === rule);
        expect(remarks.length, rulesOf(p, kit).join()).toBeGreaterThan(0);
        for (const remark of remarks) {
          expect(remark.says.length).toBeGreaterThan(20);
          expect(remark.todo.length).toBeGreaterThan(10);
          // word for word, with what each mend makes of the program: vitest -u where it is meant to be another
          expect(asTold(remark, p, kit)).toMatchSnapshot();
          for (const mend of mended ? remark.mends : []) {
            const after = mend.apply(p, kit);
            const left = lookOver(after).filter((r) => r.rule === rule && r.blocks.join() === remark.blocks.join());
            expect(left, mend.label).toEqual([]);
          }
        }
      });
    for (const [name, c] of Object.entries(silent))
      it(`is silent: ${name}`, () => expect(rulesOf(program(c, kit), kit)).not.toContain(rule));
  });
}
