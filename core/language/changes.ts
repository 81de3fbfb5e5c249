/**
 * Every single small change that a pupil makes to a program: one block left out, two swapped, one sign, one unit. What is said
 * of the changed program, and which goals it misses, tells how much the look-over, the findings and an errand are worth.
 */
import { bodiesOf, definition, slotSpec } from './catalogue.ts';
import { listAround, removeStep, setSlot } from './edit.ts';
import { isLoop } from './facts.ts';
import { isStep, liveSteps, type Literal, type Program, type Step } from './program.ts';
import { replaced } from './refactor.ts';
import { later, word } from '../words.ts';

/** Kinds of change that are wrong in themselves, and mere amounts, which nobody can know to be wrong without the intent. */
export const WRONG = [
  'left out',
  'swapped with the next',
  'moved out of its loop',
  'sign',
  'ms for s',
  'other side',
  'other way',
  'coast for brake',
  '< for >',
  'other button'
] as const;
export const AMOUNTS = ['ten times less', 'twice'] as const;
export const CHANGES = [...WRONG, ...AMOUNTS] as const;
export type ChangeKind = (typeof CHANGES)[number];
const WORDS: Readonly<Record<ChangeKind, string>> = {
  'left out': later('left out'),
  'swapped with the next': later('swapped with the next'),
  'moved out of its loop': later('moved out of its loop'),
  sign: later('the other sign'),
  'ms for s': later('ms for s'),
  'other side': later('the other side'),
  'other way': later('the other way'),
  'coast for brake': later('coast for brake'),
  '< for >': later('the other comparison'),
  'other button': later('the other button'),
  'ten times less': later('a tenth of it'),
  twice: later('twice as much')
};
/** For a person. */
export const changeWords = (kind: ChangeKind): string => word(WORDS[kind]);
export type Change = {
  kind: ChangeKind;
  program: Program;
  /** the slot that was changed, where it is one */
  slot?: string;
  /** the changed block, and those that stand next to it: where something said of it belongs */
  blocks: string[];
};

/** A change as a file names it: its kind, the changed block and slot. */
export type NamedChange = { kind: ChangeKind; block: string; slot?: string };

const OTHER: readonly { kind: ChangeKind; words: Readonly<Record<string, string>> }[] = [
  { kind: 'other side', words: { left: 'right', right: 'left', 'left edge': 'right edge', 'right edge': 'left edge' } },
  { kind: 'other way', words: { ahead: 'back', back: 'ahead' } },
  { kind: 'coast for brake', words: { brake: 'coast' } },
  { kind: '< for >', words: { '<': '>', '>': '<', '≤': '≥', '≥': '≤' } },
  { kind: 'other button', words: { Dot: 'Bar', Bar: 'Dot' } },
  { kind: 'ms for s', words: { s: 'ms' } },
  { kind: 'sign', words: { '+': '−', '−': '+' } }
];

/** All of them, in the order of the program's blocks. */
export function* smallChanges(program: Program): Generator<Change> {
  for (const step of liveSteps(program)) {
    const def = definition(step.kind);
    const blocks = near(program, step);
    if (def.shape !== 'value') yield* moves(program, step, blocks);
    for (const [slot, value] of Object.entries(step.slots)) {
      if (isStep(value)) continue;
      const set = (kind: ChangeKind, to: Literal): Change => ({
        kind,
        blocks,
        slot,
        program: setSlot(program, step.id, slot, to)
      });
      const spec = slotSpec(step, slot, program);
      if (spec?.type === 'choice')
        for (const { kind, words } of OTHER) {
          const to = words[String(value)];
          if (to !== undefined && spec.options.includes(to)) yield set(kind, to);
        }
      else if (typeof value === 'number' && value !== 0 && (spec?.type === 'number' || spec?.type === 'any')) {
        if (spec.type === 'any' || spec.min === undefined || -value >= spec.min) yield set('sign', -value);
        const whole = spec.type === 'number' && spec.whole;
        if (!whole && spec.type === 'number') yield set('ten times less', value / 10);
        yield set('twice', value * 2);
      }
    }
  }
}
/** The block itself or what holds it, its neighbours, and the block round them. */
function near(program: Program, step: Step): string[] {
  const holder = [...liveSteps(program)].find((s) => Object.values(s.slots).some((v) => isStep(v) && v.id === step.id));
  if (holder) return [step.id, ...near(program, holder)];
  const list = listAround(program, step.id) ?? [];
  const at = list.findIndex((s) => s.id === step.id);
  const round = [...liveSteps(program)].find((s) => Object.values(s.bodies ?? {}).includes(list));
  return [step, list[at - 1], list[at + 1], round].flatMap((s) => (s ? [s.id] : []));
}
/** Blocks left out, swapped, moved out of their loop. */
function* moves(program: Program, step: Step, blocks: string[]): Generator<Change> {
  const list = listAround(program, step.id);
  const shape = definition(step.kind).shape;
  if (!list || shape === 'starter') return;
  yield { kind: 'left out', blocks, program: removeStep(program, step.id) };
  const at = list.indexOf(step);
  const next = list[at + 1];
  if (next && shape !== 'end' && definition(next.kind).shape !== 'end')
    yield {
      kind: 'swapped with the next',
      blocks: [...blocks, ...near(program, next)],
      program: replaced(program, list, at, 2, [next, step])
    };
  if (!isLoop(step)) return;
  const [body] = bodiesOf(step);
  const inner = step.bodies?.[body] ?? [];
  const last = inner.at(-1);
  if (last && inner.length > 1 && definition(last.kind).shape !== 'end')
    yield {
      kind: 'moved out of its loop',
      blocks: [last.id, ...blocks, ...near(program, last)],
      program: replaced(program, list, at, 1, [
        { ...step, bodies: { ...step.bodies, [body]: inner.slice(0, -1) } },
        last
      ])
    };
}
