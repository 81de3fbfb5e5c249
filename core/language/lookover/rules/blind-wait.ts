/** blind-wait: a long wait in a loop that steers by its sensors, while the wheels run. */
import { changeStep } from '../../edit.ts';
import { isLive, isStep, walkSteps, type Step } from '../../program.ts';
import type { Remark, Rule } from '../remark.ts';
import { runs, standsAfter } from '../../facts.ts';
import { literal } from '../walk.ts';
import { say } from '../../../words.ts';

/** 100 % is about so fast, cm/s. */
const FULL_CM_S = 40;
/** So far may a robot go without looking, cm. */
const FAR_CM = 4;
const SENSORS = /^sense\.(line|over|distance|ahead|nose|colour)$/;
const isLoop = (s: Step): boolean => s.kind.startsWith('repeat.') && !!s.bodies;
const deep = (step: Step): Step[] => [...walkSteps([step])].filter((s) => !s.off);
/** Whether the loop itself, or a choice in it, asks a sensor: waits for one do not count. */
const steers = (loop: Step): boolean =>
  deep(loop).some(
    (s) => (s === loop || s.kind.startsWith('choose.')) && Object.values(s.slots).some((v) => isStep(v) && asks(v))
  );
const asks = (value: Step): boolean => [...walkSteps([value])].some((s) => SENSORS.test(s.kind));

export const blindWait: Rule = ({ program }) => {
  const remarks: Remark[] = [];
  const look = (list: readonly Step[], runningBefore: number): void => {
    let power = runningBefore;
    for (const step of list) {
      if (step.off) continue;
      if (runs(step)) power = powerOf(step);
      else if (standsAfter(step)) power = 0;
      if (isLoop(step)) {
        const inside = Math.max(power, ...deep(step).filter(runs).map(powerOf));
        if (steers(step) && inside > 0)
          for (const wait of deep(step).filter((s) => s.kind === 'wait.time')) told(wait, step, inside);
      }
      for (const body of Object.values(step.bodies ?? {})) if (!(isLoop(step) && steers(step))) look(body, power);
    }
  };
  const told = (wait: Step, loop: Step, power: number): void => {
    const ms = (literal(wait, 'time') ?? 0) * (wait.slots.unit === 'ms' ? 1 : 1000);
    const cm = (ms / 1000) * (power / 100) * FULL_CM_S;
    // after a stop the wait does no harm
    if (cm < FAR_CM || stoppedBefore(loop, wait)) return;
    remarks.push({
      rule: 'blind-wait',
      severity: 'probably not meant',
      blocks: [wait.id],
      says: say(
        'The robot is blind for {ms} ms here: at {power} % it goes about {cm} cm without looking at its sensor.',
        {
          ms,
          power,
          cm: Math.round(cm)
        }
      ),
      todo: say('Wait much less, or take the wait out: a loop that looks often keeps to the line.'),
      mends: [
        {
          label: say('Wait 20 ms'),
          apply: (p, kit) => ({
            program: changeStep(p, wait.id, (s) => ({ ...s, slots: { ...s.slots, time: 20, unit: 'ms' } })),
            kit
          })
        }
      ]
    });
  };
  for (const stack of program.stacks) if (isLive(stack)) look(stack.steps.slice(1), 0);
  for (const routine of program.routines) look(routine.steps, 0);
  return remarks;
};
const powerOf = (s: Step): number =>
  Math.max(Math.abs(literal(s, 'left') ?? 0), Math.abs(literal(s, 'right') ?? 0), Math.abs(literal(s, 'power') ?? 0));
/** In the list that holds the wait: a stop stands above it, and no start between. */
function stoppedBefore(loop: Step, wait: Step): boolean {
  for (const holder of deep(loop))
    for (const body of Object.values(holder.bodies ?? {})) {
      const at = body.findIndex((s) => s.id === wait.id);
      if (at < 0) continue;
      for (let i = at - 1; i >= 0; i--) {
        if (body[i].off) continue;
        if (standsAfter(body[i])) return true;
        if (runs(body[i])) return false;
      }
    }
  return false;
}
