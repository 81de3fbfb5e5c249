import { choice, condition, defineBlock, items, number, variable } from '../define.ts';
import { RunError } from '../meaning.ts';
import { whole } from '../values.ts';

export const times = defineBlock({
  kind: 'repeat.times',
  section: 'repeat',
  shape: 'wrap',
  loop: true,
  takesTime: true,
  words: 'repeat {count} times {>do}',
  label: ['Repeat', 'a number of times'],
  also: 'loop, again',
  slots: { count: number({ default: 3, min: 0, whole: true }) },
  help: 'Does its blocks as often as the number says.',
  example: `for _ in range(5):
    wheels.drive(cm=20, power=45, ending="brake")
    wheels.turn(left=72, power=35, ending="brake")`,
  *run(task, { count }) {
    for (let left = whole(count); left > 0; left--) {
      const signal = yield* task.steps('do');
      if (signal === 'leave') return;
      if (signal === 'give') return signal;
      if (task.turn()) yield null;
    }
  },
  python: 'for _ in range({count!}):\n    {>do}'
});

export const ever = defineBlock({
  kind: 'repeat.ever',
  section: 'repeat',
  shape: 'wrap',
  loop: true,
  takesTime: true,
  words: 'repeat for ever {>do}',
  label: ['Repeat for ever', 'until the run is stopped'],
  also: 'forever, always, endless, loop',
  slots: {},
  help: 'Does its blocks again and again. What stands below it is done only if the loop is left.',
  example: `while True:
    left_lamp.flip()
    wait(0.5)`,
  *run(task) {
    for (;;) {
      const signal = yield* task.steps('do');
      if (signal === 'leave') return;
      if (signal === 'give') return signal;
      if (task.turn()) yield null;
    }
  },
  python: 'while True:\n    {>do}'
});

export const until = defineBlock({
  kind: 'repeat.until',
  section: 'repeat',
  shape: 'wrap',
  loop: true,
  takesTime: true,
  words: 'repeat until {condition}, looked at {look} each turn {>do}',
  label: ['Repeat until', 'something is so'],
  slots: { condition: condition(), look: choice('before', 'after') },
  help: 'Does its blocks until the condition is true. Looked at before each turn, it may do none; after, it does at least one.',
  example: `while not (distance.cm() < 30):
    wheels.drive(cm=5, power=40, ending="brake")
beep()`,
  mistake: 'The condition is looked at once a turn, not all the time: a long wait inside delays it.',
  *run(task, { condition, look }) {
    if (look === 'before' && (condition.slow ? yield* condition.slow() : condition())) return;
    for (;;) {
      const signal = yield* task.steps('do');
      if (signal === 'leave') return;
      if (signal === 'give') return signal;
      if (task.turn()) yield null;
      if (condition.slow ? yield* condition.slow() : condition()) return;
    }
  },
  python: ({ look }) =>
    look === 'before'
      ? 'while not ({condition}):\n    {>do}'
      : 'while True:\n    {>do}\n    if until({condition}):\n        break'
});

export const repeatWhile = defineBlock({
  kind: 'repeat.while',
  section: 'repeat',
  shape: 'wrap',
  loop: true,
  takesTime: true,
  words: 'repeat while {condition}, looked at {look} each turn {>do}',
  label: ['Repeat while', 'something is so'],
  slots: { condition: condition(), look: choice('before', 'after') },
  help: 'Does its blocks as long as the condition is true.',
  example: `while distance.cm() > 30:
    wheels.drive(cm=5, power=40, ending="brake")
beep()`,
  *run(task, { condition, look }) {
    if (look === 'before' && !(condition.slow ? yield* condition.slow() : condition())) return;
    for (;;) {
      const signal = yield* task.steps('do');
      if (signal === 'leave') return;
      if (signal === 'give') return signal;
      if (task.turn()) yield null;
      if (!(condition.slow ? yield* condition.slow() : condition())) return;
    }
  },
  python: ({ look }) =>
    look === 'before'
      ? 'while {condition}:\n    {>do}'
      : 'while True:\n    {>do}\n    if not again({condition}):\n        break'
});

export const forSeconds = defineBlock({
  kind: 'repeat.for',
  section: 'repeat',
  shape: 'wrap',
  loop: true,
  takesTime: true,
  words: 'repeat for {time} s {>do}',
  label: ['Repeat for a time', 'in seconds'],
  slots: { time: number({ default: 5, unit: 's', min: 0, max: 3600 }) },
  help: 'Begins turns until the time is over. A turn that has begun is finished.',
  example: `for _ in seconds(3):
    left_lamp.flip()
    wait(0.25)`,
  *run(task, { time }) {
    const byUs = task.nowUs + Math.round(time * 1e6);
    while (task.nowUs < byUs) {
      const signal = yield* task.steps('do');
      if (signal === 'leave') return;
      if (signal === 'give') return signal;
      if (task.turn()) yield null;
    }
  },
  python: 'for _ in seconds({time}):\n    {>do}'
});

export const count = defineBlock({
  kind: 'repeat.count',
  section: 'repeat',
  shape: 'wrap',
  sets: 'variable',
  loop: true,
  takesTime: true,
  words: 'let {variable} go from {from} to {to} in steps of {step} {>do}',
  label: ['Count', 'a variable goes from, to, in steps'],
  slots: {
    variable: variable(),
    from: number({ default: 1 }),
    to: number({ default: 5 }),
    step: number({ default: 1 })
  },
  help: 'Sets the variable to the first number, then on in steps as long as it does not pass the last one, which is included.',
  example: `for count in from_to(1, 5, 1):
    display.write(count)
    tone(200 + 60 * count, 0.2)`,
  mistake: 'With steps that are not whole, the last number may be missed by a little: count whole steps and multiply.',
  *run(task, { variable, from, to, step }) {
    if (step === 0) throw new RunError('out-of-range', 'steps of 0');
    for (let n = 0; ; n++) {
      const value = from + n * step;
      if (step > 0 ? value > to : value < to) return;
      task.set(variable, value);
      const signal = yield* task.steps('do');
      if (signal === 'leave') return;
      if (signal === 'give') return signal;
      if (task.turn()) yield null;
    }
  },
  python: 'for {variable} in from_to({from}, {to}, {step}):\n    {>do}'
});

export const each = defineBlock({
  kind: 'repeat.each',
  section: 'repeat',
  shape: 'wrap',
  sets: 'variable',
  loop: true,
  takesTime: true,
  words: 'for each {variable} of {list} {>do}',
  label: ['For each', 'thing of a list'],
  slots: { variable: variable(), list: items() },
  help: 'Sets the variable to the first thing of the list, does its blocks, goes on to the next.',
  example: `for count in each([262, 330, 392]):
    tone(count, 0.3)`,
  *run(task, { variable, list }) {
    for (let n = 0; n < list.length; n++) {
      task.set(variable, list[n]);
      const signal = yield* task.steps('do');
      if (signal === 'leave') return;
      if (signal === 'give') return signal;
      if (task.turn()) yield null;
    }
  },
  python: 'for {variable} in each({list}):\n    {>do}'
});

export const leave = defineBlock({
  kind: 'repeat.leave',
  section: 'repeat',
  shape: 'end',
  words: 'leave the loop',
  label: ['Leave the loop', 'go on below it'],
  slots: {},
  help: 'Ends the innermost loop that it stands in; the program goes on below that loop.',
  example: `while True:
    wheels.drive(cm=5, power=40, ending="brake")
    if distance.cm() < 30:
        break
beep()`,
  run: () => 'leave' as const,
  python: 'break'
});

export const next = defineBlock({
  kind: 'repeat.next',
  section: 'repeat',
  shape: 'end',
  words: 'next turn of the loop',
  label: ['Next turn', 'skip the rest of this one'],
  slots: {},
  help: 'Skips what is left of this turn of the innermost loop and begins the next.',
  example: `for count in from_to(1, 6, 1):
    if remainder(count, 2) == 0:
        continue
    log(count)`,
  run: () => 'next' as const,
  python: 'continue'
});
