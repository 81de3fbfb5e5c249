/** place-out-of-list: places count from 0, so a list of five has the places 0 to 4. */
import { changeStep } from '../../edit.ts';
import { isStep, liveSteps, type Program, type Slot, type Step } from '../../program.ts';
import { itemCount } from '../../blocks/remember.ts';
import type { Mend, Remark, Rule } from '../remark.ts';
import { literal, liveLists } from '../walk.ts';
import { say } from '../../../words.ts';

const LOOKS = new Set(['list.at', 'list.replace', 'list.take']);
const same = (a: Slot | undefined, b: Slot | undefined): boolean => listId(a) !== undefined && listId(a) === listId(b);
const listId = (slot: Slot | undefined): string | undefined =>
  typeof slot === 'string'
    ? slot
    : isStep(slot) && (slot.kind === 'list.value' || slot.kind === 'var.value')
      ? String(slot.slots.list ?? slot.slots.variable)
      : undefined;

/** How many a list holds, where the program alone decides it: filled in a row, never shortened, not in a loop. */
function lengths(program: Program): Map<string, number> {
  const counts = new Map<string, number>();
  const live = [...liveSteps(program)];
  for (const list of program.variables.filter((v) => v.list)) {
    const uses = live.filter((s) => s.slots.list === list.id);
    if (uses.some((s) => s.kind === 'list.take')) continue;
    const adds = uses.filter((s) => s.kind === 'list.add' || s.kind === 'list.insert');
    const top = program.stacks.flatMap((s) => s.steps).filter((s) => !s.off);
    if (adds.length && adds.every((a) => top.includes(a))) counts.set(list.id, adds.length);
  }
  for (const v of program.variables) {
    const sets = live.filter((s) => s.kind === 'var.set' && s.slots.variable === v.id);
    if (sets.length === 1 && isStep(sets[0].slots.value) && sets[0].slots.value.kind === 'list.new')
      counts.set(v.id, itemCount(sets[0].slots.value));
  }
  return counts;
}

export const placeOutOfList: Rule = ({ program }) => {
  const known = lengths(program);
  const remarks: Remark[] = [];
  const tell = (step: Step, says: string, mends: Mend[]): void => {
    if (remarks.some((r) => r.blocks.includes(step.id))) return;
    remarks.push({
      rule: 'place-out-of-list',
      severity: 'will not work',
      blocks: [step.id],
      says,
      todo: say('Places count from 0: the last one is how many there are, less 1.'),
      mends
    });
  };
  for (const step of liveSteps(program)) {
    if (!LOOKS.has(step.kind)) continue;
    const { place, list } = step.slots;
    const n = literal(step, 'place');
    const many = isStep(list) && list.kind === 'list.new' ? itemCount(list) : known.get(listId(list) ?? '');
    if (n !== undefined && many !== undefined && n >= many)
      tell(
        step,
        say('There is no place {n}: the list holds {many}, at the places 0 to {last}.', { n, many, last: many - 1 }),
        n === many
          ? [
              {
                label: say('Place {n}', { n: n - 1 }),
                apply: (p, kit) => ({
                  program: changeStep(p, step.id, (s) => ({ ...s, slots: { ...s.slots, place: n - 1 } })),
                  kit
                })
              }
            ]
          : []
      );
    if (isStep(place) && place.kind === 'list.count' && same(place.slots.list, list))
      tell(step, say('The place after the last one is empty: how many there are is one more than the last place.'), []);
  }
  // let n go from 1 to how many there are, and place n in it
  for (const list of liveLists(program))
    for (const loop of list) {
      if (loop.kind !== 'repeat.count' || !isStep(loop.slots.to) || loop.slots.to.kind !== 'list.count') continue;
      if (literal(loop, 'step') !== 1) continue;
      const counted = loop.slots.to.slots.list;
      const inside = [
        ...liveSteps({
          ...program,
          routines: [],
          stacks: [
            { id: '', x: 0, y: 0, steps: [{ id: '', kind: 'begin.start', slots: {} }, ...(loop.bodies?.do ?? [])] }
          ]
        })
      ];
      for (const step of inside) {
        const place = step.slots.place;
        if (
          !LOOKS.has(step.kind) ||
          !isStep(place) ||
          place.kind !== 'var.value' ||
          place.slots.variable !== loop.slots.variable
        )
          continue;
        if (!same(counted, step.slots.list)) continue;
        tell(
          step,
          say('The last turn looks beyond the list: its places are 0 to how many there are, less 1.'),
          literal(loop, 'from') === 1
            ? [
                {
                  label: say('Count from 0 to one less'),
                  apply: (p, kit) => ({
                    program: changeStep(p, loop.id, (s) => ({
                      ...s,
                      slots: {
                        ...s.slots,
                        from: 0,
                        to: { id: `${loop.id}m`, kind: 'calc.sum', slots: { a: s.slots.to, sign: '−', b: 1 } }
                      }
                    })),
                    kit
                  })
                }
              ]
            : []
        );
      }
    }
  return remarks;
};
