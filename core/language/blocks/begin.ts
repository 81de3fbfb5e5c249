import { choice, choiceOf, condition, defineBlock, named, number } from '../define.ts';

const BUTTONS = ['Dot', 'Bar'] as const;
/** Names of keys of the computer that programs can ask for. */
export const KEY = /^([A-Z0-9]|Space|Enter|Up|Down|Left|Right)$/;

export const start = defineBlock({
  kind: 'begin.start',
  section: 'begin',
  shape: 'starter',
  words: 'at the start',
  label: ['At the start', 'when the run sets off'],
  also: 'run, main',
  slots: {},
  help: 'Its stack runs when the run sets off: in rehearsal with Rehearse, on the device with its start button.',
  trigger: () => 'start',
  fname: () => 'main',
  python: '{f}'
});

export const before = defineBlock({
  kind: 'begin.before',
  section: 'begin',
  shape: 'starter',
  icon: 'prepare',
  words: 'before setting off',
  label: ['Before setting off', 'prepare: arms, pictures, lamps'],
  slots: {},
  help: 'Its stack prepares: servos and lamps may move, the wheels may not yet. Then the device waits for your word to set off.',
  example: `def prepare():
    striker.angle(60)
    display.show(Picture("....##. ..####. .####.. .##.... #......"))


async def on_set_off():
    await wheels.drive(cm=30, power=45, ending="brake")


run(before(prepare), set_off(on_set_off))
`,
  mistake: 'A drive block here ends the program: the wheels may not move before the word.',
  trigger: () => 'before',
  fname: () => 'prepare',
  python: 'before({f})'
});

export const setOff = defineBlock({
  kind: 'begin.off',
  section: 'begin',
  shape: 'starter',
  words: 'when set off',
  label: ['When set off', 'on your word, after preparing'],
  slots: {},
  help: 'Its stack runs when you give the word to set off. Without "before setting off" in the program that is the start.',
  example: `async def on_set_off():
    await wheels.drive(cm=30, power=45, ending="brake")


run(set_off(on_set_off))
`,
  trigger: () => 'set off',
  fname: () => 'on_set_off',
  python: 'set_off({f})'
});

export const button = defineBlock({
  kind: 'begin.button',
  section: 'begin',
  shape: 'starter',
  icon: 'button',
  words: 'when button {button} is {event}',
  label: ['When a button ...', 'is pressed, released, held'],
  slots: { button: choice(...BUTTONS), event: choice('pressed', 'released', 'held') },
  help: 'Its stack runs each time the button is pressed or released. Held fires one second after pressed, and pressed fires too. While the stack still runs, another press is missed.',
  trigger: (step) => `button ${step.slots.button} ${step.slots.event}`,
  fname: (step) => `on_${String(step.slots.button).toLowerCase()}_${step.slots.event}`,
  spell: { button: { Dot: 'dot', Bar: 'bar' } },
  python: 'when({button}.{event}, {f})'
});

export const key = defineBlock({
  kind: 'begin.key',
  section: 'begin',
  shape: 'starter',
  icon: 'key',
  words: 'when key {key} is {event}',
  label: ['When a key ...', 'of the computer'],
  slots: { key: named('W'), event: choice('pressed', 'released') },
  help: 'Its stack runs when a key of the computer is pressed or released, while rehearsing or plugged in.',
  trigger: (step) => `key ${step.slots.key} ${step.slots.event}`,
  fname: (step) => `on_key_${step.slots.key}_${step.slots.event}`,
  python: 'when(key("{key}", "{event}"), {f})'
});

export const dip = defineBlock({
  kind: 'begin.dip',
  section: 'begin',
  shape: 'starter',
  icon: 'motion',
  words: 'when the {edge} edge dips past {angle} °',
  label: ['When an edge dips', 'left, right, near, far'],
  slots: { edge: choice('left', 'right', 'near', 'far'), angle: number({ default: 25, unit: '°', min: 1, max: 89 }) },
  needs: ['motion'],
  help: 'Its stack runs when the board is leaned so that this edge is lower than the angle for a tenth of a second. It fires again after the board was back.',
  trigger: (step) => `dip ${step.slots.edge} ${step.slots.angle}`,
  fname: (step) => `on_${step.slots.edge}_edge_dips`,
  python: 'when(dip("{edge}", {angle}), {f})'
});

export const moved = defineBlock({
  kind: 'begin.moved',
  section: 'begin',
  shape: 'starter',
  icon: 'motion',
  words: 'when {how}',
  label: ['When it is moved', 'turned over, let go, set down'],
  slots: { how: choice('turned over', 'let go', 'set down') },
  needs: ['motion'],
  help: 'Let go: nearly no acceleration for 60 ms, as in a fall. Set down: level and still again after it was not.',
  trigger: (step) => `moved ${step.slots.how}`,
  fname: (step) => `on_${String(step.slots.how).replace(' ', '_')}`,
  python: 'when(moved("{how}"), {f})'
});

export const shaken = defineBlock({
  kind: 'begin.shaken',
  section: 'begin',
  shape: 'starter',
  icon: 'motion',
  words: 'when shaken for {time} s',
  label: ['When shaken', 'to and fro'],
  also: 'shake',
  slots: { time: number({ default: 0.4, unit: 's', min: 0.1, max: 10 }) },
  needs: ['motion'],
  help: 'Its stack runs when the board has been shaken for so long: at least three times to and fro in half a second, each above 1.5 g.',
  trigger: (step) => `shaken ${step.slots.time}`,
  fname: () => 'on_shaken',
  python: 'when(shaken({time}), {f})'
});

export const jolt = defineBlock({
  kind: 'begin.jolt',
  section: 'begin',
  shape: 'starter',
  icon: 'motion',
  words: 'when a jolt passes {amount} g',
  label: ['When jolted', 'a knock, a landing'],
  slots: { amount: number({ default: 2.2, unit: 'g', min: 1.1, max: 8 }) },
  needs: ['motion'],
  help: 'Its stack runs when the total acceleration passes the limit. At rest it is 1 g.',
  trigger: (step) => `jolt ${step.slots.amount}`,
  fname: () => 'on_jolt',
  python: 'when(jolt({amount}), {f})'
});

export const touch = defineBlock({
  kind: 'begin.touch',
  section: 'begin',
  shape: 'starter',
  icon: 'touch',
  words: 'when {what} {event}',
  label: ['When touched', 'nose, rim or an edge'],
  slots: {
    what: choiceOf('touches', 'nose', 'left edge', 'right edge', 'rim'),
    event: choice('is touched', 'is free')
  },
  help: 'Its stack runs when the nose bar, the rim or a touch edge is touched, or is free again.',
  trigger: (step) => `touch ${step.slots.what} ${step.slots.event}`,
  fname: (step) => `on_${String(step.slots.what).replace(' ', '_')}_${String(step.slots.event).replace('is ', '')}`,
  python: 'when(touch("{what}", "{event}"), {f})'
});

export const when = defineBlock({
  kind: 'begin.when',
  section: 'begin',
  shape: 'starter',
  icon: 'choose',
  words: 'when it becomes true that {condition}',
  label: ['When it becomes true', 'that something is so'],
  slots: { condition: condition() },
  help: 'Its stack runs each time the condition turns from false to true. It is looked at once a millisecond; what is true already at the start must first be false.',
  example: `def main():
    wheels.run(20, 20)


async def on_true():
    wheels.stop("brake")
    await beep()


run(main, when(lambda: distance.cm() < 25, on_true))
`,
  mistake: 'It does not run over and over while the condition stays true: only at the moment when it becomes true.',
  trigger: () => 'condition',
  fname: () => 'on_true',
  python: 'when(lambda: {condition}, {f})'
});

export const every = defineBlock({
  kind: 'begin.every',
  section: 'begin',
  shape: 'starter',
  icon: 'wait',
  words: 'every {time} {unit}',
  label: ['Every ...', 'again and again, in time'],
  slots: { time: number({ default: 2, min: 0.001, max: 86400 }), unit: choice('s', 'ms') },
  help: 'Its stack runs again and again, the first time after one span. It does not drift: each time is one span after the last.',
  example: `def every_2_s():
    left_lamp.flip()


run(every(2, s, every_2_s))
`,
  trigger: () => 'every',
  fname: (step) => `every_${String(step.slots.time).replace(/\W/g, '_')}_${step.slots.unit}`,
  python: 'every({time}, {unit}, {f})'
});

export const message = defineBlock({
  kind: 'begin.message',
  section: 'begin',
  shape: 'starter',
  icon: 'message',
  words: 'when message {name} arrives',
  label: ['When a message arrives', 'from a block or a device'],
  slots: { name: named('go') },
  help: 'Its stack runs when a message of this name is sent, by one of your own blocks or by another device.',
  example: `async def main():
    await wheels.drive(cm=20, power=45, ending="brake")
    send("ring")


async def on_ring():
    striker.angle(120)
    await wait(0.5)
    striker.angle(60)


run(main, when(message("ring"), on_ring))
`,
  trigger: (step) => `message ${step.slots.name}`,
  fname: (step) => `on_${step.slots.name}`,
  python: 'when(message("{name}"), {f})'
});
