import { any, condition, defineBlock, rows, type SlotSpec } from '../define.ts';
import { same } from '../values.ts';
import type { Step } from '../program.ts';

/** How many conditions an if has: its slots are if1, if2 ..., its bodies then1, then2 ... and otherwise. */
export const branches = (step: Step): number => count(step, 'then');
export const hasOtherwise = (step: Step): boolean => !!step.bodies && 'otherwise' in step.bodies;
const count = (step: Step, stem: string): number => {
  let n = 1;
  while (step.bodies && `${stem}${n + 1}` in step.bodies) n++;
  return n;
};
const MANY = Array.from({ length: 40 }, (_, n) => n);
const [IFS, THENS] = [MANY.map((n) => `if${n}`), MANY.map((n) => `then${n}`)];
const ifSlot = (n: number): string => IFS[n] ?? `if${n}`;
const thenBody = (n: number): string => THENS[n] ?? `then${n}`;

/** The words of an if, as long as its branches ask. */
export function ifWords(count: number, otherwise: boolean): string {
  let words = 'if {if1} {>then1}';
  for (let n = 2; n <= count; n++) words += ` otherwise if {if${n}} {>then${n}}`;
  return otherwise ? `${words} otherwise {>otherwise}` : words;
}

export const choose = defineBlock({
  kind: 'choose.if',
  section: 'choose',
  shape: 'wrap',
  takesTime: true,
  words: ifWords(1, false),
  label: ['If', 'otherwise if, otherwise'],
  also: 'else, otherwise, then, condition',
  slots: { if1: condition() },
  help: 'Does the first part whose condition is true, or what stands under otherwise. Add and take away branches in its menu.',
  example: `if distance.cm() < 30:
    wheels.turn(left=120, power=35, ending="brake")
else:
    wheels.drive(cm=20, power=45, ending="brake")`,
  mistake: 'It is looked at once, when the program comes by. To watch something, put it into a loop.',
  grows: {
    phrases: ['if', 'otherwise if', 'otherwise'],
    words: (step) => ifWords(branches(step), hasOtherwise(step)),
    slot: (name) => (/^if\d+$/.test(name) ? { type: 'condition' } : undefined)
  },
  *run(task, args) {
    for (let n = 1; ; n++) {
      const ask = (args as Record<string, typeof args.if1 | undefined>)[ifSlot(n)];
      if (!ask) break;
      if (ask.slow ? yield* ask.slow() : ask()) return yield* task.steps(thenBody(n));
    }
    return yield* task.steps('otherwise');
  },
  python: (_, step) => {
    let text = '';
    for (let n = 1; n <= branches(step); n++) text += `${n === 1 ? 'if' : 'elif'} {if${n}}:\n    {>then${n}}\n`;
    return hasOtherwise(step) ? `${text}else:\n    {>otherwise}` : text.trimEnd();
  }
});

/** Rows of a table in their order: all yes first. */
export const tableRows = (questions: number): string[] =>
  Array.from({ length: 1 << questions }, (_, n) =>
    Array.from({ length: questions }, (_, q) => ((n >> (questions - 1 - q)) & 1 ? 'n' : 'y')).join('')
  );
export const questions = (step: Step): number => (step.bodies && 'yyy' in step.bodies ? 3 : 2);
export const cannot = (step: Step): string[] =>
  String(step.slots.cannot ?? '')
    .split(' ')
    .filter(Boolean);

export const table = defineBlock({
  kind: 'choose.table',
  section: 'choose',
  shape: 'wrap',
  takesTime: true,
  words: 'decide by table {q1} {q2}',
  label: ['Decide by table', 'two or three yes-or-no readings'],
  slots: { q1: condition(), q2: condition(), cannot: rows() },
  help: 'Takes two or three readings at once, each yes or no, and does the row that fits. A row can be marked as one that cannot happen.',
  example: `for _ in seconds(5):
    row = table(left_line.over("dark"), right_line.over("dark"))
    if row == (True, True):
        wheels.run(25, 25)
    elif row == (True, False):
        wheels.run(10, 25)
    elif row == (False, True):
        wheels.run(25, 10)
    elif row == (False, False):
        wheels.run(20, 20)
    wait_ms(20)
wheels.stop("brake")`,
  grows: {
    phrases: ['decide by table', 'and', 'yes', 'no', 'cannot happen'],
    words: (step) => {
      const n = questions(step);
      const head = Array.from({ length: n }, (_, q) => `{q${q + 1}}`).join(' and ');
      const row = (r: string): string =>
        [...r].map((c) => (c === 'y' ? 'yes' : 'no')).join(' ') +
        (cannot(step).includes(r) ? ' cannot happen' : ` {>${r}}`);
      return `decide by table ${head} ${tableRows(n).map(row).join(' ')}`;
    },
    slot: (name) => (name === 'cannot' ? rows() : /^q[123]$/.test(name) ? ({ type: 'condition' } as const) : undefined)
  },
  *run(task, args, step) {
    let row = '';
    for (let q = 1; q <= questions(step); q++) {
      const ask = (args as Record<string, unknown>)[`q${q}`] as typeof args.q1;
      row += (ask.slow ? yield* ask.slow() : ask()) ? 'y' : 'n';
    }
    if (!cannot(step).includes(row)) return yield* task.steps(row);
  },
  python: (_, step) => {
    const n = questions(step);
    let text = `row = table(${Array.from({ length: n }, (_, q) => `{q${q + 1}}`).join(', ')})\n`;
    tableRows(n).forEach((row, i) => {
      const tuple = [...row].map((c) => (c === 'y' ? 'True' : 'False')).join(', ');
      text += `${i ? 'elif' : 'if'} row == (${tuple}):\n    ${cannot(step).includes(row) ? 'cannot_happen()' : `{>${row}}`}\n`;
    });
    return text.trimEnd();
  }
});

export const match = defineBlock({
  kind: 'choose.match',
  section: 'choose',
  shape: 'wrap',
  takesTime: true,
  words: 'match {value} case {c1} {>do1}',
  label: ['Match', 'one value, several cases'],
  slots: { value: any(1), c1: any(1) },
  help: 'Works the value out once and does the first case that is equal to it, or what stands under otherwise. Add and take away cases in its menu.',
  example: `count = chance(1, 3)
found = which(count, [1, 2])
if found == 0:
    beep()
elif found == 1:
    left_lamp.on()
else:
    right_lamp.on()`,
  grows: {
    phrases: ['match', 'case', 'otherwise'],
    words: (step) => {
      let words = 'match {value}';
      for (let n = 1; n <= count(step, 'do'); n++) words += ` case {c${n}} {>do${n}}`;
      return hasOtherwise(step) ? `${words} otherwise {>otherwise}` : words;
    },
    slot: (name): SlotSpec | undefined => (/^(c\d+|value)$/.test(name) ? any(name === 'value' ? 1 : '') : undefined)
  },
  *run(task, args, step) {
    const cases = count(step, 'do');
    const values = args as Record<string, typeof args.value>;
    for (let n = 1; n <= cases; n++) if (same(values.value, values[`c${n}`])) return yield* task.steps(`do${n}`);
    return yield* task.steps('otherwise');
  },
  python: (_, step) => {
    const cases = count(step, 'do');
    let text = `found = which({value}, [${Array.from({ length: cases }, (_, n) => `{c${n + 1}}`).join(', ')}])\n`;
    for (let n = 1; n <= cases; n++) text += `${n > 1 ? 'elif' : 'if'} found == ${n - 1}:\n    {>do${n}}\n`;
    return hasOtherwise(step) ? `${text}else:\n    {>otherwise}` : text.trimEnd();
  }
});
export const caseCount = (step: Step): number => count(step, 'do');
