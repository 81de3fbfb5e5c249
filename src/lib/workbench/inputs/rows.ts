/** What a person does during a run, as rows of a table: when, what, and how much. */
import { STICKS } from '../../../../core/language/blocks/sense.ts';
import { asTyped, typedValue } from '../../../../core/language/values.ts';
import type { Input } from '../../../../core/trace/inputs.ts';
import type { TimedInput } from '../../../../core/trace/trace.ts';
import { later } from '../../../../core/words.ts';

/** One thing that is said of it. What may be left out has no `first`. */
export type Field = { key: string; name: string } & (
  | { is: 'number'; min: number; max: number; unit: string; first?: number }
  | { is: 'choice'; of: readonly string[] }
  | { is: 'flag'; words: readonly [yes: string, no: string] }
  | { is: 'text'; first?: string; numbers?: boolean }
);
/** `within`: its fields lie in an object of the kind's own name. */
export type What = { id: string; name: string; within?: true; fields: readonly Field[] };
export type Cell = number | string | boolean | undefined;
/** One row: its values by the keys of its fields. */
export type Row = { tUs: number; what: string; cells: Record<string, Cell>; to?: string };

const number = (key: string, name: string, unit: string, min: number, max: number, first?: number): Field => ({
  key,
  name,
  is: 'number',
  unit,
  min,
  max,
  ...(first === undefined ? {} : { first })
});
const flag = (key: string, yes: string, no: string): Field => ({
  key,
  name: later('how'),
  is: 'flag',
  words: [yes, no]
});
const choice = (key: string, of: readonly string[]): Field => ({ key, name: later('which'), is: 'choice', of });
const BUTTONS = ['Dot', 'Bar'];
const touches = flag('touched', later('is touched'), later('is free'));

export const WHATS: readonly What[] = [
  { id: 'press', name: later('press a button'), fields: [choice('press', BUTTONS)] },
  { id: 'release', name: later('let a button go'), fields: [choice('release', BUTTONS)] },
  { id: 'rim', name: later('the rim'), fields: [number('rim', later('from the notch'), '°', 0, 360, 0), touches] },
  { id: 'nose', name: later('the nose'), fields: [flag('nose', later('is touched'), later('is free'))] },
  { id: 'edge', name: later('an edge'), fields: [choice('edge', ['left', 'right']), touches] },
  {
    id: 'key',
    name: later('a key'),
    fields: [
      { key: 'key', name: later('key'), is: 'text', first: 'W' },
      flag('down', later('pressed'), later('released'))
    ]
  },
  {
    id: 'stick',
    name: later('a stick'),
    fields: [choice('stick', STICKS), number('at', later('at'), '%', -100, 100, 0)]
  },
  {
    id: 'lean',
    name: later('lean it'),
    within: true,
    fields: [
      number('sideways', later('sideways'), '°', -180, 180),
      number('forwards', later('forwards'), '°', -180, 180),
      number('turned', later('turned'), '°', -180, 180)
    ]
  },
  {
    id: 'shake',
    name: later('shake it'),
    fields: [number('shake', later('for'), 's', 0, 60, 0.8), number('g', later('with'), 'g', 0.1, 6)]
  },
  { id: 'toss', name: later('toss it'), fields: [number('toss', later('up by'), 'cm', 0, 300, 60)] },
  { id: 'drop', name: later('let it fall'), fields: [number('drop', later('down by'), 'cm', 0, 300, 60)] },
  {
    id: 'push',
    name: later('push it'),
    within: true,
    fields: [
      number('ahead', later('ahead'), 'N', -50, 50),
      number('right', later('to the right'), 'N', -50, 50),
      number('turn', later('round'), 'N cm', -50, 50),
      number('seconds', later('for'), 's', 0, 10, 0.2)
    ]
  },
  { id: 'lift', name: later('by hand'), fields: [flag('lift', later('lift it'), later('set it down'))] },
  {
    id: 'carry',
    name: later('carry it'),
    within: true,
    fields: [
      number('x', later('x'), 'cm', -1000, 1000, 30),
      number('y', later('y'), 'cm', -1000, 1000, 30),
      number('facing', later('facing'), '°', -3600, 3600, 0)
    ]
  },
  { id: 'soil', name: later('its foot'), fields: [flag('soil', later('into the soil'), later('out of the soil'))] },
  {
    id: 'around',
    name: later('where it is'),
    within: true,
    fields: [
      number('light', later('light'), '', 0, 100),
      number('temperature', later('temperature'), '°C', -273, 1000),
      number('moisture', later('moisture'), '', 0, 100)
    ]
  },
  {
    id: 'message',
    name: later('a message arrives'),
    fields: [
      { key: 'message', name: later('message'), is: 'text', first: 'go' },
      { key: 'from', name: later('from'), is: 'text' }
    ]
  },
  { id: 'word', name: later('the word to set off'), fields: [] },
  {
    id: 'set',
    name: later('set a variable'),
    within: true,
    fields: [
      { key: 'variable', name: later('variable'), is: 'text', first: 'count' },
      { key: 'to', name: later('to'), is: 'text', first: '0', numbers: true }
    ]
  },
  { id: 'stop', name: later('stop the run'), fields: [] }
];
const BY_ID = new Map(WHATS.map((w) => [w.id, w]));
export const whatOf = (id: string): What => BY_ID.get(id)!;
/** What is done to the run itself, and to no device in it. */
export const OF_THE_RUN: ReadonlySet<string> = new Set(['set', 'stop']);

const firstOf = (f: Field): Cell => {
  if (f.is === 'choice') return f.of[0];
  return f.is === 'flag' ? true : f.first;
};
/** A row of another kind at the same moment, with what is usual. */
export const freshRow = (tUs: number, what = 'press', to?: string): Row => ({
  tUs,
  what,
  cells: Object.fromEntries(whatOf(what).fields.map((f) => [f.key, firstOf(f)])),
  ...(to && !OF_THE_RUN.has(what) ? { to } : {})
});
export function rowOf({ tUs, input, to }: TimedInput): Row {
  const what = WHATS.find((w) => w.id in input)!;
  const held = (what.within ? (input as Record<string, unknown>)[what.id] : input) as Record<string, Cell>;
  return {
    tUs,
    what: what.id,
    cells: Object.fromEntries(
      what.fields.map((f) => {
        const value = held[f.key];
        return [
          f.key,
          f.is === 'text' && f.numbers && typeof value !== 'boolean' && value !== undefined ? asTyped(value) : value
        ];
      })
    ),
    ...(to ? { to } : {})
  };
}
/** The input that a row stands for; a text that looks like a number is one where numbers are taken. */
export function inputOf({ tUs, what, cells, to }: Row): TimedInput {
  const { id, within, fields } = whatOf(what);
  const held: Record<string, Cell> = {};
  for (const f of fields) {
    const cell = cells[f.key];
    if (cell === undefined || (cell === '' && f.is === 'text' && f.first === undefined)) continue;
    held[f.key] = f.is === 'text' && f.numbers && typeof cell === 'string' ? typedValue(cell) : cell;
  }
  const input = (fields.length === 0 ? { [id]: true } : within ? { [id]: held } : held) as Input;
  return { tUs, input, ...(to ? { to } : {}) };
}
