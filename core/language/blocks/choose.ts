import { condition, defineBlock } from '../define.ts';
import type { Step } from '../program.ts';

/** How many conditions an if has: its slots are if1, if2 ..., its bodies then1, then2 ... and otherwise. */
export const branches = (step: Step): number => {
  let n = 1;
  while (step.bodies && `then${n + 1}` in step.bodies) n++;
  return n;
};
export const hasOtherwise = (step: Step): boolean => !!step.bodies && 'otherwise' in step.bodies;

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
  words: ifWords(1, false),
  label: ['If', 'otherwise if, otherwise'],
  slots: { if1: condition() },
  help: 'Does the first part whose condition is true, or what stands under otherwise. Add and take away branches in its menu.',
  *run(task, args) {
    const asked = args as Record<string, (() => boolean) | undefined>;
    for (let n = 1; ; n++) {
      const ask = asked[ifSlot(n)];
      if (!ask) break;
      if (ask()) {
        yield* task.steps(thenBody(n));
        return;
      }
    }
    yield* task.steps('otherwise');
  },
  python: (p) => {
    for (let n = 1; n <= branches(p.step); n++) {
      p.line(`${n === 1 ? 'if' : 'elif'} ${p.slot(`if${n}`)}:`);
      p.body(`then${n}`);
    }
    if (hasOtherwise(p.step)) {
      p.line('else:');
      p.body('otherwise');
    }
  }
});
