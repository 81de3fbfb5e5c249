/** no-zeroing-before-heading: the same waiting for a turned angle comes again, and nothing has zeroed it in between. */
import { catalogue } from '../../catalogue.ts';
import type { Counted } from '../../define.ts';
import { insertBefore } from '../../edit.ts';
import { isStep, liveSteps, walkSteps, type Step } from '../../program.ts';
import type { Remark, Rule } from '../remark.ts';
import { asksCondition, sets, turnsAgain, valueDef, variablesIn, zeroes } from '../../facts.ts';
import { fresh, literal, liveLists } from '../walk.ts';
import { say } from '../../../words.ts';

const deep = (list: readonly Step[]): Step[] => [...walkSteps(list)].filter((s) => !s.off);
/** What is waited for: turned so far, or rolled so far. */
function waitsFor(step: Step): Counted | undefined {
  if (!asksCondition(step) || !isStep(step.slots.condition)) return undefined;
  const { condition } = step.slots;
  if (condition.kind !== 'calc.compare') return undefined;
  const sides = [condition.slots.a, condition.slots.b].filter(isStep);
  return sides.map((s) => valueDef(s)?.counts).find((counts) => counts);
}
/** The block that zeroes it. */
const zeroing = (what: Counted): string => [...catalogue.keys()].find((kind) => zeroes({ kind }) === what)!;
/** Whether the loop changes a variable that the wait compares with. */
const limitMoves = (wait: Step, inside: readonly Step[]): boolean => {
  const asked = variablesIn(wait);
  return inside.some((s) => sets(s) === 'variable' && asked.includes(String(s.slots.variable)));
};
const sameNumber = (a: Step, b: Step): boolean => {
  const of = (s: Step): string =>
    JSON.stringify((s.slots.condition as Step).slots, (k, v) => (k === 'id' ? undefined : v));
  return of(a) === of(b);
};

export const noZeroing: Rule = ({ program }) => {
  const found = new Map<string, { step: Step; what: Counted }>();
  for (const loop of liveSteps(program)) {
    if (!turnsAgain(loop) || (literal(loop, 'count') ?? 2) < 2) continue;
    const inside = deep(loop.bodies?.do ?? []);
    for (const step of inside) {
      const what = waitsFor(step);
      // a limit that the loop itself moves on is another one each time
      if (what && !inside.some((s) => zeroes(s) === what) && !limitMoves(step, inside))
        found.set(step.id, { step, what });
    }
  }
  for (const list of liveLists(program)) {
    let before: Step | undefined;
    for (const step of list) {
      const what = waitsFor(step);
      if (what && before && sameNumber(before, step) && !limitMoves(step, list)) found.set(step.id, { step, what });
      if (what) before = step;
      else if (before && deep([step]).some((s) => zeroes(s) === waitsFor(before!))) before = undefined;
    }
  }
  return [...found.values()].map(({ step, what }): Remark => ({
    rule: 'no-zeroing-before-heading',
    severity: 'probably not meant',
    blocks: [step.id],
    says:
      what === 'turned'
        ? say('The second time this is true at once: the angle counts on from before, since nothing zeroes it.')
        : say('The second time this is true at once: the wheels count on from before, since nothing zeroes them.'),
    todo: say('Zero it before each time.'),
    mends: [
      {
        label: what === 'turned' ? say('Add: zero the heading before it') : say('Add: zero the wheels before it'),
        apply: (p, kit) => ({
          program: insertBefore(p, step.id, [fresh(p, zeroing(what))]),
          kit
        })
      }
    ]
  }));
};
