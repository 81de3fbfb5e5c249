/** read-once: a loop asks what a sensor read before it began, and nothing reads it again. */
import { allIds, isLive, isStep, liveSteps, walkSteps, type Slot, type Stack, type Step } from '../../program.ts';
import { asksCondition, isLoop, readsSensor, sets, turnsAgain, valueDef, variablesIn } from '../../facts.ts';
import { copySteps, setSlot } from '../../edit.ts';
import { say } from '../../../words.ts';
import type { Remark, Rule } from '../remark.ts';
import { doneBy, literal } from '../walk.ts';

const measures = (value: Slot | undefined): value is Step =>
  isStep(value) && [...walkSteps([value])].some((s) => readsSensor(s) && !!valueDef(s)?.outside);
/** Conditions that are asked at each turn: the loop's own, and those of choices right in it. */
const asked = (loop: Step): Step[] =>
  [
    ...(asksCondition(loop) ? [loop.slots.condition] : []),
    ...(turnsAgain(loop) ? (loop.bodies?.do ?? []) : []).flatMap((s) =>
      s.kind === 'choose.if' && !s.off
        ? Object.entries(s.slots).flatMap(([n, v]) => (n.startsWith('if') ? [v] : []))
        : []
    )
  ].filter(isStep);

export const readOnce: Rule = ({ program }) => {
  const live = [...liveSteps(program)];
  const setters = (id: string): Step[] => live.filter((s) => sets(s) === 'variable' && s.slots.variable === id);
  const again = (s: Step): boolean => isLoop(s) && (literal(s, 'count') ?? 2) > 1;
  return live.filter(again).flatMap((loop): Remark[] => {
    const inside = new Set([...doneBy(program, [loop])].map((s) => s.id));
    return asked(loop).flatMap((condition): Remark[] => {
      const names = variablesIn(condition);
      // what asks anything else as well can come true by that
      if (
        names.length !== 1 ||
        [...walkSteps([condition])].some((s) => !s.kind.startsWith('calc.') && s.kind !== 'var.value')
      )
        return [];
      const given = setters(names[0]);
      const [{ slots } = { slots: {} as Step['slots'] }] = given;
      if (
        given.length !== 1 ||
        inside.has(given[0].id) ||
        !measures(slots.value) ||
        !before(program.stacks, given[0], loop)
      )
        return [];
      const name = program.variables.find((v) => v.id === names[0])?.name ?? '?';
      const value = [...walkSteps([condition])].find((s) => s.kind === 'var.value')!;
      const holder = [...walkSteps([condition])].find((s) => Object.values(s.slots).includes(value));
      const slot = holder && Object.keys(holder.slots).find((n) => holder.slots[n] === value);
      return [
        {
          rule: 'read-once',
          severity: 'probably not meant',
          blocks: [condition.id, given[0].id],
          says: say('{name} was read before this loop, and nothing reads it again: here it stays what it was.', {
            name
          }),
          todo: say('Ask the sensor itself here, or set {name} anew at each turn.', { name }),
          mends:
            holder && slot
              ? [
                  {
                    label: say('Ask the sensor here'),
                    apply: (p, kit) => ({
                      program: setSlot(p, holder.id, slot, copySteps([slots.value as Step], allIds(p))[0]),
                      kit
                    })
                  }
                ]
              : []
        }
      ];
    });
  });
};
/** Whether both stand in one stack, the one above the other. */
function before(stacks: readonly Stack[], first: Step, second: Step): boolean {
  for (const stack of stacks.filter(isLive)) {
    const ids = [...walkSteps(stack.steps)].map((s) => s.id);
    const at = ids.indexOf(first.id);
    if (at >= 0) return ids.indexOf(second.id) > at;
  }
  return false;
}
