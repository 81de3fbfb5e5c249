/** The checks before a run, heaviest first. */
import type { Looked, Remark, Severity } from './remark.ts';
import { afterForEver } from './rules/after-for-ever.ts';
import { beyondRange } from './rules/beyond-range.ts';
import { blindWait } from './rules/blind-wait.ts';
import { emptyLoop } from './rules/empty.ts';
import { equalsOnANoisyValue } from './rules/equals-on-a-noisy-value.ts';
import { faceOrTurnBy } from './rules/face-or-turn-by.ts';
import { inputElsewhere } from './rules/input-elsewhere.ts';
import { keyWithoutRelease } from './rules/key-without-release.ts';
import { kitLacks } from './rules/kit-lacks.ts';
import { ledWithoutResistor } from './rules/led-without-resistor.ts';
import { mirroredMotor } from './rules/mirrored-motor.ts';
import { missingOtherwiseMotor } from './rules/missing-otherwise-motor.ts';
import { neverStopped } from './rules/never-stopped.ts';
import { neverTrue } from './rules/never-true.ts';
import { noLoop } from './rules/no-loop.ts';
import { noZeroing } from './rules/no-zeroing-before-heading.ts';
import { notJoined } from './rules/not-joined.ts';
import { pixelOutside } from './rules/pixel-outside.ts';
import { placeOutOfList } from './rules/place-out-of-list.ts';
import { routineCallsItself } from './rules/routine-calls-itself.ts';
import { routineNeverCalled } from './rules/routine-never-called.ts';
import { shownForNoTime } from './rules/shown-for-no-time.ts';
import { slowTrigger } from './rules/slow-trigger.ts';
import { socket } from './rules/socket.ts';
import { stopAtOnce } from './rules/stop-at-once.ts';
import { twoStacksOneMotor } from './rules/two-stacks-one-motor.ts';
import { unpluggedNeeded } from './rules/unplugged-needed.ts';
import { unreadable } from './rules/unreadable.ts';
import { variables } from './rules/variables.ts';

const RULES = [
  unreadable,
  noLoop,
  inputElsewhere,
  slowTrigger,
  routineCallsItself,
  placeOutOfList,
  afterForEver,
  kitLacks,
  socket,
  ledWithoutResistor,
  pixelOutside,
  notJoined,
  stopAtOnce,
  neverStopped,
  keyWithoutRelease,
  shownForNoTime,
  mirroredMotor,
  twoStacksOneMotor,
  neverTrue,
  equalsOnANoisyValue,
  beyondRange,
  blindWait,
  missingOtherwiseMotor,
  faceOrTurnBy,
  noZeroing,
  routineNeverCalled,
  variables,
  emptyLoop,
  unpluggedNeeded
];
const WEIGHT: Record<Severity, number> = { 'will not work': 0, 'probably not meant': 1, consider: 2 };

export function lookOver(looked: Looked): Remark[] {
  return RULES.flatMap((rule) => rule(looked)).sort((a, b) => WEIGHT[a.severity] - WEIGHT[b.severity]);
}
/** Remarks that keep a program from starting at all. */
export const stopsStart = (remark: Remark): boolean =>
  ['not-a-number', 'not-whole', 'nameless', 'no-loop', 'input-elsewhere', 'slow-trigger'].includes(remark.rule);
/** What a remark that was set aside is known by: its rule and its blocks. */
export const remarkKey = (remark: Pick<Remark, 'rule' | 'blocks'>): string =>
  `${remark.rule} ${remark.blocks.join(' ')}`;
