import { any, defineBlock, items, list, named, number, variable, type SlotSpec } from '../define.ts';
import { RunError } from '../meaning.ts';
import { isStep, type Program, type Slot, type Step, type Value } from '../program.ts';
import { num, place, roomFor, same, sound, whole } from '../values.ts';

export const set = defineBlock({
  kind: 'var.set',
  section: 'remember',
  shape: 'step',
  sets: 'variable',
  words: 'set {variable} to {value}',
  label: ['Set a variable', 'to a value'],
  also: 'store, assign',
  slots: { variable: variable(), value: any(0) },
  help: 'Remembers a value under a name. Before it is set, a variable is 0.',
  example: `count = 15
wheels.drive(cm=count, power=45, ending="brake")
count = count * 2
wheels.drive(cm=count, power=45, ending="brake")`,
  run(task, { variable, value }) {
    task.set(variable, value);
  },
  python: (_, step, program) =>
    isList(String(step.slots.variable), program) && !givesList(step.slots.value)
      ? '{variable} = a_list({value})'
      : '{variable} = {value}'
});
const isList = (id: string, program: Program): boolean => !!program.variables.find((v) => v.id === id)?.list;
/** What is a list for certain; anything else is looked at when it runs. */
const givesList = (slot: Slot): boolean => isStep(slot) && ['list.new', 'list.value'].includes(slot.kind);

export const change = defineBlock({
  kind: 'var.change',
  section: 'remember',
  shape: 'step',
  sets: 'variable',
  words: 'add {amount} to {variable}',
  label: ['Add to a variable', 'count up or down'],
  also: 'increase, increment, counter',
  slots: { amount: number({ default: 1 }), variable: variable() },
  help: 'Adds to the number that the variable holds; a negative number takes away.',
  example: `for _ in range(5):
    count += 1
    display.write(count)
    wait(0.3)`,
  run(task, { variable, amount }) {
    task.set(variable, sound(num(task.get(variable)) + amount));
  },
  python: '{variable} += {amount}'
});

export const value = defineBlock({
  kind: 'var.value',
  section: 'remember',
  shape: 'value',
  reads: ['variables'],
  gives: 'any',
  words: '{variable}',
  label: ['Variable', 'what it holds now'],
  slots: { variable: variable() },
  help: 'The value that the variable holds now.',
  example: `count = 15
wheels.drive(cm=count, power=45, ending="brake")`,
  value: (_, { variable }, task) => task.get(variable),
  python: '{variable}'
});

/** How many things a new list has: its slots are i1, i2 ... */
export const itemCount = (step: Step): number => {
  let n = 0;
  while (`i${n + 1}` in step.slots) n++;
  return n;
};
const itemWords = (step: Step): string =>
  `list of${itemCount(step) ? Array.from({ length: itemCount(step) }, (_, n) => ` {i${n + 1}}`).join('') : ' nothing'}`;

export const listNew = defineBlock({
  kind: 'list.new',
  section: 'remember',
  shape: 'value',
  gives: 'list',
  words: 'list of {i1} {i2} {i3}',
  label: ['New list', 'of several things'],
  slots: { i1: any(3), i2: any(1), i3: any(4) },
  help: 'A new list with these things in it, in their order. Add and take away places in its menu.',
  grows: {
    phrases: ['list of', 'nothing'],
    words: itemWords,
    slot: (name): SlotSpec | undefined => (/^i\d+$/.test(name) ? any(0) : undefined)
  },
  value: (_, args, __, step) => {
    const values = args as Record<string, Value>;
    return Array.from({ length: itemCount(step) }, (_, n) => values[`i${n + 1}`]);
  },
  python: (_, step) => `[${Array.from({ length: itemCount(step) }, (_, n) => `{i${n + 1}}`).join(', ')}]`
});

export const listValue = defineBlock({
  kind: 'list.value',
  section: 'remember',
  shape: 'value',
  gives: 'list',
  words: 'list {list}',
  label: ['A list', 'all that it holds'],
  slots: { list: list() },
  help: 'The list itself, to be gone through, compared or handed on.',
  example: `put_at_end(90, things)
put_at_end(45, things)
for count in each(things):
    wheels.turn(right=count, power=35, ending="brake")`,
  mistake: 'Setting a variable to a list does not copy it: both names mean the same list.',
  value: (_, { list }) => list,
  python: '{list}'
});

/** A value on its way into a list: neither the list itself nor a list that holds it, which would have no end. */
function fits(value: Value, list: readonly Value[]): Value {
  const holds = (v: Value): boolean => v === list || (Array.isArray(v) && v.some(holds));
  if (Array.isArray(value) && holds(value)) throw new RunError('list-in-itself');
  return value;
}
export const listAdd = defineBlock({
  kind: 'list.add',
  section: 'remember',
  shape: 'step',
  sets: 'list',
  words: 'put {value} at the end of {list}',
  label: ['Put at the end', 'of a list'],
  slots: { value: any(1), list: list() },
  help: 'Makes the list longer by one thing, at its end.',
  example: `put_at_end("leaf", things)
put_at_end("drop", things)
log(things)`,
  run(_, { value, list }) {
    roomFor(list).push(fits(value, list));
  },
  python: 'put_at_end({value}, {list})'
});

export const listInsert = defineBlock({
  kind: 'list.insert',
  section: 'remember',
  shape: 'step',
  sets: 'list',
  words: 'put {value} at place {place} of {list}',
  label: ['Put at a place', 'the rest moves on'],
  slots: { value: any(1), place: number({ default: 0, min: 0, whole: true }), list: list() },
  help: 'Puts a thing into the list; what stood there and after it moves on by one place. Places count from 0.',
  example: `put_at_end("leaf", things)
put_at("drop", 0, things)
log(things)`,
  run(_, { value, place: at, list }) {
    const n = place(whole(at), list.length + 1);
    roomFor(list).splice(n, 0, fits(value, list));
  },
  python: 'put_at({value}, {place!}, {list})'
});

export const listReplace = defineBlock({
  kind: 'list.replace',
  section: 'remember',
  shape: 'step',
  sets: 'list',
  words: 'swap place {place} of {list} for {value}',
  label: ['Swap a place', 'for another thing'],
  slots: { place: number({ default: 0, min: 0, whole: true }), list: list(), value: any(1) },
  help: 'Puts another thing where one stands. Places count from 0.',
  example: `put_at_end("leaf", things)
swap_at(0, things, "drop")
log(things)`,
  run(_, { place: at, list, value }) {
    list[place(whole(at), list.length)] = fits(value, list);
  },
  python: 'swap_at({place!}, {list}, {value})'
});

export const listTake = defineBlock({
  kind: 'list.take',
  section: 'remember',
  shape: 'step',
  sets: 'list',
  words: 'take out place {place} of {list}',
  label: ['Take out a place', 'the rest moves up'],
  slots: { place: number({ default: 0, min: 0, whole: true }), list: list() },
  help: 'Takes a thing out of the list; what stood after it moves up. Places count from 0.',
  example: `put_at_end("leaf", things)
put_at_end("drop", things)
take_out(0, things)
log(things)`,
  run(_, { place: at, list }) {
    list.splice(place(whole(at), list.length), 1);
  },
  python: 'take_out({place!}, {list})'
});

export const listAt = defineBlock({
  kind: 'list.at',
  section: 'remember',
  shape: 'value',
  gives: 'any',
  words: 'place {place} of {list}',
  label: ['A place of a list', 'counting from 0'],
  slots: { place: number({ default: 0, min: 0, whole: true }), list: items() },
  help: 'The thing at a place of the list. Places count from 0.',
  example: `log(place_of(0, ["leaf", "drop", "bell"]))
log(place_of(2, ["leaf", "drop", "bell"]))`,
  mistake: 'The last place is one less than how many there are.',
  value: (_, { place: at, list }) => list[place(whole(at), list.length)],
  python: 'place_of({place!}, {list})'
});

export const listCount = defineBlock({
  kind: 'list.count',
  section: 'remember',
  shape: 'value',
  lies: [0, 10_000],
  gives: 'number',
  words: 'how many in {list}',
  label: ['How many in a list', 'its length'],
  slots: { list: items() },
  help: 'How many things the list holds.',
  example: `put_at_end("leaf", things)
log(how_many(things))`,
  value: (_, { list }) => list.length,
  python: 'how_many({list})'
});

export const listHas = defineBlock({
  kind: 'list.has',
  section: 'remember',
  shape: 'value',
  gives: 'condition',
  words: '{value} is in {list}',
  label: ['Is in a list', 'true or false'],
  slots: { value: any(1), list: items() },
  help: 'True if one of the things in the list is equal to the value.',
  example: `log(is_in("drop", ["leaf", "drop", "bell"]))`,
  value: (_, { value, list }) => list.some((v) => same(v, value)),
  python: 'is_in({value}, {list})'
});

export const listWhere = defineBlock({
  kind: 'list.where',
  section: 'remember',
  shape: 'value',
  lies: [-1, 9_999],
  gives: 'number',
  words: 'place of {value} in {list}',
  label: ['Where in a list', 'its first place'],
  slots: { value: any(1), list: items() },
  help: 'The first place where the list holds the value, counting from 0. If it is not there, the program stops: ask "is in" first.',
  example: `log(where_in("drop", ["leaf", "drop", "bell"]))`,
  value: (_, { value, list }) => {
    const at = list.findIndex((v) => same(v, value));
    if (at < 0) throw new RunError('not-in-list');
    return at;
  },
  python: 'where_in({value}, {list})'
});

export const log = defineBlock({
  kind: 'log.line',
  section: 'remember',
  shape: 'step',
  words: 'log {value}',
  label: ['Log', 'a line with the time'],
  also: 'print, console',
  slots: { value: any('here') },
  help: 'Writes a line into the log, with the time. It costs the robot nothing to see, and tells you what the program knew.',
  run({ device }, { value }) {
    device.log(value);
  },
  python: 'log({value})'
});

export const plot = defineBlock({
  kind: 'log.plot',
  section: 'remember',
  shape: 'step',
  words: 'plot {value} as {name}',
  label: ['Plot', 'a lane of its own in the trace'],
  slots: { value: number({ default: 0 }), name: named('level') },
  help: 'Draws the number as a curve of its own in the trace, under this name.',
  example: `wheels.run(30, 30)
for _ in seconds(3):
    plot(distance.cm(), "distance")
    wait_ms(50)
wheels.stop("brake")`,
  run({ device }, { value, name }) {
    device.plot(name, value);
  },
  python: 'plot({value}, "{name}")'
});

export const mark = defineBlock({
  kind: 'log.mark',
  section: 'remember',
  shape: 'step',
  words: 'mark {words}',
  label: ['Mark', 'a flag on the time axis'],
  slots: { words: any('turning') },
  help: 'Sets a flag on the time axis of the trace.',
  example: `wheels.drive(cm=20, power=45, ending="brake")
mark("turning")
wheels.turn(left=90, power=35, ending="brake")`,
  run({ device }, { words }) {
    device.mark(words);
  },
  python: 'mark({words})'
});
