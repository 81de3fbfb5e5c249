import { choice, defineBlock } from '../define.ts';

const BUTTONS = ['Dot', 'Bar'] as const;

export const start = defineBlock({
  kind: 'begin.start',
  section: 'begin',
  shape: 'starter',
  words: 'at the start',
  label: ['At the start', 'when the run sets off'],
  slots: {},
  help: 'Its stack runs when the run sets off: in rehearsal with Rehearse, on the device with its start button.',
  trigger: () => 'start',
  python: () => ({ name: 'main' })
});

export const button = defineBlock({
  kind: 'begin.button',
  section: 'begin',
  shape: 'starter',
  words: 'when button {button} is {event}',
  label: ['When a button ...', 'is pressed, released, held'],
  slots: { button: choice(...BUTTONS), event: choice('pressed', 'released', 'held') },
  help: 'Its stack runs each time the button is pressed or released. Held fires one second after pressed, and pressed fires too. While the stack still runs, another press is missed.',
  trigger: (step) => `button ${step.slots.button} ${step.slots.event}`,
  python: (p) => {
    const b = p.choice('button').toLowerCase() as 'dot' | 'bar';
    return { name: `on_${b}_${p.choice('event')}`, trigger: `${p.thing(b)}.${p.choice('event')}` };
  }
});
