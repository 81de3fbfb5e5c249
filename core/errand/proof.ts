/** Whether an errand is sound: its model meets all goals, its wrong programs miss those that they are to miss. */
import { calibrated } from '../kit/calibration.ts';
import { quirksOf, SWAPPED } from '../kit/quirks.ts';
import { STAND_INS } from '../kit/units.ts';
import type { Kit } from '../kit/kit.ts';
import type { Program } from '../language/program.ts';
import { calibrate } from '../run/calibrate.ts';
import { say } from '../words.ts';
import type { Errand } from './errand.ts';
import { goalWords, type Verdict } from './goals.ts';
import { toldIn } from './task.ts';
import { tryOut } from './try.ts';
import { asksBefore, judged } from './verdict.ts';

/** So many stand-ins the model is tried on; one whose leads are swapped is no matter of measuring. */
const ON = 3;

/** @param serial of a stand-in; as on the kit sheet where it is left out */
export function tried(errand: Errand, program: Program, serial?: string): Verdict {
  const before = asksBefore(errand) ? tryOut(errand, errand, errand.given) : undefined;
  if (!serial) return judged(errand, { trace: tryOut(errand, errand, program), mat: errand.mat, program, before });
  const quirks = quirksOf(serial, errand.kit);
  const kit: Kit =
    errand.standIns === 'calibrated' ? calibrated(errand.kit, serial, calibrate(errand.kit, quirks)) : errand.kit;
  const trace = tryOut(errand, { ...errand, kit }, program, { quirks, onBattery: true });
  return judged(errand, { trace, mat: errand.mat, program, before });
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
    const { results } = tried(errand, program);
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
  return out;
}
