import { any, choice, condition, defineBlock, number } from '../define.ts';
import { RunError } from '../meaning.ts';
import {
  arcTangent2,
  FUNCTIONS,
  order,
  place,
  power,
  remainder,
  same,
  sound,
  textOf,
  typedNumber,
  whole
} from '../values.ts';

export const sum = defineBlock({
  kind: 'calc.sum',
  section: 'work',
  shape: 'value',
  gives: 'number',
  words: '{a} {sign} {b}',
  label: ['Arithmetic', '+ − × ÷'],
  also: 'plus, minus, times, divide',
  slots: { a: number({ default: 2 }), sign: choice('+', '−', '×', '÷'), b: number({ default: 3 }) },
  help: 'Works out a sum, a difference, a product or a quotient.',
  value: (_, { a, sign, b }) => {
    if (sign === '+') return sound(a + b);
    if (sign === '−') return sound(a - b);
    if (sign === '×') return sound(a * b);
    if (b === 0) throw new RunError('division-by-zero');
    return sound(a / b);
  },
  spell: { sign: { '+': '+', '−': '-', '×': '*', '÷': '/' } },
  python: '{a} {sign} {b}'
});

export const rest = defineBlock({
  kind: 'calc.rest',
  section: 'work',
  shape: 'value',
  gives: 'number',
  words: 'remainder of {a} ÷ {b}',
  label: ['Remainder', 'what a division leaves'],
  slots: { a: number({ default: 7 }), b: number({ default: 3 }) },
  help: 'What is left when the first number is divided by the second. It has the sign of the second, as in Python.',
  value: (_, { a, b }) => remainder(a, b),
  python: 'remainder({a}, {b})'
});

export const toPower = defineBlock({
  kind: 'calc.power',
  section: 'work',
  shape: 'value',
  gives: 'number',
  words: '{a} to the power of {b}',
  label: ['Power', 'multiplied by itself'],
  slots: { a: number({ default: 2 }), b: number({ default: 8 }) },
  help: 'The first number multiplied by itself as often as the second says.',
  value: (_, { a, b }) => power(a, b),
  python: 'to_the_power({a}, {b})'
});

export const negative = defineBlock({
  kind: 'calc.negative',
  section: 'work',
  shape: 'value',
  gives: 'number',
  words: 'negative of {a}',
  label: ['Negative', 'the other sign'],
  slots: { a: number({ default: 5 }) },
  help: 'The number with the other sign.',
  value: (_, { a }) => -a || 0,
  python: '-({a})'
});

export const compare = defineBlock({
  kind: 'calc.compare',
  section: 'work',
  shape: 'value',
  gives: 'condition',
  words: '{a} {sign} {b}',
  label: ['Compare', '= ≠ < ≤ > ≥'],
  slots: { a: any(0), sign: choice('<', '=', '>', '≤', '≥', '≠'), b: any(20) },
  help: 'True if the two values stand to each other as the sign says.',
  mistake: 'Two measured numbers are hardly ever exactly equal: better ask for less or more.',
  value: (_, { a, sign, b }) => {
    if (sign === '=') return same(a, b);
    if (sign === '≠') return !same(a, b);
    const by = order(a, b);
    return sign === '<' ? by < 0 : sign === '>' ? by > 0 : sign === '≤' ? by <= 0 : by >= 0;
  },
  spell: { sign: { '=': '==', '≠': '!=', '<': '<', '>': '>', '≤': '<=', '≥': '>=' } },
  python: '{a} {sign} {b}'
});

export const between = defineBlock({
  kind: 'calc.between',
  section: 'work',
  shape: 'value',
  gives: 'condition',
  words: '{value} lies from {low} to {high}',
  label: ['Lies between', 'both ends count'],
  slots: { value: number({ default: 5 }), low: number({ default: 1 }), high: number({ default: 10 }) },
  help: 'True if the number is not below the first and not above the second.',
  value: (_, { value, low, high }) => value >= low && value <= high,
  python: 'lies_from_to({value}, {low}, {high})'
});

export const logic = defineBlock({
  kind: 'calc.logic',
  section: 'work',
  shape: 'value',
  gives: 'condition',
  words: '{a} {word} {b}',
  label: ['And, or', 'two conditions'],
  slots: { a: condition(), word: choice('and', 'or'), b: condition() },
  help: 'And: both must be true. Or: at least one. The second is looked at only if it still matters.',
  value: (_, { a, word, b }) => (word === 'and' ? a() && b() : a() || b()),
  *slowly({ a, word, b }) {
    const first = a.slow ? yield* a.slow() : a();
    if (first !== (word === 'and')) return first;
    return b.slow ? yield* b.slow() : b();
  },
  python: '{a} {word} {b}'
});

export const not = defineBlock({
  kind: 'calc.not',
  section: 'work',
  shape: 'value',
  gives: 'condition',
  words: 'not {a}',
  label: ['Not', 'the opposite'],
  slots: { a: condition() },
  help: 'True if the condition is not.',
  value: (_, { a }) => !a(),
  *slowly({ a }) {
    return !(a.slow ? yield* a.slow() : a());
  },
  python: 'not {a}'
});

export const chance = defineBlock({
  kind: 'calc.chance',
  section: 'work',
  shape: 'value',
  goesOn: true,
  gives: 'number',
  words: 'whole number by chance from {from} to {to}',
  label: ['By chance', 'a whole number'],
  also: 'random, dice',
  slots: { from: number({ default: 1, whole: true }), to: number({ default: 6, whole: true }) },
  help: 'A whole number by chance; both ends can come up. The same run gives the same numbers again.',
  value: (device, { from, to }) => device.chance(whole(from), whole(to)),
  python: 'chance({from!}, {to!})'
});

export const anyChance = defineBlock({
  kind: 'calc.any',
  section: 'work',
  shape: 'value',
  goesOn: true,
  lies: [0, 1],
  gives: 'number',
  words: 'any number by chance from 0 to 1',
  label: ['Any number by chance', 'from 0 to 1'],
  also: 'random, fraction',
  slots: {},
  help: 'Any number from 0 up to 1. Multiply it to get a wider range.',
  value: (device) => device.anyChance(),
  python: 'any_chance()'
});

export const coin = defineBlock({
  kind: 'calc.coin',
  section: 'work',
  shape: 'value',
  goesOn: true,
  gives: 'condition',
  words: 'the coin falls on heads',
  label: ['Coin', 'true or false by chance'],
  slots: {},
  help: 'True half of the times, by chance.',
  value: (device) => device.chance(0, 1) === 1,
  python: 'coin()'
});

export const fn = defineBlock({
  kind: 'calc.function',
  section: 'work',
  shape: 'value',
  gives: 'number',
  words: '{fn} of {x}',
  label: ['Round, root, sine ...', 'a function of one number'],
  also: 'absolute, floor, cosine',
  slots: {
    fn: choice(
      'round',
      'floor',
      'ceiling',
      'absolute',
      'square root',
      'sine',
      'cosine',
      'tangent',
      'arc sine',
      'arc cosine',
      'arc tangent'
    ),
    x: number({ default: 2.5 })
  },
  help: 'Round goes to the nearest whole number, and from the middle to the even one, as in Python. Angles are degrees.',
  value: (_, { fn, x }) => sound(FUNCTIONS[fn](x)),
  spell: {
    fn: {
      round: 'rounded',
      floor: 'floor',
      ceiling: 'ceiling',
      absolute: 'absolute',
      'square root': 'square_root',
      sine: 'sine',
      cosine: 'cosine',
      tangent: 'tangent',
      'arc sine': 'arc_sine',
      'arc cosine': 'arc_cosine',
      'arc tangent': 'arc_tangent'
    }
  },
  python: '{fn}({x})'
});

export const direction = defineBlock({
  kind: 'calc.direction',
  section: 'work',
  shape: 'value',
  gives: 'number',
  words: 'angle of the arrow to x {x} y {y}, °',
  label: ['Angle of an arrow', 'arc tangent of y and x'],
  slots: { y: number({ default: 1 }), x: number({ default: 1 }) },
  help: 'The angle between the x direction and an arrow to the point, from −180° to 180° (atan2).',
  value: (_, { y, x }) => arcTangent2(y, x),
  python: 'arc_tangent_2({y}, {x})'
});

export const smaller = defineBlock({
  kind: 'calc.pick',
  section: 'work',
  shape: 'value',
  gives: 'number',
  words: 'the {which} of {a} and {b}',
  label: ['Smaller, larger', 'of two numbers'],
  slots: { which: choice('smaller', 'larger'), a: number({ default: 2 }), b: number({ default: 3 }) },
  help: 'The smaller or the larger of two numbers.',
  value: (_, { which, a, b }) => (which === 'smaller' ? (b < a ? b : a) : b > a ? b : a),
  python: '{which}({a}, {b})'
});

export const keep = defineBlock({
  kind: 'calc.keep',
  section: 'work',
  shape: 'value',
  gives: 'number',
  words: 'keep {value} between {low} and {high}',
  label: ['Keep between', 'cut off at both ends'],
  slots: { value: number({ default: 120 }), low: number({ default: 0 }), high: number({ default: 100 }) },
  help: 'The number itself, or the nearer end where it lies outside.',
  value: (_, { value, low, high }) => (value < low ? low : value > high ? high : value),
  python: 'keep_between({value}, {low}, {high})'
});

export const map = defineBlock({
  kind: 'calc.map',
  section: 'work',
  shape: 'value',
  gives: 'number',
  words: 'map {value} from {a} .. {b} to {c} .. {d}',
  label: ['Map', 'from one range to another'],
  slots: {
    value: number({ default: 0 }),
    a: number({ default: -100 }),
    b: number({ default: 100 }),
    c: number({ default: 0 }),
    d: number({ default: 180 })
  },
  help: 'Carries a number from one range over to another: the ends go to the ends, the middle to the middle.',
  example: `for count in from_to(-100, 100, 50):
    striker.angle(map_range(count, -100, 100, 0, 180))
    wait(0.5)`,
  value: (_, { value, a, b, c, d }) => {
    if (a === b) throw new RunError('division-by-zero');
    return sound(c + ((value - a) * (d - c)) / (b - a));
  },
  python: 'map_range({value}, {a}, {b}, {c}, {d})'
});

export const pi = defineBlock({
  kind: 'calc.pi',
  section: 'work',
  shape: 'value',
  lies: [Math.PI, Math.PI],
  gives: 'number',
  words: 'π',
  label: ['Pi', '3.14159 ...'],
  slots: {},
  help: 'How many diameters go round a circle: 3.14159 ...',
  value: () => Math.PI,
  python: 'pi'
});

export const join = defineBlock({
  kind: 'text.join',
  section: 'work',
  shape: 'value',
  gives: 'text',
  words: '{a} followed by {b}',
  label: ['Followed by', 'two texts in one'],
  also: 'concatenate, join',
  slots: { a: any('drop '), b: any(1) },
  help: 'One text after the other. Numbers are written out.',
  value: (_, { a, b }) => textOf(textOf(a) + textOf(b)),
  python: 'join({a}, {b})'
});

export const length = defineBlock({
  kind: 'text.length',
  section: 'work',
  shape: 'value',
  lies: [0, Infinity],
  gives: 'number',
  words: 'how many characters in {text}',
  label: ['How many characters', 'in a text'],
  slots: { text: any('moss') },
  help: 'How many characters the text has.',
  value: (_, { text }) => [...textOf(text)].length,
  python: 'characters({text})'
});

export const character = defineBlock({
  kind: 'text.at',
  section: 'work',
  shape: 'value',
  gives: 'text',
  words: 'character {place} of {text}',
  label: ['A character', 'of a text, counting from 0'],
  slots: { place: number({ default: 0, min: 0, whole: true }), text: any('moss') },
  help: 'One character of the text. Places count from 0.',
  value: (_, { place: at, text }) => {
    const all = [...textOf(text)];
    return all[place(whole(at), all.length)];
  },
  python: 'character({place!}, {text})'
});

export const asText = defineBlock({
  kind: 'text.of',
  section: 'work',
  shape: 'value',
  gives: 'text',
  words: '{value} as text',
  label: ['As text', 'a number written out'],
  slots: { value: any(3.5) },
  help: 'The value written out as text.',
  value: (_, { value }) => textOf(value),
  python: 'as_text({value})'
});

export const asNumber = defineBlock({
  kind: 'text.number',
  section: 'work',
  shape: 'value',
  gives: 'number',
  words: '{text} as number',
  label: ['As number', 'a text read as a number'],
  slots: { text: any('12') },
  help: 'Reads a text as a number. If it is none, the program stops here.',
  example: `log(as_number(join(1, 2)) + 1)`,
  value: (_, { text }) => {
    if (typeof text === 'number') return text;
    const n = typedNumber(textOf(text));
    if (n === undefined) throw new RunError('no-number-in-text', `"${textOf(text)}"`);
    return sound(n);
  },
  python: 'as_number({text})'
});
