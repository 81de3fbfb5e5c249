/** Goals of how it is built: few blocks, a loop, and the same behaviour as before. */
import { definition } from '../../language/catalogue.ts';
import { asksCondition, isLoop, sets, shows, valueDef, variablesIn } from '../../language/facts.ts';
import { isStep, liveSteps, walkSteps, type Program, type Step } from '../../language/program.ts';
import { rowsOfBlock } from '../../trace/apart.ts';
import { sameBehaviour } from '../../trace/same.ts';
import { later, say, word } from '../../words.ts';
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

/** How often a block ran up to the moment that is looked at. */
const ranTimes = ({ trace, toUs }: Look, { id }: Step): number =>
  rowsOfBlock(trace, id).reduce((n, row) => (trace.spans.start[row] <= toUs ? n + trace.spans.times[row] : n), 0);
/** A text's trace tells its lines and no blocks: then everything that is there may have run. */
const knowsBlocks = ({ trace, program }: Look): boolean => {
  const known = new Set(trace.header.blocks);
  return [...liveSteps(program!)].some((s) => known.has(s.id));
};
/** What ran, of blocks that are no values. */
function thatRan(look: Look): Step[] {
  const steps = [...liveSteps(look.program!)].filter((s) => !valueDef(s));
  return knowsBlocks(look) ? steps.filter((s) => ranTimes(look, s) > 0) : steps;
}
const bodyOf = (step: Step): Step[] => Object.values(step.bodies ?? {}).flat();
/** Whether something was used that ran: a loop that came round, a routine with something in it, a variable that was read. */
const USED: Readonly<Record<string, (look: Look, ran: readonly Step[]) => boolean>> = {
  loop: (look, ran) =>
    ran.some((s) => isLoop(s) && bodyOf(s).some((b) => !b.off && (!knowsBlocks(look) || ranTimes(look, b) > 1))),
  routine: (look, ran) => {
    const did = new Set(ran.map((s) => s.id));
    const called = new Set(ran.flatMap((s) => [...walkSteps([s])].map((v) => v.slots.routine)));
    return look.program!.routines.some((r) => called.has(r.id) && r.steps.some((s) => did.has(s.id)));
  },
  variable: (_, ran) => {
    const read = new Set(ran.flatMap((s) => Object.values(s.slots).filter(isStep).flatMap(variablesIn)));
    return ran.some((s) => sets(s) === 'variable' && read.has(String(s.slots.variable)));
  }
};
const USES = { loop: later('a loop'), routine: later('a routine'), variable: later('a variable') } as const;
export const uses = defineGoal({
  kind: 'uses',
  label: later('uses a loop, a routine, a variable'),
  fields: { what: { type: 'choice', label: later('What it uses'), of: USES, first: 'loop' } },
  words: ({ what }) => say('Use {what}', { what: say(USES[what as keyof typeof USES]) }),
  check: ({ what }, look) => {
    if (!look.program) return noBlocks(look);
    if (USED[what](look, thatRan(look))) return { state: isOver(look) ? 'met' : 'holds', says: say('it is there') };
    const there = [...liveSteps(look.program)].some(HAS[what]);
    return wanting(
      look,
      there ? say('There is one, and this run did not use it.') : say('There is none in the program.')
    );
  }
});
const HAS: Readonly<Record<string, (step: Step) => boolean>> = {
  loop: isLoop,
  routine: (step) => 'routine' in step.slots,
  variable: (step) => sets(step) === 'variable'
};

/** Whether what a sensor read came to something: through variables too, into a condition or into what a block does. */
function decided(kind: string, ran: readonly Step[]): boolean {
  const from = new Set<string>();
  const holds = (step: Step): boolean =>
    [...walkSteps([step])].some(
      (v) =>
        v.kind === kind ||
        variablesIn(v).some((name) => from.has(name)) ||
        ('input' in v.slots && from.has(String(v.slots.input)))
    );
  for (let before = -1; before < from.size;) {
    before = from.size;
    for (const step of ran)
      for (const [slot, value] of Object.entries(step.slots)) {
        if (!isStep(value) || !holds(value)) continue;
        if (sets(step)) from.add(String(step.slots.variable ?? step.slots.list));
        if (slot.startsWith('in:')) from.add(slot.slice(3));
      }
  }
  const told = (step: Step): boolean => shows(step) || step.kind.startsWith('log.') || sets(step) !== undefined;
  return ran.some(
    (step) =>
      !told(step) &&
      (!step.kind.startsWith('choose.') || bodyOf(step).some((b) => !b.off)) &&
      (!asksCondition(step) || isLoop(step) || step.kind.startsWith('wait.') || bodyOf(step).length > 0) &&
      Object.entries(step.slots).some(([slot, v]) => isStep(v) && !slot.startsWith('in:') && holds(v))
  );
}
const labelOf = (kind: string): string => word(definition(kind).label[0]);
export const used = defineGoal({
  kind: 'used',
  label: later('uses a sensor'),
  fields: { sensor: { type: 'sensor', label: later('Sensor') } },
  words: ({ sensor }) => say('Decide by: {sensor}', { sensor: labelOf(sensor) }),
  check: ({ sensor }, look) => {
    if (!look.program) return noBlocks(look);
    if (decided(sensor, thatRan(look))) return { state: isOver(look) ? 'met' : 'holds', says: say('it was asked') };
    const there = [...liveSteps(look.program)].some((s) => [...walkSteps([s])].some((v) => v.kind === sensor));
    return wanting(
      look,
      there ? say('It was read, and nothing was decided by it.') : say('It was not asked in this run.')
    );
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
