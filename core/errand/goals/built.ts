/** Goals of how it is built: few blocks, a loop, and the same behaviour as before. */
import { isLoop, sets, valueDef } from '../../language/facts.ts';
import { liveSteps, type Program, type Step } from '../../language/program.ts';
import { sameBehaviour } from '../../trace/same.ts';
import { later, say } from '../../words.ts';
import { defineGoal, isOver, wanting, type Look, type Result } from '../goal.ts';

/** Blocks that count: those that run, without starters and without the values in their slots. */
export const countBlocks = (program: Program): number =>
  [...liveSteps(program)].filter((s) => !s.kind.startsWith('begin.') && !valueDef(s)).length;

const noBlocks = (look: Look): Result =>
  wanting(look, say('This is a text: what it is built of is not counted. Turn it into blocks.'));

export const few = defineGoal({
  kind: 'few',
  label: later('has few blocks'),
  fields: { most: { type: 'number', label: later('Blocks at the most'), unit: '', min: 1, max: 500, first: 6 } },
  words: ({ most }) => say('With {most} blocks at the most', { most }),
  check: ({ most }, look) => {
    if (!look.program) return noBlocks(look);
    const n = countBlocks(look.program);
    if (n > most)
      return {
        state: 'missed',
        says: say('It has {n} blocks; {most} are allowed.', { n, most }),
        off: { amount: n - most, unit: say('blocks') }
      };
    return { state: isOver(look) ? 'met' : 'holds', says: say('{n} blocks', { n }) };
  }
});

const HAS: Readonly<Record<string, (step: Step) => boolean>> = {
  loop: isLoop,
  routine: (step) => 'routine' in step.slots,
  variable: (step) => sets(step) === 'variable'
};
const USES = { loop: later('a loop'), routine: later('a routine'), variable: later('a variable') } as const;
export const uses = defineGoal({
  kind: 'uses',
  label: later('uses a loop, a routine, a variable'),
  fields: { what: { type: 'choice', label: later('What it uses'), of: USES, first: 'loop' } },
  words: ({ what }) => say('Use {what}', { what: say(USES[what as keyof typeof USES]) }),
  check: ({ what }, look) => {
    if (!look.program) return noBlocks(look);
    if (![...liveSteps(look.program)].some(HAS[what]))
      return { state: 'missed', says: say('There is none in the program.') };
    return { state: isOver(look) ? 'met' : 'holds', says: say('it is there') };
  }
});

export const same = defineGoal({
  kind: 'same',
  label: later('does the same as at first'),
  fields: {},
  words: () => say('Do the same as the program did at first'),
  check: (_, look) => {
    if (!look.before || !isOver(look)) return { state: 'open', says: say('told when the run is over') };
    const apart = sameBehaviour(look.before, look.trace);
    return apart.same
      ? { state: 'met', says: say('the same as before') }
      : { state: 'missed', says: apart.says, atUs: apart.atUs };
  }
});
