import { any, choice, condition, defineBlock, input, named, routine, text, type SlotSpec } from '../define.ts';
import { RunError } from '../meaning.ts';
import { LEAF } from './pictures.ts';
import type { InputType, Program, Step, Value } from '../program.ts';

/** The slot of a routine's input is called `in:` and the input's id. */
export const inputSlot = (id: string): string => `in:${id}`;
/** Whether a slot is what a routine is given. */
export const isInputSlot = (slot: string): boolean => slot.startsWith('in:');
const SPECS: Record<InputType, SlotSpec> = {
  number: { type: 'number', default: 1 },
  text: text('word'),
  condition: condition(),
  picture: { type: 'picture', default: { picture: LEAF } },
  list: { type: 'items' }
};
export const inputSpec = (type: InputType): SlotSpec => SPECS[type];
const inputsOf = (step: Step, program?: Program) =>
  program?.routines.find((r) => r.id === step.slots.routine)?.inputs ?? [];
const withInputs = (before: string, after = '') => ({
  words: (step: Step, program?: Program): string =>
    program
      ? `${before} {routine}${after}${inputsOf(step, program)
          .map((i) => ` ${i.name} {${inputSlot(i.id)}}`)
          .join('')}`
      : `${before} {routine}${after}${Object.keys(step.slots)
          .filter((s) => s.startsWith('in:'))
          .map((s) => ` {${s}}`)
          .join('')}`,
  slot: (name: string, program?: Program, step?: Step): SlotSpec | undefined => {
    if (name === 'routine') return routine();
    if (!name.startsWith('in:')) return undefined;
    const found =
      program && step
        ? inputsOf(step, program).find((i) => inputSlot(i.id) === name)
        : program?.routines.flatMap((r) => r.inputs ?? []).find((i) => inputSlot(i.id) === name);
    return found ? SPECS[found.type] : any(0);
  }
});
const asked = (args: Record<string, unknown>): Record<string, Value> => {
  const found: Record<string, Value> = {};
  for (const name in args)
    if (name.startsWith('in:')) {
      const value = args[name];
      found[name.slice(3)] = (typeof value === 'function' ? (value as () => boolean)() : value) as Value;
    }
  return found;
};
const inputTexts = (step: Step, program: Program): string =>
  inputsOf(step, program)
    .map((i) => `{${inputSlot(i.id)}}`)
    .join(', ');

export const callRoutine = defineBlock({
  kind: 'routine.do',
  section: 'reuse',
  shape: 'step',
  takesTime: true,
  words: 'do {routine}',
  label: ['Do a routine', 'a stack with a name'],
  also: 'function, procedure, call',
  slots: { routine: routine() },
  help: 'Runs the routine from its first block to its last, then goes on below. What the routine needs stands behind its name.',
  example: `def main():
    corner(90)
    corner(45)


def corner(angle):
    wheels.drive(cm=15, power=45, ending="brake")
    wheels.turn(right=angle, power=35, ending="brake")


run(main)
`,
  grows: { ...withInputs('do'), phrases: ['do'] },
  *run(task, args) {
    yield* task.callRoutine(args.routine, asked(args));
  },
  python: (_, step, program) => `await {routine}(${inputTexts(step, program)})`
});

export const giveBack = defineBlock({
  kind: 'routine.give',
  section: 'reuse',
  shape: 'end',
  words: 'give back {value}',
  label: ['Give back', 'the result of a routine'],
  slots: { value: any(0) },
  help: 'Ends the routine and hands its result to the block that asked for it. At the end of a stack that is no routine it only ends the stack.',
  example: `def main():
    log(given(area(4, 3)))


def area(long, wide):
    return long * wide


run(main)
`,
  run(task, { value }) {
    task.given = value;
    return 'give';
  },
  python: 'return {value}'
});

export const routineValue = defineBlock({
  kind: 'routine.value',
  section: 'reuse',
  shape: 'value',
  goesOn: true,
  gives: 'any',
  words: '{routine} of',
  label: ['Value of a routine', 'what it gives back'],
  slots: { routine: routine() },
  help: 'Runs a routine and is what it gives back. It costs the time that the steps of the routine cost.',
  example: `def main():
    log(given(factorial(5)))


def factorial(n):
    if n <= 1:
        return 1
    return n * given(factorial(n - 1))


run(main)
`,
  mistake: 'The routine must reach "give back"; otherwise there is no value, and the program stops here.',
  grows: { ...withInputs('', ''), phrases: ['of'], words: (step, program) => valueWords(step, program) },
  value: () => {
    throw new Error('a routine takes time');
  },
  *slowly(args, task) {
    task.given = undefined as never;
    yield* task.callRoutine(args.routine, asked(args));
    if (task.given === undefined) throw new RunError('gives-nothing');
    return task.given;
  },
  python: (_, step, program) => `given(await {routine}(${inputTexts(step, program)}))`
});
function valueWords(step: Step, program?: Program): string {
  const words = withInputs('').words(step, program).trim();
  return words === '{routine}' ? '{routine}' : words.replace('{routine}', '{routine} of');
}

export const routineInput = defineBlock({
  kind: 'routine.input',
  section: 'reuse',
  shape: 'value',
  goesOn: true,
  gives: 'any',
  words: '{input}',
  label: ['Input of a routine', 'what it was told'],
  slots: { input: input() },
  help: 'What the routine was given under this name, this time. It stands inside the routine.',
  example: `def main():
    corner(90)
    corner(45)


def corner(angle):
    wheels.drive(cm=15, power=45, ending="brake")
    wheels.turn(right=angle, power=35, ending="brake")


run(main)
`,
  value: (_, { input }, task) => task.input(input),
  python: '{input}'
});

export const send = defineBlock({
  kind: 'message.send',
  section: 'reuse',
  shape: 'step',
  words: 'send message {name} to {whom}',
  label: ['Send a message', 'to stacks that wait for it'],
  also: 'broadcast, radio',
  slots: { name: named('go'), whom: choice('my stacks', 'my stacks and devices nearby') },
  help: 'Starts every stack "when message ... arrives" of this name, and goes on at once.',
  example: `async def main():
    await wheels.drive(cm=20, power=45, ending="brake")
    send("ring")


async def on_ring():
    await beep()


run(main, when(message("ring"), on_ring))
`,
  run({ device }, { name, whom }) {
    device.send(name, whom !== 'my stacks');
  },
  python: ({ whom }) => (whom === 'my stacks' ? 'send("{name}")' : 'send("{name}", nearby=True)')
});
