/**
 * Whether an errand is sound: its model meets all goals in all situations, its wrong programs miss those that they are to miss,
 * and nothing else meets them: no small change of the model that behaves otherwise, unless its author says that it is right
 * too; not nothing, not waiting, not a clock that looks at no sensor, not another errand's model, not the blocks in another order.
 */
import { calibrated } from '../kit/calibration.ts';
import { quirksOf, SWAPPED } from '../kit/quirks.ts';
import { STAND_INS } from '../kit/units.ts';
import type { Kit } from '../kit/kit.ts';
import { definition, sentence } from '../language/catalogue.ts';
import { changeWords, smallChanges, type Change, type NamedChange } from '../language/changes.ts';
import { readsSensor, valueDef } from '../language/facts.ts';
import { lookOver } from '../language/lookover/lookover.ts';
import { stopsStart } from '../language/lookover/remark.ts';
import { allSteps, isStep, liveSteps, walkSteps, type Program, type Slot, type Step } from '../language/program.ts';
import { partName } from '../kit/kit.ts';
import { calibrate } from '../run/calibrate.ts';
import { sameBehaviour } from '../trace/same.ts';
import type { Trace } from '../trace/trace.ts';
import { say } from '../words.ts';
import type { Errand } from './errand.ts';
import { goalWords, type Verdict } from './goals.ts';
import { toldIn } from './task.ts';
import { tryOut, verdictIn } from './try.ts';
import { yardsOf, type Yard } from './yards.ts';

/** So many stand-ins the model is tried on; one whose leads are swapped is no matter of measuring. */
const ON = 3;

/** One try in one yard: its run, and what it comes to. */
export function triedIn(
  errand: Errand,
  yard: Yard,
  program: Program,
  more: Parameters<typeof tryOut>[3] = {}
): { trace: Trace; verdict: Verdict } {
  const trace = tryOut(errand, yard, program, more);
  return { trace, verdict: verdictIn(errand, yard, trace, program) };
}
/** A try in all situations, up to the first that is missed. @param serial of a stand-in; as on the kit sheet where it is left out */
export function tried(errand: Errand, program: Program, serial?: string): Verdict {
  let last: Verdict | undefined;
  for (const yard of yardsOf(errand, errand)) {
    if (serial) {
      const quirks = quirksOf(serial, errand.kit);
      const kit: Kit =
        errand.standIns === 'calibrated' ? calibrated(errand.kit, serial, calibrate(errand.kit, quirks)) : errand.kit;
      last = triedIn(errand, { ...yard, kit }, program, { quirks, onBattery: true }).verdict;
    } else last = triedIn(errand, yard, program).verdict;
    if (!last.met) return last;
  }
  return last!;
}
/** The stand-ins that the errand's model is to meet its goals on. */
export const standInsOf = ({ kit, standIns }: Errand): readonly { name: string; serial: string }[] =>
  standIns ? STAND_INS.filter((s) => s.device === kit.device && s.serial !== SWAPPED).slice(0, ON) : [];

/** What is unsound about it, a sentence each. */
export function unsound(errand: Errand): string[] {
  const told = (verdict: Verdict, who: string): string[] =>
    verdict.met
      ? []
      : verdict.results.flatMap((r, i) =>
          r.state === 'met' || r.state === 'holds'
            ? []
            : [
                say('{who} misses the goal {n}, {goal}: {says}', {
                  who,
                  n: i + 1,
                  goal: goalWords(errand.goals[i]),
                  says: r.says
                })
              ]
        );
  const model = say('The model');
  const out = told(tried(errand, errand.model), model);
  for (const { name, serial } of standInsOf(errand))
    out.push(...told(tried(errand, errand.model, serial), say('The model on {name}', { name })));
  errand.wrong.forEach(({ shows, program, misses }, i) => {
    const { results } = triedIn(errand, yardsOf(errand, errand)[0], program).verdict;
    for (const goal of misses)
      if (results[goal].state !== 'missed')
        out.push(
          say('The wrong program {n} ({shows}) meets the goal {goal}, which it is to miss.', {
            n: i + 1,
            shows: toldIn(shows),
            goal: goalWords(errand.goals[goal])
          })
        );
  });
  for (const also of errand.alsoRight)
    if ('program' in also)
      out.push(...told(tried(errand, also.program), say('What is also right ({why})', { why: toldIn(also.why) })));
  return out;
}

/** What of the bell is not to ring for does make it ring. */
export type Holes = {
  /** changed models that behave otherwise, and how many of them miss a goal, or are said to be right */
  changed: number;
  missed: number;
  listed: number;
  /** what meets all goals and should not; which small change of the model it is, where it is one */
  open: { says: string; program: Program; change?: NamedChange }[];
};
/** @param others whose models are not to be taken for its own  @param each so many small changes make one that is tried */
export function holes(errand: Errand, others: readonly Errand[] = [], each = 1): Holes {
  const out: Holes = { changed: 0, missed: 0, listed: 0, open: [] };
  const yards = yardsOf(errand, errand);
  const runs = yards.map((yard) => tryOut(errand, yard, errand.model));
  /** other ways that are right too */
  const also = errand.alsoRight.flatMap((a) =>
    'program' in a ? [yards.map((yard) => tryOut(errand, yard, a.program))] : []
  );
  /** whether it does otherwise than the model, and whether all goals are met all the same */
  const came = (program: Program): { differs: boolean; met: boolean; traces: Trace[] } => {
    let differs = false;
    let met = true;
    const traces: Trace[] = [];
    for (const [i, yard] of yards.entries()) {
      const { trace, verdict } = triedIn(errand, yard, program);
      differs ||= !sameBehaviour(runs[i], trace).same;
      met &&= verdict.met;
      traces.push(trace);
      if (differs && !met) break;
    }
    return { differs, met, traces };
  };
  for (const [n, change] of [...smallChanges(errand.model)].entries()) {
    if (n % each) continue;
    const { differs, met } = came(change.program);
    if (!differs) continue;
    out.changed++;
    if (!met) out.missed++;
    else if (isListed(errand, change)) out.listed++;
    else {
      const { kind, blocks, slot, program } = change;
      out.open.push({
        says: toldChange(errand, change),
        program,
        change: { kind, block: blocks[0], ...(slot === undefined ? {} : { slot }) }
      });
    }
  }
  // what looks at no sensor and does the same in the only yard there is, is what another situation would tell apart
  const clock = clockOf(errand, runs[0]);
  if (clock && came(clock).met)
    out.open.push({ says: say('by the clock, as in the first situation, and no sensor asked'), program: clock });
  for (const { how, program } of cheats(errand, others)) {
    const { differs, met, traces } = came(program);
    if (met && differs && !also.some((runs) => runs.every((run, i) => sameBehaviour(run, traces[i]).same)))
      out.open.push({ says: how, program });
  }
  return out;
}
/** Whether the author says that a change of the model is right too. */
export const isListed = ({ alsoRight }: Errand, { kind, blocks, slot }: Change): boolean =>
  alsoRight.some(
    (a) =>
      'changes' in a &&
      a.changes.some((c) => c.kind === kind && c.block === blocks[0] && (c.slot === undefined || c.slot === slot))
  );
function toldChange({ model, kit }: Errand, { kind, blocks, slot }: Change): string {
  const step = [...allSteps(model)].find((s) => s.id === blocks[0]);
  const block = step ? sentence(step, model, (socket) => partName(kit, socket)) : '';
  // in brackets what a file says where it is right too
  return `${block}: ${changeWords(kind)} [${[kind, blocks[0], ...(slot === undefined ? [] : [slot])].join(', ')}]`;
}

/** Programs that do not do the task: nothing, waiting, another task's model, the blocks in another order. */
function* cheats(errand: Errand, others: readonly Errand[]): Generator<{ how: string; program: Program }> {
  const { model } = errand;
  const begin: Step = { id: 'cheat', kind: 'begin.start', slots: {} };
  const only = (...steps: Step[]): Program => ({
    stacks: [{ id: 'cheats', x: 0, y: 0, steps: [begin, ...steps] }],
    routines: [],
    variables: model.variables,
    loose: []
  });
  yield { how: say('nothing at all'), program: only() };
  yield {
    how: say('waiting alone'),
    program: only({
      id: 'cheat-wait',
      kind: 'wait.time',
      slots: { time: Math.min(errand.limitS ?? 20, 60), unit: 's' }
    })
  };
  for (const other of others) {
    if (other.id === errand.id || other.kit.device !== errand.kit.device) continue;
    if (lookOver({ program: other.model, kit: errand.kit }).some(stopsStart)) continue;
    yield { how: say('the model of the errand {name}', { name: toldIn(other.name) }), program: other.model };
  }
  const [longest] = [...model.stacks].sort((a, b) => b.steps.length - a.steps.length);
  if (!longest || longest.steps.length < 3) return;
  const [head, ...rest] = longest.steps;
  const turned = (steps: Step[]): Program => ({
    ...model,
    stacks: model.stacks.map((s) => (s === longest ? { ...s, steps: [head, ...steps] } : s))
  });
  yield { how: say('its blocks from the last to the first'), program: turned([...rest].reverse()) };
  for (let k = 1; k < rest.length; k++)
    yield {
      how: say('its blocks begun with the block {n}', { n: k + 1 }),
      program: turned([...rest.slice(k), ...rest.slice(0, k)])
    };
}
/** So many blocks a clock may have. */
const LONGEST = 300;
/** What the model did in its run, at the same times, with nothing asked: only where a sensor is asked is that a cheat. */
function clockOf({ model }: Errand, run: Trace): Program | undefined {
  const asked = [...liveSteps(model)].some((s) => [...walkSteps([s])].some((v) => valueDef(v) && readsSensor(v)));
  if (!asked) return undefined;
  const byId = new Map([...allSteps(model)].map((s) => [s.id, s]));
  const { spans, header } = run;
  const steps: Step[] = [];
  let nowUs = 0;
  for (let row = 0; row < spans.count && steps.length < LONGEST; row++) {
    const step = byId.get(header.blocks[spans.block[row]]);
    if (
      !step ||
      definition(step.kind).shape !== 'step' ||
      step.kind.startsWith('wait.') ||
      Object.keys(step.bodies ?? {}).length
    )
      continue;
    if (step.kind.startsWith('var.') || step.kind.startsWith('list.') || step.kind.startsWith('routine.')) continue;
    const gapUs = spans.start[row] - nowUs;
    if (gapUs > 1000)
      steps.push({ id: `clock-wait-${row}`, kind: 'wait.time', slots: { time: gapUs / 1e6, unit: 's' } });
    steps.push({ id: `clock-${row}`, kind: step.kind, slots: constants(step, run, spans.start[row], spans.end[row]) });
    nowUs = Math.max(nowUs, spans.end[row] || spans.start[row]);
  }
  if (!steps.length) return undefined;
  return {
    stacks: [{ id: 'clock', x: 0, y: 0, steps: [{ id: 'clock-begin', kind: 'begin.start', slots: {} }, ...steps] }],
    routines: [],
    variables: [],
    loose: []
  };
}
/** The slots of a step with what stood in them in a run. */
function constants(step: Step, run: Trace, fromUs: number, toUs: number): Record<string, Slot> {
  const event = run.events.find((e) => e.block === step.id && e.tUs >= fromUs && e.tUs <= (toUs || fromUs));
  const known: Record<string, unknown> = { ...event };
  const first: unknown[] = [known.asked, known.angle, known.power, known.hertz, known.text, known.name];
  return Object.fromEntries(
    Object.entries(step.slots).map(([slot, value]): [string, Slot] => {
      if (!isStep(value)) return [slot, value];
      const found = [known[slot], ...first].find((v) => typeof v === 'number' || typeof v === 'string');
      if (event?.type === 'display') return [slot, { picture: event.picture }];
      return [slot, (found as number | string | undefined) ?? 0];
    })
  );
}
