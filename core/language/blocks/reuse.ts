import { defineBlock, routine } from '../define.ts';

export const callRoutine = defineBlock({
  kind: 'routine.do',
  section: 'reuse',
  shape: 'step',
  words: 'do {routine}',
  label: ['Do a routine', 'a stack with a name'],
  slots: { routine: routine() },
  help: 'Runs the routine from its first block to its last, then goes on below.',
  *run(task, { routine }) {
    yield* task.callRoutine(routine);
  },
  python: (p) => p.line(`${p.wait}${p.name('routine')}()`)
});
