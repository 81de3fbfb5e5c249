/** counts-while-held: something is counted at each turn of a loop for as long as a button is held, not once for each press. */
import { copySteps, insertAfter } from '../../edit.ts';
import { allIds, isStep, liveSteps, walkSteps, type Slot, type Step } from '../../program.ts';
import { isLoop, takesTime, valueDef } from '../../facts.ts';
import { say } from '../../../words.ts';
import type { Remark, Rule } from '../remark.ts';
import { fresh, literal } from '../walk.ts';

/** A turn of the loop that lasts so long leaves time to let go, ms. */
const LONG_MS = 150;
/** Held down, pressed against or stood on: what lasts, and is asked as yes or no. */
const lasts = (condition: Slot | undefined): condition is Step =>
  isStep(condition) && !!valueDef(condition)?.outside && valueDef(condition)?.gives === 'condition';
/** How long a list takes at the least, ms, as far as it is written in it; whatever asks the same again waits for its end. */
function lastsMs(list: readonly Step[], asked: string): number {
  let ms = 0;
  for (const step of [...walkSteps(list)].filter((s) => !s.off)) {
    if (step.kind === 'wait.time') ms += (literal(step, 'time') ?? LONG_MS) * (step.slots.unit === 'ms' ? 1 : 1000);
    else if (step.kind !== 'choose.if' && takesTime(step)) return LONG_MS;
    else if (Object.values(step.slots).some((s) => isStep(s) && [...walkSteps([s])].some((v) => v.kind === asked)))
      ms += step.kind === 'choose.if' ? 0 : LONG_MS;
  }
  return ms;
}

export const countsWhileHeld: Rule = ({ program }) =>
  [...liveSteps(program)].flatMap((loop): Remark[] => {
    const turn = isLoop(loop) ? (loop.bodies?.do ?? []).filter((s) => !s.off) : [];
    return turn.flatMap((choice): Remark[] => {
      const { if1: condition } = choice.slots;
      if (choice.kind !== 'choose.if' || !lasts(condition)) return [];
      const then = (choice.bodies?.then1 ?? []).filter((s) => !s.off);
      const counts = then.find((s) => s.kind === 'var.change' && literal(s, 'amount') === 1);
      if (!counts || then.some((s) => /^repeat\.(leave|next)$/.test(s.kind))) return [];
      if (lastsMs(turn, condition.kind) >= LONG_MS) return [];
      const name = program.variables.find((v) => v.id === counts.slots.variable)?.name ?? '?';
      return [
        {
          rule: 'counts-while-held',
          severity: 'probably not meant',
          blocks: [counts.id],
          says: say(
            'This counts at each turn of the loop for as long as it is so: one press counts {name} many times.',
            {
              name
            }
          ),
          todo: say(
            'Wait after it until it is no longer so, or count in a stack of its own that begins with the press.'
          ),
          mends: [
            {
              label: say('Wait until it is over'),
              apply: (p, kit) => {
                const until = fresh(p, 'wait.until', {
                  condition: { ...fresh(p, 'calc.not'), slots: { a: condition } }
                });
                return { program: insertAfter(p, then.at(-1)!.id, copySteps([until], allIds(p))), kit };
              }
            }
          ]
        }
      ];
    });
  });
