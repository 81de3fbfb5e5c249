/** Every block, by its kind, in the order of the tray. */
import * as begin from './blocks/begin.ts';
import * as choose from './blocks/choose.ts';
import * as light from './blocks/light.ts';
import * as move from './blocks/move.ts';
import * as remember from './blocks/remember.ts';
import * as repeat from './blocks/repeat.ts';
import * as reuse from './blocks/reuse.ts';
import * as sense from './blocks/sense.ts';
import * as sound from './blocks/sound.ts';
import * as wait from './blocks/wait.ts';
import * as work from './blocks/work.ts';
import { pieces, SECTIONS, type BlockDef, type Piece, type SlotSpec } from './define.ts';
import type { Program, Slot, Step } from './program.ts';
import { isStep } from './program.ts';

const list = [
  begin.start,
  begin.button,
  wait.waitTime,
  wait.waitUntil,
  choose.choose,
  repeat.times,
  repeat.ever,
  repeat.until,
  reuse.callRoutine,
  move.drive,
  move.turnAngle,
  move.wheelsRun,
  move.wheelsSpan,
  move.wheelsStop,
  move.motorRun,
  move.motorSpan,
  move.motorStop,
  move.servoAngle,
  move.servoMiddle,
  sound.tone,
  sound.beep,
  light.lampSet,
  light.lampColour,
  light.pixelSet,
  light.pictureShow,
  light.pictureValue,
  light.dark,
  remember.set,
  remember.change,
  remember.value,
  remember.log,
  work.sum,
  work.compare,
  work.logic,
  work.not,
  work.chance,
  sense.distance,
  sense.ahead,
  sense.nose,
  sense.buttonHeld,
  sense.heading,
  sense.wheelTurns,
  sense.lineReads,
  sense.lineOver,
  sense.timer
] as unknown as BlockDef[];

export const catalogue: ReadonlyMap<string, BlockDef> = new Map(list.map((def) => [def.kind, def]));
export const familyOf = (def: BlockDef) => SECTIONS[def.section].family;

/** The definition of a kind that is known to exist: programs are checked when they are read in. */
export function definition(kind: string): BlockDef {
  const def = catalogue.get(kind);
  if (!def) throw new Error(`no block "${kind}"`);
  return def;
}

/** What a slot of this step takes; the branches of an if all take a condition. */
export function slotSpec(step: Step, slot: string): SlotSpec | undefined {
  if (step.kind === 'choose.if' && /^if\d+$/.test(slot)) return { type: 'condition' };
  return definition(step.kind).slots[slot];
}

/** The words of this very step: an if grows with its branches. */
export function wordsOf(step: Step): Piece[] {
  if (step.kind === 'choose.if') return pieces(choose.ifWords(choose.branches(step), choose.hasOtherwise(step)));
  return pieces(definition(step.kind).words);
}
export const bodiesOf = (step: Step): string[] => wordsOf(step).flatMap((p) => ('body' in p ? [p.body] : []));
export const slotsOf = (step: Step): string[] => wordsOf(step).flatMap((p) => ('slot' in p ? [p.slot] : []));

/** A new step of this kind with its own numbers; slots for variables and routines take `first` of the program. */
export function newStep(kind: string, id: string, program?: Program): Step {
  const def = definition(kind);
  const slots: Record<string, Slot> = {};
  for (const [name, spec] of Object.entries(def.slots)) {
    if (spec.type === 'variable') slots[name] = program?.variables[0]?.id ?? '';
    else if (spec.type === 'routine') slots[name] = program?.routines[0]?.id ?? '';
    else if (spec.type === 'picture') slots[name] = { picture: spec.default.picture };
    else if (spec.type !== 'condition') slots[name] = spec.default;
  }
  const step: Step = { id, kind, slots };
  const bodies = bodiesOf({ ...step, bodies: kind === 'choose.if' ? { then1: [] } : undefined });
  if (bodies.length) step.bodies = Object.fromEntries(bodies.map((b) => [b, []]));
  return step;
}

/** A step in plain words, for lists, announcements and messages. */
export function sentence(step: Step, program: Program, nameOf: (socket: string) => string = (s) => s): string {
  return wordsOf(step)
    .map((piece) => {
      if ('text' in piece) return piece.text;
      if ('body' in piece) return '';
      const slot = step.slots[piece.slot];
      const spec = slotSpec(step, piece.slot);
      if (slot === undefined) return '...';
      if (isStep(slot)) return `(${sentence(slot, program, nameOf)})`;
      if (typeof slot === 'object') return 'painted';
      if (spec?.type === 'variable') return program.variables.find((v) => v.id === slot)?.name ?? '?';
      if (spec?.type === 'routine') return program.routines.find((r) => r.id === slot)?.name ?? '?';
      if (spec?.type === 'part') return nameOf(String(slot));
      return String(slot);
    })
    .filter(Boolean)
    .join(' ')
    .replace(/ ,/g, ',');
}
