import { choice, choiceOf, condition, defineBlock, number } from '../define.ts';

export const waitTime = defineBlock({
  kind: 'wait.time',
  section: 'wait',
  shape: 'step',
  takesTime: ({ slots }) => slots.time !== 0,
  words: 'wait {time} {unit}',
  label: ['Wait', 'a time'],
  also: 'sleep, pause, delay',
  slots: { time: number({ default: 0.5, min: 0, max: 3600000 }), unit: choice('s', 'ms') },
  help: 'Waits. Everything that was set going before goes on: wheels that run keep running.',
  mistake: 'Waiting inside a loop that watches a sensor makes the robot blind for that time.',
  *run(_, { time, unit }) {
    yield { us: Math.round(time * (unit === 's' ? 1e6 : 1e3)) };
  },
  spell: { unit: { s: 'wait', ms: 'wait_ms' } },
  python: 'await {unit}({time})'
});

export const waitUntil = defineBlock({
  kind: 'wait.until',
  section: 'wait',
  shape: 'step',
  takesTime: true,
  words: 'wait until {condition}',
  label: ['Wait until', 'something is so'],
  slots: { condition: condition() },
  help: 'Waits until the condition is true. It is looked at at once and then a thousand times a second.',
  example: `wheels.run(20, 20)
wait_until(lambda: distance.cm() < 25)
wheels.stop("brake")`,
  mistake: 'If the condition is true already, it does not wait at all.',
  *run(_, { condition }) {
    if (condition.slow) {
      while (!(yield* condition.slow())) yield { until: () => true };
      return;
    }
    if (!condition()) yield { until: condition };
  },
  python: 'await wait_until(lambda: {condition})'
});

export const waitAtMost = defineBlock({
  kind: 'wait.limit',
  section: 'wait',
  shape: 'step',
  takesTime: true,
  words: 'wait until {condition}, {time} s at the most',
  label: ['Wait until, at the most', 'something is so, or the time is over'],
  slots: { condition: condition(), time: number({ default: 5, unit: 's', min: 0, max: 3600 }) },
  help: 'Waits until the condition is true, but not longer than the time.',
  example: `wheels.run(20, 20)
wait_until(lambda: nose.touched(), at_most=3)
wheels.stop("brake")`,
  *run(task, { condition, time }) {
    const byUs = task.nowUs + Math.max(0, Math.round(time * 1e6));
    if (condition.slow) {
      while (task.nowUs < byUs && !(yield* condition.slow())) yield { until: () => true };
      return;
    }
    if (task.nowUs < byUs && !condition()) yield { until: condition, byUs };
  },
  python: 'await wait_until(lambda: {condition}, at_most={time})'
});

export const waitTouch = defineBlock({
  kind: 'wait.touch',
  section: 'wait',
  shape: 'step',
  takesTime: true,
  words: 'wait until {what} is touched',
  label: ['Wait until touched', 'nose, rim or an edge'],
  slots: { what: choiceOf('touches', 'nose', 'left edge', 'right edge', 'rim') },
  help: 'Waits until the nose bar, the rim or a touch edge is touched.',
  example: `wheels.run(30, 30)
wait_until(nose.touched)
wheels.stop("brake")
wheels.back(cm=10, power=40, ending="brake")`,
  *run({ device }, { what }) {
    const touched = (): boolean =>
      what === 'nose'
        ? device.noseTouched()
        : what === 'rim'
          ? device.rimTouched()
          : device.edgeTouched(what === 'left edge' ? 'left' : 'right');
    if (!touched()) yield { until: touched };
  },
  spell: { what: { nose: 'nose', 'left edge': 'left_edge', 'right edge': 'right_edge', rim: 'rim' } },
  python: 'await wait_until({what}.touched)'
});
