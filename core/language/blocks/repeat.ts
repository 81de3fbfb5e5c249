import { choice, condition, defineBlock, number } from '../define.ts';
import { whole } from '../values.ts';

export const times = defineBlock({
  kind: 'repeat.times',
  section: 'repeat',
  shape: 'wrap',
  words: 'repeat {count} times {>do}',
  label: ['Repeat', 'a number of times'],
  slots: { count: number({ default: 3, min: 0, whole: true }) },
  help: 'Does its blocks as often as the number says.',
  *run(task, { count }) {
    for (let left = whole(count); left > 0; left--) {
      yield* task.steps('do');
      if (task.turn()) yield null;
    }
  },
  python: (p) => {
    p.line(`for _ in range(${p.whole('count')}):`);
    p.body('do', 'turn');
  }
});

export const ever = defineBlock({
  kind: 'repeat.ever',
  section: 'repeat',
  shape: 'end',
  words: 'repeat for ever {>do}',
  label: ['Repeat for ever', 'until the run is stopped'],
  slots: {},
  help: 'Does its blocks again and again. Nothing can stand below it.',
  *run(task) {
    for (;;) {
      yield* task.steps('do');
      if (task.turn()) yield null;
    }
  },
  python: (p) => {
    p.line('while True:');
    p.body('do', 'turn');
  }
});

export const until = defineBlock({
  kind: 'repeat.until',
  section: 'repeat',
  shape: 'wrap',
  words: 'repeat until {condition}, looked at {look} each turn {>do}',
  label: ['Repeat until', 'something is so'],
  slots: { condition: condition(), look: choice('before', 'after') },
  help: 'Does its blocks until the condition is true. Looked at before each turn, it may do none; after, it does at least one.',
  *run(task, { condition, look }) {
    if (look === 'before' && condition()) return;
    for (;;) {
      yield* task.steps('do');
      if (task.turn()) yield null;
      if (condition()) return;
    }
  },
  python: (p) => {
    if (p.choice('look') === 'before') {
      p.line(`while not (${p.slot('condition')}):`);
      p.body('do', 'turn');
    } else {
      p.line('while True:');
      p.body('do', 'turn');
      p.line(`    if until(${p.slot('condition')}):`);
      p.line('        break');
    }
  }
});
