/**
 * What was asked and what came of it, for all that a run measures: moves, servos, tones, messages. Pictures that nobody can
 * see are a finding of their own. Where a run has no findings, "it did what it was asked" is said only where every one of these came as asked.
 */
import type { Kit } from '../../kit/kit.ts';
import { allSteps, type Program } from '../../language/program.ts';
import { figure } from '../../units.ts';
import { retell, say, word } from '../../words.ts';
import { eventsOf } from '../apart.ts';
import { nextOf } from './finding.ts';
import { askedAndGot, sampleAt, tickAt, type Asked } from '../query.ts';
import { channel, endUs, type Trace } from '../trace.ts';

export type Came = {
  what: string;
  asked: string;
  got: string;
  /** where it came to rest elsewhere than where it was over */
  rest: string;
  off: string;
  asAsked: boolean;
  tUs: number;
  block?: string;
};

/** Beyond this a difference of a move is told: 2 %, and what nobody would see is left out. */
const UNSEEN: Readonly<Record<string, number>> = { cm: 0.3, '°': 1, turns: 0.05, s: 0.05 };
export const worthTelling = (m: Asked): boolean =>
  Math.abs(m.rest - m.asked) > Math.max(0.02 * Math.abs(m.asked), UNSEEN[m.unit] ?? 0);
/** A servo's horn is where it was asked to be within this, degrees; it is asked for so long before that is looked at, µs. */
const HORN_DEG = 3;
const SERVO_US = 200_000;
/** A tone that another one takes the place of is told where so much of it is missing, µs. */
const TONE_US = 20_000;

const two = (n: number): string => figure(n, 2);

export function whatCame(trace: Trace, kit: Kit, program?: Program): Came[] {
  const out = [...moves(trace), ...servos(trace, kit), ...tones(trace), ...messages(trace, program)];
  return out.sort((a, b) => a.tUs - b.tUs);
}
const moves = (trace: Trace): Came[] =>
  askedAndGot(trace).map((m) => {
    const unit = word(m.unit);
    return {
      what: retell(m.what) + (m.ended === 'done' ? '' : `, ${word(m.ended)}`),
      asked: `${two(m.asked)} ${unit}`,
      got: `${two(m.got)} ${unit}`,
      rest: Math.abs(m.rest - m.got) < 0.05 ? '' : `${two(m.rest)} ${unit}`,
      off: `${two(m.rest - m.asked)} ${unit}`,
      asAsked: m.ended === 'done' && !worthTelling(m),
      tUs: m.toUs,
      block: m.block
    };
  });
function servos(trace: Trace, kit: Kit): Came[] {
  const asked = eventsOf(trace, 'servo').flatMap((e) => ('angle' in e ? [e] : []));
  return asked.flatMap((e, i): Came[] => {
    const c = channel(trace, `servo${e.socket}`);
    const untilUs = nextOf(asked, i, (n) => n.socket === e.socket)?.tUs ?? endUs(trace);
    // what follows a stick is asked for something else all the time
    if (!c || untilUs - e.tUs < SERVO_US) return [];
    const got = sampleAt(c, tickAt(untilUs, trace.ticks));
    return [
      {
        what: kit.parts.find((p) => p.socket === e.socket)?.name ?? e.socket,
        asked: `${two(e.angle)} °`,
        got: `${two(got)} °`,
        rest: '',
        off: `${two(got - e.angle)} °`,
        asAsked: Math.abs(got - e.angle) <= HORN_DEG,
        tUs: e.tUs,
        block: e.block
      }
    ];
  });
}
function tones(trace: Trace): Came[] {
  const all = eventsOf(trace, 'tone');
  return all.flatMap((e, i): Came[] => {
    if (e.seconds === undefined || e.hertz === 0) return [];
    const heard = Math.min(e.seconds, ((all[i + 1]?.tUs ?? Infinity) - e.tUs) / 1e6);
    if ((e.seconds - heard) * 1e6 <= TONE_US) return [];
    return [
      {
        what: say('a tone of {hertz} Hz', { hertz: Math.round(e.hertz) }),
        asked: `${two(e.seconds)} s`,
        got: `${two(heard)} s`,
        rest: '',
        off: `${two(heard - e.seconds)} s`,
        asAsked: false,
        tUs: e.tUs,
        block: e.block
      }
    ];
  });
}
function messages(trace: Trace, program: Program | undefined): Came[] {
  const asks = [...(program ? allSteps(program) : [])].some((s) => s.kind === 'sense.message');
  if (asks) return [];
  const began = eventsOf(trace, 'began');
  return eventsOf(trace, 'message').flatMap((e): Came[] => {
    // whether another device nearby heard it is its own run's to tell
    if (e.nearby || began.some((s) => s.tUs >= e.tUs && s.trigger === `message ${e.name}`)) return [];
    const what = say('the message "{name}"', { name: e.name });
    return [
      {
        what,
        asked: say('heard'),
        got: say('not heard'),
        rest: '',
        off: '',
        asAsked: false,
        tUs: e.tUs,
        block: e.block
      }
    ];
  });
}
