import { any, choice, condition, defineBlock, number, PREC } from '../define.ts';
import { RunError } from '../meaning.ts';
import { order, same, show, sound, whole } from '../values.ts';

export const sum = defineBlock({
  kind: 'calc.sum',
  section: 'work',
  shape: 'value',
  gives: 'number',
  words: '{a} {sign} {b}',
  label: ['Arithmetic', '+ − × ÷'],
  slots: { a: number({ default: 2 }), sign: choice('+', '−', '×', '÷'), b: number({ default: 3 }) },
  help: 'Works out a sum, a difference, a product or a quotient.',
  value: (_, { a, sign, b }) => {
    if (sign === '+') return sound(a + b);
    if (sign === '−') return sound(a - b);
    if (sign === '×') return sound(a * b);
    if (b === 0) throw new RunError('division-by-zero', `${show(a)} ÷ 0`);
    return sound(a / b);
  },
  python: (p) => {
    const sign = p.choice('sign');
    const prec = sign === '+' || sign === '−' ? PREC.add : PREC.multiply;
    // the right side of − and ÷ needs its brackets, and so does any right side: a + (b + c) must round as written
    return [`${p.slot('a', prec)} ${{ '+': '+', '−': '-', '×': '*', '÷': '/' }[sign]} ${p.slot('b', prec + 1)}`, prec];
  }
});

export const compare = defineBlock({
  kind: 'calc.compare',
  section: 'work',
  shape: 'value',
  gives: 'condition',
  words: '{a} {sign} {b}',
  label: ['Compare', '= ≠ < ≤ > ≥'],
  slots: { a: any(0), sign: choice('<', '=', '>', '≤', '≥', '≠'), b: any(20) },
  help: 'True if the two values stand to each other as the sign says. Two measured numbers are hardly ever exactly equal: better ask for less or more.',
  value: (_, { a, sign, b }) => {
    if (sign === '=') return same(a, b);
    if (sign === '≠') return !same(a, b);
    const by = order(a, b);
    return sign === '<' ? by < 0 : sign === '>' ? by > 0 : sign === '≤' ? by <= 0 : by >= 0;
  },
  python: (p) => {
    const sign = { '=': '==', '≠': '!=', '<': '<', '>': '>', '≤': '<=', '≥': '>=' }[p.choice('sign')];
    return [`${p.slot('a', PREC.add)} ${sign} ${p.slot('b', PREC.add)}`, PREC.compare];
  }
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
  python: (p) => {
    const prec = PREC[p.choice('word') as 'and'];
    return [`${p.slot('a', prec)} ${p.choice('word')} ${p.slot('b', prec + 1)}`, prec];
  }
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
  python: (p) => [`not ${p.slot('a', PREC.not)}`, PREC.not]
});

export const chance = defineBlock({
  kind: 'calc.chance',
  section: 'work',
  shape: 'value',
  gives: 'number',
  words: 'whole number by chance from {from} to {to}',
  label: ['By chance', 'a whole number'],
  slots: { from: number({ default: 1, whole: true }), to: number({ default: 6, whole: true }) },
  help: 'A whole number by chance; both ends can come up. The same run gives the same numbers again.',
  value: (device, { from, to }) => device.chance(whole(from), whole(to)),
  python: (p) => [`chance(${p.whole('from')}, ${p.whole('to')})`, PREC.atom]
});
