/** The checks before a run, heaviest first. */
import { say } from '../../words.ts';
import type { Looked, Mend, Remark, Severity } from './remark.ts';
import { drivesBefore } from './rules/drives-before.ts';
import { lookedAtOnce } from './rules/looked-at-once.ts';
import { messageUnheard } from './rules/message-unheard.ts';
import { notANote } from './rules/not-a-note.ts';
import { plugWrong } from './rules/plug-wrong.ts';
import { servoToldTwice } from './rules/servo-told-twice.ts';
import { turnsAway } from './rules/turns-away.ts';
import { otherSide } from './rules/other-side.ts';
import { otherLamp } from './rules/other-lamp.ts';
import { waitOfNoTime } from './rules/wait-of-no-time.ts';
import { writtenTooLong } from './rules/written-too-long.ts';
import { afterForEver } from './rules/after-for-ever.ts';
import { beyondRange } from './rules/beyond-range.ts';
import { blindWait } from './rules/blind-wait.ts';
import { emptyLoop } from './rules/empty.ts';
import { equalsOnANoisyValue } from './rules/equals-on-a-noisy-value.ts';
import { faceOrTurnBy } from './rules/face-or-turn-by.ts';
import { inputElsewhere } from './rules/input-elsewhere.ts';
import { keyWithoutRelease } from './rules/key-without-release.ts';
import { kitCannotBe } from './rules/kit-cannot-be.ts';
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
import { pictureBeyond } from './rules/picture-beyond.ts';
import { placeOutOfList } from './rules/place-out-of-list.ts';
import { routineCallsItself } from './rules/routine-calls-itself.ts';
import { routineNeverCalled } from './rules/routine-never-called.ts';
import { shownForNoTime } from './rules/shown-for-no-time.ts';
import { countsOn } from './rules/counts-on.ts';
import { countsWhileHeld } from './rules/counts-while-held.ts';
import { drivesLong } from './rules/drives-long.ts';
import { noPower } from './rules/no-power.ts';
import { readOnce } from './rules/read-once.ts';
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
  kitCannotBe,
  kitLacks,
  socket,
  plugWrong,
  notANote,
  drivesBefore,
  ledWithoutResistor,
  pixelOutside,
  pictureBeyond,
  notJoined,
  stopAtOnce,
  waitOfNoTime,
  noPower,
  drivesLong,
  readOnce,
  countsOn,
  countsWhileHeld,
  otherLamp,
  otherSide,
  neverStopped,
  keyWithoutRelease,
  shownForNoTime,
  servoToldTwice,
  writtenTooLong,
  messageUnheard,
  lookedAtOnce,
  turnsAway,
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
  return forAll(RULES.flatMap((rule) => rule(looked))).sort((a, b) => WEIGHT[a.severity] - WEIGHT[b.severity]);
}
/** Where the same is wrong at several blocks, each mend is offered for all of them at once too. */
function forAll(remarks: Remark[]): Remark[] {
  const alike = new Map<string, Remark[]>();
  for (const r of remarks) alike.set(`${r.rule} ${r.says}`, [...(alike.get(`${r.rule} ${r.says}`) ?? []), r]);
  return remarks.map((remark) => {
    const group = alike.get(`${remark.rule} ${remark.says}`)!;
    if (group.length < 2) return remark;
    const more = remark.mends.flatMap((mend, i): Mend[] => {
      const each = group.map((r) => r.mends[i]);
      if (each.some((m) => m?.label !== mend.label)) return [];
      return [
        {
          label: say('{label}: all {n} of them', { label: mend.label, n: group.length }),
          // what changed the kit has put it right for all of them
          apply: (program, kit) =>
            each.reduce((now, m) => (now.kit === kit ? m.apply(now.program, now.kit) : now), { program, kit })
        }
      ];
    });
    return { ...remark, mends: [...remark.mends, ...more] };
  });
}
