/** counts-on: a loop ends when a counter has come so far, is met again, and nothing sets the counter back in between. */
import { insertBefore } from '../../edit.ts';
import { isLive, isStep, liveSteps, type Step } from '../../program.ts';
import { asksCondition, isLoop, turnsAgain, variablesIn } from '../../facts.ts';
import { say } from '../../../words.ts';
import type { Remark, Rule } from '../remark.ts';
import { doneBy, fresh, literal } from '../walk.ts';

/** Stacks that begin once: all others can begin again. */
const ONCE = new Set(['begin.start', 'begin.before', 'begin.off']);

export const countsOn: Rule = ({ program }) => {
  const found = new Map<string, { loop: Step; variable: string }>();
  const live = [...liveSteps(program)];
  const look = (again: readonly Step[]): void => {
    const inside = [...doneBy(program, again)];
    const setHere = new Set(
      inside.flatMap((s) => (s.kind === 'var.set' || s.kind === 'repeat.count' ? [String(s.slots.variable)] : []))
    );
    for (const loop of inside) {
      const { condition } = loop.slots;
      if (!isLoop(loop) || !asksCondition(loop) || !isStep(condition) || condition.kind !== 'calc.compare') continue;
      // one counter against a number, moved on in the loop itself, one way
      const asked = variablesIn(condition);
      const [variable] = asked;
      if (asked.length !== 1 || setHere.has(variable)) continue;
      if (literal(condition, 'a') === undefined && literal(condition, 'b') === undefined) continue;
      const moved = [...doneBy(program, loop.bodies?.do ?? [])].some(
        (s) => s.kind === 'var.change' && s.slots.variable === variable
      );
      const others = live.filter((s) => s.kind === 'var.change' && s.slots.variable === variable);
      const way = new Set(others.map((s) => Math.sign(literal(s, 'amount') ?? 0)));
      if (moved && way.size === 1 && !way.has(0)) found.set(loop.id, { loop, variable });
    }
  };
  for (const loop of live) if (turnsAgain(loop) && (literal(loop, 'count') ?? 2) > 1) look(loop.bodies?.do ?? []);
  for (const stack of program.stacks) if (isLive(stack) && !ONCE.has(stack.steps[0].kind)) look(stack.steps.slice(1));
  return [...found.values()].map(({ loop, variable }): Remark => {
    const name = program.variables.find((v) => v.id === variable)?.name ?? '?';
    return {
      rule: 'counts-on',
      severity: 'probably not meant',
      blocks: [loop.id],
      says: say('The second time this ends at once: {name} keeps what it came to, since nothing sets it back.', {
        name
      }),
      todo: say('Set it to 0 before the loop begins.'),
      mends: [
        {
          label: say('Set {name} to 0 before it', { name }),
          apply: (p, kit) => ({
            program: insertBefore(p, loop.id, [fresh(p, 'var.set', { variable, value: 0 })]),
            kit
          })
        }
      ]
    };
  });
};
