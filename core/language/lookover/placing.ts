/** Blocks in places where they cannot work, and blocks that the kit has nothing for. */
import { abilities } from '../../kit/kit.ts';
import { definition } from '../catalogue.ts';
import { isLive, isStep, liveSteps, walkSteps, type Program, type Routine, type Step } from '../program.ts';
import { isSlow } from '../python/print.ts';
import type { Remark, Rule } from './remark.ts';
import { liveLists } from './walk.ts';
import { later, say, word } from '../../words.ts';

/** no-loop: a block that leaves a loop or goes to its next turn stands in none. */
export const noLoop: Rule = ({ program }) =>
  misplaced(
    program,
    (step, { inLoop }) => (step.kind === 'repeat.leave' || step.kind === 'repeat.next') && !inLoop
  ).map((step): Remark => ({
    rule: 'no-loop',
    severity: 'will not work',
    blocks: [step.id],
    says: say('This block stands in no loop, so there is nothing to leave: the program cannot start.'),
    todo: say('Put it into a loop, or take it out.'),
    mends: []
  }));

/** input-elsewhere: an input of a routine is read outside of that routine. */
export const inputElsewhere: Rule = ({ program }) =>
  misplaced(
    program,
    (step, { routine }) => step.kind === 'routine.input' && !routine?.inputs?.some((i) => i.id === step.slots.input)
  ).map((step): Remark => ({
    rule: 'input-elsewhere',
    severity: 'will not work',
    blocks: [step.id],
    says: say('This input belongs to a routine and means nothing outside of it: the program cannot start.'),
    todo: say('Put the block into its routine, or use a variable.'),
    mends: []
  }));

/** slow-trigger: a routine that would take time in a condition that starts a stack. */
export const slowTrigger: Rule = ({ program }) =>
  program.stacks
    .filter((s) => isLive(s) && s.steps[0].kind === 'begin.when' && isSlow(s.steps[0].slots.condition))
    .map(({ steps: [starter] }): Remark => ({
      rule: 'slow-trigger',
      severity: 'will not work',
      blocks: [starter.id],
      says: say(
        'A routine cannot be asked in the condition of a starter, since it takes time: the program cannot start.'
      ),
      todo: say('Let a stack ask it in a loop, and send a message.'),
      mends: []
    }));

/** What a kit lacks for a block, by the need that the block names. */
export const MISSING: Readonly<Record<string, string>> = {
  wheels: later('two driven wheels'),
  edges: later('touch edges'),
  light: later('a light sensor'),
  temperature: later('a temperature sensor'),
  moisture: later('a moisture sensor'),
  motion: later('an accelerometer'),
  lamps: later('two lamps')
};
/** kit-lacks: the kit has not what a block needs; parts in sockets have a rule of their own. */
export const kitLacks: Rule = ({ program, kit }) => {
  const able = abilities(kit);
  return [...liveSteps(program)].flatMap((step): Remark[] => {
    const missing = (definition(step.kind).needs ?? []).filter((n) => n in MISSING && !able.has(n));
    if (!missing.length) return [];
    return [
      {
        rule: 'kit-lacks',
        severity: 'will not work',
        blocks: [step.id],
        says: say('This block needs {n}, which {name} does not have.', {
          n: missing.map((m) => word(MISSING[m])).join(` ${say('and')} `),
          name: kit.name
        }),
        todo: say('Take it out or switch it off, or choose a device that has it.'),
        mends: []
      }
    ];
  });
};

/** after-for-ever: what stands below a loop for ever that nothing leaves is never done. */
export const afterForEver: Rule = ({ program }) =>
  [...liveLists(program)].flatMap((list) =>
    list.flatMap((step, i): Remark[] => {
      const next = list[i + 1];
      if (step.kind !== 'repeat.ever' || !next || isLeft(step.bodies?.do ?? [])) return [];
      return [
        {
          rule: 'after-for-ever',
          severity: 'probably not meant',
          blocks: [step.id, next.id],
          says: say('What stands below this loop is never done: it repeats for ever, and nothing leaves it.'),
          todo: say('Put "leave the loop" into it, or use a loop that ends.'),
          mends: []
        }
      ];
    })
  );
/** Whether a block in the loop's own body leaves it; inner loops keep theirs to themselves. */
const isLeft = (body: readonly Step[]): boolean =>
  body.some((s) => {
    if (s.off) return false;
    if (s.kind === 'repeat.leave' || s.kind === 'routine.give') return true;
    const def = definition(s.kind);
    const loop = 'loop' in def && !!def.loop;
    return Object.values(s.bodies ?? {}).some((b) => (loop ? b.some((x) => x.kind === 'routine.give') : isLeft(b)));
  });

type Where = { inLoop: boolean; routine?: Routine };
/** Steps that can run, value blocks too, for which something is so where they stand. */
function misplaced(program: Program, is: (step: Step, where: Where) => boolean): Step[] {
  const found: Step[] = [];
  const look = (list: readonly Step[], where: Where): void => {
    for (const step of list) {
      if (step.off) continue;
      if (is(step, where)) found.push(step);
      for (const slot of Object.values(step.slots))
        if (isStep(slot)) found.push(...[...walkSteps([slot])].filter((s) => is(s, where)));
      const def = definition(step.kind);
      const loop = 'loop' in def && !!def.loop;
      for (const body of Object.values(step.bodies ?? {})) look(body, { ...where, inLoop: where.inLoop || loop });
    }
  };
  for (const stack of program.stacks) if (isLive(stack)) look(stack.steps, { inLoop: false });
  for (const routine of program.routines) look(routine.steps, { inLoop: false, routine });
  return found;
}
