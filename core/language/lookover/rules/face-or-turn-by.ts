/** face-or-turn-by: "face" used as if it were "turn by", so that the second time nothing turns. */
import { newStep } from '../../catalogue.ts';
import { changeStep } from '../../edit.ts';
import { liveSteps, walkSteps, type Step } from '../../program.ts';
import type { Remark, Rule } from '../remark.ts';
import { literal, liveLists } from '../walk.ts';
import { turnsAgain } from '../../facts.ts';
import { say } from '../../../words.ts';

const TURNS = /^(turn|curve)\.|^sense\.zeroheading$|^wheels\.|^motor\.|^routine\.do$/;
const deep = (list: readonly Step[]): Step[] => [...walkSteps(list)].filter((s) => !s.off);

export const faceOrTurnBy: Rule = ({ program }) => {
  const found = new Map<string, Step>();
  // in a loop: the only turning there is
  for (const loop of liveSteps(program)) {
    if (!turnsAgain(loop) || (literal(loop, 'count') ?? 2) < 2) continue;
    const turning = deep(loop.bodies?.do ?? []).filter((s) => TURNS.test(s.kind));
    if (turning.length === 1 && turning[0].kind === 'turn.face' && drives(loop)) found.set(turning[0].id, turning[0]);
  }
  // in a row: twice the same, with nothing that turns in between
  for (const list of liveLists(program)) {
    let before: Step | undefined;
    for (const step of list) {
      if (step.kind === 'turn.face') {
        const heading = literal(step, 'heading');
        if (before && heading !== undefined && heading === literal(before, 'heading')) found.set(step.id, step);
        before = step;
      } else if (deep([step]).some((s) => TURNS.test(s.kind))) before = undefined;
    }
  }
  return [...found.values()]
    .filter((s) => literal(s, 'heading') !== undefined)
    .map((step): Remark => {
      const heading = literal(step, 'heading')!;
      return {
        rule: 'face-or-turn-by',
        severity: 'probably not meant',
        blocks: [step.id],
        says: say(
          '"Face {heading}°" is a direction, not an amount: once it faces that way, it does not turn any more.',
          {
            heading
          }
        ),
        todo: say('Use "turn by" to turn by so much each time.'),
        mends: [
          {
            label: say('Turn by {heading}° instead', { heading }),
            apply: (p, kit) => ({
              program: changeStep(p, step.id, (s) => {
                const turn = newStep('turn.gyro', s.id, p);
                const by = ((heading % 360) + 360) % 360;
                return {
                  ...turn,
                  slots: {
                    ...turn.slots,
                    side: by > 180 ? 'left' : 'right',
                    angle: by > 180 ? 360 - by : by,
                    power: s.slots.power
                  }
                };
              }),
              kit
            })
          }
        ]
      };
    });
};
/** A loop that faces once and then does other things keeps its heading on purpose, unless it drives sides of a figure. */
const drives = (loop: Step): boolean => deep(loop.bodies?.do ?? []).some((s) => s.kind === 'drive.measure');
