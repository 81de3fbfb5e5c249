/**
 * turned-the-other-way, drove-the-other-way, spun: what the wheels were told and what the robot did have another sense, in
 * measured moves, in wheels that simply run, and in motors that are run one by one.
 */
import { sideIn } from '../../language/facts.ts';
import { retell, say, word } from '../../words.ts';
import { eventsOf } from '../apart.ts';
import type { Asked } from '../query.ts';
import { endUs, type Trace, type TraceEvent } from '../trace.ts';
import {
  askedOf,
  blocksOf,
  eventOf,
  gotOf,
  movesSpan,
  one,
  speeds,
  turnedBetween,
  turnOf,
  wayOf,
  wentBetween,
  type Figure,
  type Found,
  type Rule
} from './finding.ts';

const swapped = (): string =>
  say('Look at the plugs of the two wheel motors, and at the kit sheet: each has the place of the other.');
const mounted = (): string => say('Look which way round the motors are mounted, and what the kit sheet says of it.');
/** So much has to come of it before it is judged: degrees, cm. */
const TURN_DEG = 25;
const WAY_CM = 5;

/** Whether a move went the other way round: then nothing else is to be said of it. */
export const wentOtherWay = (m: Asked): boolean =>
  m.ended === 'done' &&
  Math.abs(m.asked) > (m.unit === '°' ? 5 : 2) &&
  m.got * Math.sign(m.asked) < -0.5 * Math.abs(m.asked);

function ofMove(trace: Trace, m: Asked): Found[] {
  if (!wentOtherWay(m)) return [];
  const asked = {
    what: retell(m.what),
    asked: one(m.asked),
    got: one(Math.abs(m.got)),
    unit: word(m.unit)
  };
  const figures = [askedOf(m), gotOf(m)];
  if (m.unit === '°')
    return [
      {
        rule: 'turned-the-other-way',
        weight: 92,
        says: say('{what}: asked {asked} °, and it turned {got} ° the other way: left and right are swapped.', asked),
        todo: swapped(),
        figures,
        ...movesSpan(trace, m)
      }
    ];
  return [
    {
      rule: 'drove-the-other-way',
      weight: 92,
      says: say('{what}: asked {asked} {unit}, and it went {got} {unit} the other way.', asked),
      todo: mounted(),
      figures,
      ...movesSpan(trace, m)
    }
  ];
}
/** What each wheel was told, percent, while nothing else was commanded. */
type Told = {
  left: number;
  right: number;
  fromUs: number;
  toUs: number;
  blocks: string[];
  byMotors: boolean;
  commands: readonly Figure[];
};
function* told(trace: Trace): Generator<Told> {
  let now: (Omit<Told, 'left' | 'right' | 'toUs'> & Partial<Pick<Told, 'left' | 'right'>>) | undefined;
  const sides = new Map<string, 'left' | 'right'>();
  for (const [key, side] of Object.entries(trace.header.wheels ?? {})) sides.set(side, key as 'left');
  const close = function* (toUs: number): Generator<Told> {
    if (now?.left !== undefined && now.right !== undefined) yield { ...now, left: now.left, right: now.right, toUs };
  };
  for (const e of trace.events as TraceEvent[]) {
    if (e.type === 'wheels') {
      yield* close(e.tUs);
      now =
        e.how === 'power'
          ? {
              left: e.left,
              right: e.right,
              fromUs: e.tUs,
              blocks: blocksOf(e),
              byMotors: false,
              commands: [eventOf(e, 'left'), eventOf(e, 'right')]
            }
          : undefined;
    } else if (e.type === 'motor') {
      const side = sides.get(e.socket);
      if (!side) continue;
      yield* close(e.tUs);
      now =
        e.how === 'power'
          ? {
              ...(now?.byMotors ? now : {}),
              [side]: e.power,
              fromUs: e.tUs,
              blocks: [...(now?.byMotors ? now.blocks : []), ...blocksOf(e)].slice(-2),
              commands: [...(now?.byMotors ? now.commands : []), eventOf(e, 'power')].slice(-2),
              byMotors: true
            }
          : undefined;
    } else if (
      e.type === 'move' ||
      e.type === 'touch' ||
      e.type === 'tipped' ||
      (e.type === 'input' && !e.to && byHand(e.input))
    ) {
      yield* close(e.tUs);
      now = undefined;
    }
  }
  yield* close(endUs(trace));
}
const byHand = (input: object): boolean => 'lift' in input || 'push' in input || 'carry' in input;

function ofTold(trace: Trace, { left, right, fromUs, toUs, blocks, byMotors, commands }: Told): Found[] {
  const turned = turnedBetween(trace, fromUs, toUs);
  const { ahead, cm } = wentBetween(trace, fromUs, toUs);
  const span = { blocks, fromUs, toUs, lanes: ['heading', ...speeds(trace)] };
  const figures = [...commands, turnOf(trace, fromUs, toUs)];
  const turns = left - right;
  const drives = left + right;
  const words = { left, right, deg: one(Math.abs(turned)), cm: one(cm) };
  // both the same way, and it turned on the spot
  if (
    left * right > 0 &&
    Math.abs(turns) < Math.abs(drives) / 4 &&
    Math.abs(turned) > 3 * TURN_DEG &&
    Math.abs(ahead) < WAY_CM
  )
    return [
      {
        rule: 'spun',
        weight: 91,
        says: say(
          'Both wheels were told {left} and {right} %, and the robot turned on the spot, by {deg} °: its motors turn against each other.',
          words
        ),
        todo: byMotors
          ? say('One of them is mounted mirrored: give it the other sign, or let it count mirrored.')
          : mounted(),
        figures,
        ...span
      }
    ];
  if (byMotors) return [];
  if (Math.abs(turns) >= 10 && turned * turns < 0 && Math.abs(turned) > TURN_DEG)
    return [
      {
        rule: 'turned-the-other-way',
        weight: 92,
        says:
          turns > 0
            ? say(
                'The wheels were told {left} and {right} %, so to the right, and it turned {deg} ° to the left: left and right are swapped.',
                words
              )
            : say(
                'The wheels were told {left} and {right} %, so to the left, and it turned {deg} ° to the right: left and right are swapped.',
                words
              ),
        todo: swapped(),
        figures,
        ...span
      }
    ];
  if (left * right > 0 && ahead * drives < 0 && Math.abs(ahead) > WAY_CM && Math.abs(turned) < TURN_DEG)
    return [
      {
        rule: 'drove-the-other-way',
        weight: 92,
        says: say('The wheels were told {left} and {right} %, and it went {cm} cm the other way.', words),
        todo: mounted(),
        figures: [...commands, wayOf(trace, fromUs, toUs)],
        ...span
      }
    ];
  return [];
}
/** Pushed so far a stick is meant, %; what comes of it is looked at for so long, µs. */
const PUSHED = 30;
const LOOKED_US = 1_500_000;
/** Keys that people pair for left and right. */
const PAIRS: readonly (readonly [left: string, right: string])[] = [
  ['Left', 'Right'],
  ['A', 'D'],
  ['J', 'L']
];
const COMMANDS = new Set(['wheels', 'motor', 'move', 'slide']);
/** A key that says left, and the robot turned right, however it was told to: by wheels, motors or a turn. */
function ofKeys(trace: Trace): Found[] {
  const out: Found[] = [];
  const { events } = trace;
  events.forEach((e, i) => {
    if (e.type !== 'input' || e.to || !('key' in e.input) || !e.input.down) return;
    const { key } = e.input;
    const pair = PAIRS.find((p) => (p as readonly string[]).includes(key));
    // an arrow says its side itself; letters are a pair where both are used
    if (!pair || (key.length === 1 && !usedBoth(trace, pair))) return;
    const at = events.findIndex((w, k) => k > i && COMMANDS.has(w.type));
    const told = events[at];
    if (!told || told.tUs - e.tUs >= 50_000) return;
    if ((told.type === 'wheels' || told.type === 'motor') && told.how !== 'power') return;
    const next = events.find(
      (w, k) => k > at && w.tUs - told.tUs > 5000 && (COMMANDS.has(w.type) || w.type === 'touch')
    );
    const toUs = next?.tUs ?? endUs(trace);
    const turned = turnedBetween(trace, told.tUs, toUs);
    if (Math.abs(turned) < 5 || turned > 0 === (key === pair[1])) return;
    const began = events.slice(i, at).find((b) => b.type === 'began');
    const words = { key, other: key === pair[0] ? pair[1] : pair[0], deg: one(Math.abs(turned)) };
    out.push({
      rule: 'key-other-way',
      weight: 60,
      says:
        key === pair[0]
          ? key.length > 1
            ? say('The key to the left was pressed, and the robot turned to the right, by {deg} °.', words)
            : say('The key {key}, left of {other}, was pressed, and the robot turned to the right, by {deg} °.', words)
          : key.length > 1
            ? say('The key to the right was pressed, and the robot turned to the left, by {deg} °.', words)
            : say('The key {key}, right of {other}, was pressed, and the robot turned to the left, by {deg} °.', words),
      todo: say('Change the two powers for one another, or the two keys.'),
      figures: [turnOf(trace, told.tUs, toUs)],
      blocks: [...new Set([...(began ? blocksOf(began) : []), ...blocksOf(told)])],
      fromUs: told.tUs,
      toUs,
      lanes: ['heading', ...speeds(trace)]
    });
  });
  return out;
}
/** A stick that was at rest and was pushed to a side, and the robot turned to the other one. */
function ofSticks(trace: Trace): Found[] {
  const was = new Map<string, number>();
  return eventsOf(trace, 'input').flatMap((e, i, all): Found[] => {
    if (e.to || !('stick' in e.input) || !e.input.stick.endsWith('left-right')) return [];
    const { stick, at } = e.input;
    const before = was.get(stick) ?? 0;
    was.set(stick, at);
    if (Math.abs(at) < PUSHED || Math.abs(before) >= PUSHED) return [];
    const toUs = Math.min(all[i + 1]?.tUs ?? Infinity, e.tUs + LOOKED_US, endUs(trace));
    const told = trace.events.find((w) => w.tUs >= e.tUs && w.tUs < toUs && COMMANDS.has(w.type));
    if (!told) return [];
    const turned = turnedBetween(trace, told.tUs, toUs);
    if (Math.abs(turned) < TURN_DEG || turned > 0 === at > 0) return [];
    const deg = one(Math.abs(turned));
    return [
      {
        rule: 'key-other-way',
        weight: 60,
        says:
          at < 0
            ? say('The stick was pushed to the left, and the robot turned to the right, by {deg} °.', { deg })
            : say('The stick was pushed to the right, and the robot turned to the left, by {deg} °.', { deg }),
        todo: say('Change the two powers for one another, or the sign of the stick.'),
        figures: [turnOf(trace, told.tUs, toUs)],
        blocks: blocksOf(told),
        fromUs: told.tUs,
        toUs,
        lanes: ['heading', ...speeds(trace)]
      }
    ];
  });
}
/** A mark of the program that names a side, and the turn right after it goes to the other one. */
const ofMarks = (trace: Trace): Found[] =>
  trace.events.flatMap((e, i): Found[] => {
    const side = e.type === 'mark' ? sideIn(e.text) : undefined;
    const told = side && trace.events.slice(i + 1, i + 4).find((w) => w.type === 'move');
    if (e.type !== 'mark' || !told || told.type !== 'move' || told.unit !== '°' || told.tUs - e.tUs > 50_000) return [];
    const goes = sideIn(told.what);
    if (!goes || goes === side) return [];
    return [
      {
        rule: 'key-other-way',
        weight: 60,
        says: say('The mark "{text}" names one side, and the turn after it goes to the other one.', { text: e.text }),
        todo: say('Change the side of the turn, or the words of the mark.'),
        blocks: [...blocksOf(e), ...blocksOf(told)],
        fromUs: e.tUs,
        toUs: told.tUs,
        lanes: ['heading', ...speeds(trace)]
      }
    ];
  });
/** Both keys of a pair do something in this run: one alone may mean anything. */
const usedBoth = ({ events }: Trace, pair: readonly string[]): boolean =>
  pair.every((key) => events.some((e) => e.type === 'input' && 'key' in e.input && e.input.key === key));

export const otherWay: Rule = ({ trace, moves }) => [
  ...moves.flatMap((m) => ofMove(trace, m)),
  ...[...told(trace)].flatMap((t) => ofTold(trace, t)),
  ...ofKeys(trace),
  ...ofSticks(trace),
  ...ofMarks(trace)
];
