import { any, defineBlock, number, PREC, variable } from '../define.ts';
import { num, sound } from '../values.ts';

export const set = defineBlock({
  kind: 'var.set',
  section: 'remember',
  shape: 'step',
  words: 'set {variable} to {value}',
  label: ['Set a variable', 'to a value'],
  slots: { variable: variable(), value: any(0) },
  help: 'Remembers a value under a name. Before it is set, a variable is 0.',
  run(task, { variable, value }) {
    task.set(variable, value);
  },
  python: (p) => p.line(`${p.name('variable')} = ${p.slot('value')}`)
});

export const change = defineBlock({
  kind: 'var.change',
  section: 'remember',
  shape: 'step',
  words: 'add {amount} to {variable}',
  label: ['Add to a variable', 'count up or down'],
  slots: { amount: number({ default: 1 }), variable: variable() },
  help: 'Adds to the number that the variable holds; a negative number takes away.',
  run(task, { variable, amount }) {
    task.set(variable, sound(num(task.get(variable)) + amount));
  },
  python: (p) => p.line(`${p.name('variable')} += ${p.slot('amount')}`)
});

export const value = defineBlock({
  kind: 'var.value',
  section: 'remember',
  shape: 'value',
  gives: 'any',
  words: '{variable}',
  label: ['Variable', 'what it holds now'],
  slots: { variable: variable() },
  help: 'The value that the variable holds now.',
  value: (_, { variable }, task) => task.get(variable),
  python: (p) => [p.name('variable'), PREC.atom]
});

export const log = defineBlock({
  kind: 'log.line',
  section: 'remember',
  shape: 'step',
  words: 'log {value}',
  label: ['Log', 'a line with the time'],
  slots: { value: any('here') },
  help: 'Writes a line into the log, with the time. It costs the robot nothing to see, and tells you what the program knew.',
  run({ device }, { value }) {
    device.log(value);
  },
  python: (p) => p.line(`log(${p.slot('value')})`)
});
