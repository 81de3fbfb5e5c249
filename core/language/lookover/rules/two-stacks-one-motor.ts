/** two-stacks-one-motor: two stacks that run at the same time command the same motor. */
import { isLive, walkSteps, type Program, type Stack, type Step } from '../../program.ts';
import { isStop, leaves } from '../../facts.ts';
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

export const twoStacksOneMotor: Rule = ({ program, kit }) => {
  const stacks = program.stacks.filter((s) => isLive(s) && BY_ITSELF.has(s.steps[0].kind));
  const remarks: Remark[] = [];
  const first = new Map<string, { stack: Stack; block: string }>();
  for (const stack of stacks) {
    let told = false;
    for (const [motor, block] of commands(stack, program, kit)) {
      const before = first.get(motor);
      if (before && before.stack !== stack && !told) {
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
