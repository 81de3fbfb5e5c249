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
import { firstSocket, lampsOf, rasterFor, touchesOf, type Kit } from '../kit/kit.ts';
import { resized } from './pixels.ts';
import { pieces, SECTIONS, type BlockDef, type Piece, type SlotSpec } from './define.ts';
import type { Program, Slot, Step } from './program.ts';
import { isStep } from './program.ts';
import { say, word, wordIn } from '../words.ts';

const list = [
  begin.start,
  begin.before,
  begin.setOff,
  begin.button,
  begin.key,
  begin.touch,
  begin.dip,
  begin.moved,
  begin.shaken,
  begin.jolt,
  begin.when,
  begin.every,
  begin.message,
  wait.waitTime,
  wait.waitUntil,
  wait.waitAtMost,
  wait.waitTouch,
  choose.choose,
  choose.table,
  choose.match,
  repeat.times,
  repeat.ever,
  repeat.until,
  repeat.repeatWhile,
  repeat.forSeconds,
  repeat.count,
  repeat.each,
  repeat.leave,
  repeat.next,
  reuse.callRoutine,
  reuse.routineInput,
  reuse.giveBack,
  reuse.routineValue,
  reuse.send,
  move.drive,
  move.driveFacing,
  move.turnAngle,
  move.turnGyro,
  move.turnFace,
  move.curve,
  move.slideMeasure,
  move.slideRun,
  move.wheelsRun,
  move.wheelsSpan,
  move.wheelsStop,
  move.motorRun,
  move.motorSpan,
  move.motorStop,
  move.motorSide,
  move.motorKeeps,
  move.servoAngle,
  move.servoShare,
  move.servoSlow,
  move.servoMiddle,
  move.servoSpin,
  sound.tone,
  sound.startTone,
  sound.silence,
  sound.beep,
  sound.play,
  sound.tempo,
  sound.volume,
  sound.say,
  light.pictureShow,
  light.pictureAt,
  light.pictureValue,
  light.pictureOver,
  light.write,
  light.dark,
  light.pixelSet,
  light.pixelLevel,
  light.pixelColour,
  light.lampSet,
  light.lampLevel,
  light.lampColour,
  remember.set,
  remember.change,
  remember.value,
  remember.listNew,
  remember.listValue,
  remember.listAdd,
  remember.listInsert,
  remember.listReplace,
  remember.listTake,
  remember.listAt,
  remember.listCount,
  remember.listHas,
  remember.listWhere,
  remember.log,
  remember.plot,
  remember.mark,
  work.sum,
  work.compare,
  work.logic,
  work.not,
  work.between,
  work.negative,
  work.rest,
  work.toPower,
  work.fn,
  work.smaller,
  work.keep,
  work.map,
  work.chance,
  work.anyChance,
  work.coin,
  work.pi,
  work.direction,
  work.join,
  work.length,
  work.character,
  work.asText,
  work.asNumber,
  sense.distance,
  sense.ahead,
  sense.lineReads,
  sense.lineOver,
  sense.colourBelow,
  sense.nose,
  sense.rim,
  sense.rimPlace,
  sense.edgeTouched,
  sense.buttonHeld,
  sense.keyHeld,
  sense.stick,
  sense.heading,
  sense.turnedSince,
  sense.turningRate,
  sense.zeroHeading,
  sense.acceleration,
  sense.lean,
  sense.wheelTurns,
  sense.wheelDegrees,
  sense.wheelSpeed,
  sense.driven,
  sense.speed,
  sense.motorTurns,
  sense.zeroWheels,
  sense.light,
  sense.temperature,
  sense.moisture,
  sense.battery,
  sense.timer,
  sense.restartTimer,
  sense.lastMessage
] as unknown as BlockDef[];

export const catalogue: ReadonlyMap<string, BlockDef> = new Map(list.map((def) => [def.kind, def]));
export const familyOf = (def: BlockDef) => SECTIONS[def.section].family;

/** The definition of a kind that is known to exist: programs are checked when they are read in. */
export function definition(kind: string): BlockDef {
  const def = catalogue.get(kind);
  if (!def) throw new Error(`no block "${kind}"`);
  return def;
}

/** What a slot of this step takes; a block that grows has more of them than its definition lists. */
export function slotSpec(step: Step, slot: string, program?: Program): SlotSpec | undefined {
  const def = definition(step.kind);
  return def.grows ? def.grows.slot(slot, program, step) : def.slots[slot];
}

/** The words of this very step, as far as it has grown. */
export function wordsOf(step: Step, program?: Program): Piece[] {
  const def = definition(step.kind);
  return pieces(def.grows ? def.grows.words(step, program) : def.words);
}
/** The same in the language of the moment; slots and bodies may stand in another order. */
export function saidWords(step: Step, program?: Program): Piece[] {
  const def = definition(step.kind);
  return def.grows ? grownWords(def, def.grows.words(step, program)) : pieces(word(def.words));
}
/** The words of a block that grows, translated phrase by phrase, the longer phrase first. */
export function grownWords(def: BlockDef, words: string): Piece[] {
  const phrases = [...(def.grows?.phrases ?? [])].sort((a, b) => b.length - a.length).join('|');
  const each = new RegExp(`(?<=^|\\s)(${phrases})(?=\\s|$)`, 'g');
  return pieces(words).map((p) => ('text' in p ? { text: p.text.replace(each, (ph) => wordIn(def.kind, ph)) } : p));
}
export const bodiesOf = (step: Step): string[] =>
  definition(step.kind).shape === 'value' ? [] : wordsOf(step).flatMap((p) => ('body' in p ? [p.body] : []));
/** Slots in the order they are worked out: that of the definition, or of the words where a block grows. */
export function slotsOf(step: Step, program?: Program): string[] {
  const def = definition(step.kind);
  if (!def.grows) return Object.keys(def.slots);
  const shown = wordsOf(step, program).flatMap((p) => ('slot' in p ? [p.slot] : []));
  return [...shown, ...Object.keys(def.slots).filter((s) => !shown.includes(s) && def.slots[s].type === 'rows')];
}

/**
 * A new step of this kind with its own numbers; slots for variables and routines take the first of the program, those for
 * parts the first of the kit.
 */
export function newStep(kind: string, id: string, program?: Program, kit?: Kit): Step {
  const def = definition(kind);
  const step: Step = { id, kind, slots: {} };
  const fill = (name: string, spec: SlotSpec): void => {
    const first = emptySlot(kit ? specFor(spec, kit) : spec, program);
    if (first !== undefined) step.slots[name] = first;
  };
  for (const [name, spec] of Object.entries(def.slots)) fill(name, spec);
  if (def.grows && 'routine' in def.slots && program)
    for (const name of slotsOf(step, program)) if (name !== 'routine') fill(name, slotSpec(step, name, program)!);
  const bodies = pieces(def.words).flatMap((p) => ('body' in p ? [p.body] : []));
  if (kind === 'choose.table') bodies.push(...choose.tableRows(2));
  if (bodies.length) step.bodies = Object.fromEntries(bodies.map((b) => [b, []]));
  return step;
}
/** What a slot takes on this kit: the lamps that it has, its own sockets, columns, rows and pictures of its display. */
export function specFor(spec: SlotSpec, kit: Kit): SlotSpec {
  const raster = rasterFor(kit);
  if (spec.type === 'part') return { ...spec, default: firstSocket(kit, spec.part) || spec.default };
  if (spec.type === 'choice' && spec.of) {
    const own = has[spec.of](kit);
    const options = spec.options.filter((o) => own.includes(o));
    return options.length ? { ...spec, options, default: options[0] } : spec;
  }
  if (spec.type === 'picture' && raster)
    return { ...spec, default: { picture: resized(spec.default.picture, raster) } };
  const axis = spec.type === 'number' ? (spec.pixel ?? spec.by) : undefined;
  if (spec.type === 'number' && axis && raster) {
    const count = axis === 'x' ? raster.columns : raster.rows;
    return spec.pixel
      ? { ...spec, min: 0, max: count - 1, default: Math.min(spec.default, count - 1) }
      : { ...spec, min: -count, max: count };
  }
  return spec;
}
const has = { lamps: lampsOf, touches: touchesOf };
/** What stands in a slot before anything is put into it; nothing for a condition and a list. */
export function emptySlot(spec: SlotSpec, program?: Program): Slot | undefined {
  switch (spec.type) {
    case 'condition':
    case 'items':
      return undefined;
    case 'variable':
      return program?.variables.find((v) => !v.list)?.id ?? '';
    case 'list':
      return program?.variables.find((v) => v.list)?.id ?? '';
    case 'routine':
      return program?.routines[0]?.id ?? '';
    case 'input':
      return program?.routines.flatMap((r) => r.inputs ?? [])[0]?.id ?? '';
    case 'picture':
      return { picture: spec.default.picture };
    default:
      return spec.default;
  }
}
/** The name behind an id in a slot: of a variable, a list, a routine, an input. */
export function nameOf(spec: SlotSpec, id: string, program: Program): string | undefined {
  if (spec.type === 'variable' || spec.type === 'list') return program.variables.find((v) => v.id === id)?.name;
  if (spec.type === 'routine') return program.routines.find((r) => r.id === id)?.name;
  if (spec.type === 'input') return program.routines.flatMap((r) => r.inputs ?? []).find((i) => i.id === id)?.name;
  return undefined;
}

/** A step in plain words, for lists, announcements and messages. */
export function sentence(step: Step, program: Program, partName: (socket: string) => string = (s) => s): string {
  return saidWords(step, program)
    .map((piece) => {
      if ('text' in piece) return piece.text;
      if ('body' in piece) return '';
      const slot = step.slots[piece.slot];
      const spec = slotSpec(step, piece.slot, program);
      if (slot === undefined) return '...';
      if (isStep(slot)) return `(${sentence(slot, program, partName)})`;
      if (typeof slot === 'object') return say('painted');
      if (spec?.type === 'part') return partName(String(slot));
      if (spec && ['variable', 'list', 'routine', 'input'].includes(spec.type))
        return nameOf(spec, String(slot), program) ?? '?';
      return spec?.type === 'choice' ? word(String(slot), step.kind) : String(slot);
    })
    .filter(Boolean)
    .join(' ')
    .replace(/ ,/g, ',');
}
