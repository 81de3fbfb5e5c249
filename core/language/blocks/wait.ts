import { choice, condition, defineBlock, number } from '../define.ts';

export const waitTime = defineBlock({
  kind: 'wait.time',
  section: 'wait',
  shape: 'step',
  words: 'wait {time} {unit}',
  label: ['Wait', 'a time'],
  slots: { time: number({ default: 0.5, min: 0, max: 3600000 }), unit: choice('s', 'ms') },
  help: 'Waits. Everything that was set going before goes on: wheels that run keep running.',
  *run(_, { time, unit }) {
    yield { us: Math.round(time * (unit === 's' ? 1e6 : 1e3)) };
  },
  python: (p) => p.line(`${p.wait}${p.choice('unit') === 's' ? 'wait' : 'wait_ms'}(${p.slot('time')})`)
});

export const waitUntil = defineBlock({
  kind: 'wait.until',
  section: 'wait',
  shape: 'step',
  words: 'wait until {condition}',
  label: ['Wait until', 'something is so'],
  slots: { condition: condition() },
  help: 'Waits until the condition is true. It is looked at at once and then a thousand times a second.',
  *run(_, { condition }) {
    if (!condition()) yield { until: condition };
  },
  python: (p) => p.line(`${p.wait}wait_until(lambda: ${p.slot('condition')})`)
});
