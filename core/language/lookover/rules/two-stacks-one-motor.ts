/** two-stacks-one-motor: two stacks that run at the same time command the same motor. */
import { isLive, isStep, walkSteps, type Program, type Stack, type Step } from '../../program.ts';
import { asksCondition, isStop, leaves, variablesIn } from '../../facts.ts';
import { doneBy } from '../walk.ts';
import { motorOf, type Kit } from '../../../kit/kit.ts';
import type { Remark, Rule } from '../remark.ts';
import { say } from '../../../words.ts';

/** Starters whose stacks run from the start on, without anybody doing anything. */
const BY_ITSELF = new Set(['begin.start', 'begin.off', 'begin.every']);

/** The first step of a stack, routines followed, that commands each motor. */
function commands(stack: Stack, program: Program, kit: Kit): Map<string, string> {
  const found = new Map<string, string>();
  const seen = new Set<string>();
  const look = (list: readonly Step[], told?: string): void => {
    for (const step of walkSteps(list)) {
      if (step.off) continue;
      const put = (socket: string | undefined): void => {
        if (socket && !found.has(socket)) found.set(socket, told ?? step.id);
      };
      const { motor, servo } = step.slots;
      if (servo !== undefined) put(`servo ${String(servo)}`);
      else if (leaves(step) && motor === undefined) for (const { id } of kit.wheels) put(motorOf(kit, id)?.socket);
      else if (leaves(step) && !isStop(step)) put(String(motor));
      if (step.kind === 'routine.do' && !seen.has(String(step.slots.routine))) {
        seen.add(String(step.slots.routine));
        look(program.routines.find((r) => r.id === step.slots.routine)?.steps ?? [], told ?? step.id);
      }
    }
  };
  look(stack.steps.slice(1));
  return found;
}

/** The variables that a stack asks before it goes on, and all that it has to do with. */
function flags(stack: Stack, program: Program): { asks: Set<string>; has: Set<string> } {
  const asks = new Set<string>();
  const has = new Set<string>();
  for (const step of doneBy(program, stack.steps.slice(1))) {
    if (step.slots.variable !== undefined) has.add(String(step.slots.variable));
    for (const slot of Object.values(step.slots)) {
      if (!isStep(slot)) continue;
      for (const id of variablesIn(slot)) has.add(id);
      // a choice, a wait and a loop ask conditions
      if (step.kind === 'choose.if' || asksCondition(step)) for (const id of variablesIn(slot)) asks.add(id);
    }
  }
  return { asks, has };
}
/** Whether one of them waits for, or asks after, a variable that the other has to do with: that keeps them apart. */
function keptApart(one: Stack, two: Stack, program: Program): boolean {
  const [a, b] = [flags(one, program), flags(two, program)];
  return [...a.asks].some((id) => b.has.has(id)) || [...b.asks].some((id) => a.has.has(id));
}

export const twoStacksOneMotor: Rule = ({ program, kit }) => {
  const stacks = program.stacks.filter((s) => isLive(s) && BY_ITSELF.has(s.steps[0].kind));
  const remarks: Remark[] = [];
  const first = new Map<string, { stack: Stack; block: string }>();
  for (const stack of stacks) {
    let told = false;
    for (const [motor, block] of commands(stack, program, kit)) {
      const before = first.get(motor);
      if (before && before.stack !== stack && !told && !keptApart(before.stack, stack, program)) {
        told = true;
        remarks.push({
          rule: 'two-stacks-one-motor',
          severity: 'probably not meant',
          blocks: [before.block, block],
          says: say(
            'Two stacks that run at the same time command the same motor: the later command wins, and the other move is cut off.'
          ),
          todo: say('Put the moves into one stack, or let one stack send a message to the other.'),
          mends: []
        });
      }
      if (!before) first.set(motor, { stack, block });
    }
  }
  return remarks;
};
