/** What the kit sheet asks of each kind of part: beside it in the list, and in lines below. */
import { currentOf, LED_COLOURS, PIN_A, rightOhm } from '../circuit/led.ts';
import { later, say, word } from '../words.ts';
import type { Part } from './kit.ts';
import type { PartOf } from './parts/part.ts';

/** One thing that is asked: `aria` names it to the ear, `change` in the list of what can be undone. */
type Asked<P, V> = {
  aria: (part: P) => string;
  title?: string;
  change: string;
  of: (part: P) => V;
  put: (value: V, part: P) => Partial<P>;
};
export type Ask<P> =
  | (Asked<P, string> & { type: 'choice'; options: () => readonly (readonly [value: string, says: string])[] })
  | (Asked<P, number> & { type: 'number'; min: number; max: number });
export type Row<P> = {
  label: (part: P) => string;
  asks: readonly Ask<P>[];
  unit?: string;
  /** a number that follows, and whether it is too much; after the units, or alone */
  told?: (part: P) => { text: string; isTooMuch: boolean };
};
export type Form<P> = {
  /** how it is mounted, asked beside its name */
  mounted?: { label?: string; ask: Ask<P>; unit?: string };
  rows?: (part: P) => readonly Row<P>[];
};
const named =
  (english: string) =>
  ({ name }: Part): string =>
    say(english, { name });
/** An angle within which the horn is free; at its end nothing is in the way. */
const freeTo = (key: 'freeFromDeg' | 'freeToDeg', end: number, english: string): Ask<PartOf<'servo'>> => ({
  type: 'number',
  aria: named(english),
  change: later('what is in the way of the horn'),
  min: 0,
  max: 180,
  of: (part) => part[key] ?? end,
  put: (n) => ({ [key]: n === end ? undefined : n })
});
export const FORMS: { readonly [T in Part['type']]: Form<PartOf<T>> } = {
  motor: {
    mounted: {
      ask: {
        type: 'choice',
        aria: named(later('How the {name} is mounted')),
        change: later('change the mounting'),
        options: () => [
          ['normal', say('normal')],
          ['mirrored', say('mirrored')]
        ],
        of: (part) => part.mounted ?? 'normal',
        put: (value) => ({ mounted: value as 'normal' })
      }
    }
  },
  servo: {
    mounted: {
      label: later('horn'),
      unit: '°',
      ask: {
        type: 'number',
        aria: named(later('Horn of the {name}, degrees')),
        change: later('turn the horn'),
        min: -90,
        max: 90,
        of: (part) => part.hornDeg ?? 0,
        put: (hornDeg) => ({ hornDeg })
      }
    },
    rows: () => [
      {
        label: named(later('plug of the {name}')),
        asks: [
          {
            type: 'choice',
            aria: named(later('Plug of the {name}')),
            title: later('Which way round its plug is put in'),
            change: later('turn the plug'),
            options: () => [
              ['right', say('the right way round')],
              ['wrong', say('the wrong way round')]
            ],
            of: (part) => part.plug ?? 'right',
            put: (value) => ({ plug: value as 'right' })
          }
        ]
      },
      {
        label: named(later('the {name} is free from, to')),
        unit: '°',
        asks: [
          freeTo('freeFromDeg', 0, later('The {name} is free from')),
          freeTo('freeToDeg', 180, later('The {name} is free to'))
        ]
      }
    ]
  },
  spin: {},
  line: {},
  distance: {},
  colour: {},
  lamp: {
    rows: ({ ohm }) => [
      {
        label: named(later('in the socket of the {name}')),
        asks: [
          {
            type: 'choice',
            aria: ({ socket }) => say('What sits in {socket}', { socket }),
            change: later('change the lamp'),
            options: () => [
              ['', say('a lamp with its own resistor')],
              ...LED_COLOURS.map((c) => [c, say('a bare LED, {colour}', { colour: word(c) })] as const)
            ],
            of: (part) => (part.ohm === undefined ? '' : (part.colour ?? 'red')),
            put: (value, part) => {
              const colour = LED_COLOURS.find((c) => c === value);
              return { colour, ohm: colour && (part.ohm ?? rightOhm(colour)) };
            }
          }
        ]
      },
      ...(ohm === undefined
        ? []
        : ([
            {
              label: () => say('resistor before it'),
              unit: 'Ω',
              asks: [
                {
                  type: 'number',
                  aria: () => say('Resistor before the LED'),
                  change: later('another resistor'),
                  min: 0,
                  max: 1e6,
                  of: (part) => part.ohm ?? 0,
                  put: (n) => ({ ohm: n })
                }
              ]
            },
            {
              label: () => say('current through it'),
              asks: [],
              told: (part) => {
                const ampere = currentOf(part) ?? 0;
                return { text: `${(ampere * 1000).toFixed(1)} mA`, isTooMuch: ampere > PIN_A };
              }
            }
          ] satisfies Row<PartOf<'lamp'>>[]))
    ]
  }
};
export const formOf = (part: Part): Form<Part> => FORMS[part.type] as unknown as Form<Part>;
