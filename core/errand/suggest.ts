/**
 * Goals by example: what a run did, each thing of it as a goal that this run meets, with a tolerance. Who makes an errand
 * rehearses the model and takes up what matters.
 */
import { noteOf } from '../language/notes.ts';
import type { Program } from '../language/program.ts';
import { eventsOf, lampsOf } from '../trace/apart.ts';
import { sampleAt, stateAt, travelled } from '../trace/query.ts';
import { stretches } from '../trace/stretches.ts';
import { endUs, type Trace } from '../trace/trace.ts';
import { headingAt } from '../units.ts';
import type { Mat } from '../yard/mat.ts';
import { say } from '../words.ts';
import { num, sec } from './goal.ts';
import { countBlocks } from './goals/built.ts';
import { restUs } from './goals/place.ts';
import { checkGoal, type Goal } from './goals.ts';

type Hoop = Mat['hoops'][number];
export type Suggestion = {
  says: string;
  goal: Goal;
  /** when it came to be */
  atUs?: number;
  /** a hoop that has to lie there first */
  hoop?: Hoop;
};
/** A hoop that is laid has this radius, m: a little more than the machine is long is easy, this takes some care. */
export const HOOP = 0.06;
/** It must be seen for so much of the time that it was seen, and no less than what an eye wants, s. */
const SHARE = 0.8;
const SEEN = 0.1;
const SERVO_DEG = 5;
/** A way this long is one, cm. */
const WAY = 5;

/** A name that no hoop of the mat has. */
export function freeName(mat: Mat, wish: string): string {
  let name = wish;
  for (let n = 2; mat.hoops.some((h) => h.name === name); n++) name = `${wish} ${n}`;
  return name;
}
const holding = (mat: Mat, x: number, y: number): Hoop | undefined =>
  mat.hoops.find((h) => (h.x - x) * (h.x - x) + (h.y - y) * (h.y - y) <= h.radius * h.radius);
const tidy = (v: number): number => Math.round(v * 1000) / 1000;

/** To be in a hoop at some moment, or to stop in it at the end: the hoop that is there, or a new one. */
export function placeGoal(trace: Trace, mat: Mat, atUs: number): Suggestion {
  const atEnd = atUs >= restUs(trace, endUs(trace));
  const { x, y } = stateAt(trace, atUs);
  const there = holding(mat, x, y);
  const hoop: Hoop = there ?? { x: tidy(x), y: tidy(y), radius: HOOP, name: freeName(mat, say('goal')) };
  return {
    says: atEnd ? say('stops here') : say('passes here'),
    goal: { kind: atEnd ? 'stop' : 'pass', hoop: hoop.name, within: 0 },
    atUs,
    ...(there ? {} : { hoop })
  };
}

function places(trace: Trace, mat: Mat): Suggestion[] {
  const end = endUs(trace);
  const way = travelled(trace) * 100;
  if (way < WAY) return [];
  const { start } = trace.header.run;
  const rest = restUs(trace, end);
  const { x, y, facingDeg } = stateAt(trace, end);
  const gap = Math.sqrt((x - start.x) * (x - start.x) + (y - start.y) * (y - start.y)) * 100;
  // to stop in a hoop says more than to pass it
  const out: Suggestion[] = mat.hoops
    .filter((h) => h !== holding(mat, x, y))
    .map(({ name }) => ({
      says: say('passes the hoop {name}', { name }),
      goal: { kind: 'pass', hoop: name, within: 0 }
    }));
  if (gap < way / 4)
    out.push({
      says: say('ends where it began, after {way} cm', { way: num(way) }),
      goal: { kind: 'closes', within: Math.max(5, Math.ceil(gap + 1)), way: Math.floor(way * SHARE) },
      atUs: rest
    });
  else out.push({ ...placeGoal(trace, mat, end), atUs: rest });
  const facing = headingAt(facingDeg - start.facingDeg, 0);
  out.push(
    {
      says: say('faces {deg}° at the end', { deg: facing }),
      goal: { kind: 'faces', deg: facing, within: 5 },
      atUs: rest
    },
    { says: say('touches nothing'), goal: { kind: 'touch-nothing' } }
  );
  return out;
}
function shown(trace: Trace): Suggestion[] {
  const whole = { fromUs: 0, toUs: endUs(trace) };
  const displays = eventsOf(trace, 'display').map((e) => ({ tUs: e.tUs, what: e.picture }));
  const out: Suggestion[] = stretches(displays, '', whole)
    .filter(({ what, fromUs, toUs }) => what.includes('#') && (toUs - fromUs) / 1e6 >= SEEN)
    .map(({ what, fromUs, toUs }) => ({
      says: say('shows a picture for {s} s', { s: sec(toUs - fromUs) }),
      goal: {
        kind: 'shows',
        picture: what,
        seconds: Math.max(SEEN, Math.min(60, Math.floor(((toUs - fromUs) / 1e6) * SHARE * 10) / 10))
      },
      atUs: fromUs
    }));
  for (const [lamp, changes] of lampsOf(trace)) {
    const lit = stretches(
      changes.map((e) => ({ tUs: e.tUs, what: e.on && e.level !== 0 })),
      false,
      whole
    );
    const first = lit.findIndex((s) => s.what);
    // what goes on to the end of the run is as long as the run
    const times = lit.slice(first, -1).map((s) => num((s.toUs - s.fromUs) / 1e6, 2));
    if (first >= 0 && times.length && times.every((t) => Number(t) >= 0.02 && Number(t) <= 60))
      out.push({
        says: say('the lamp {lamp} goes on and off', { lamp }),
        goal: { kind: 'blinks', lamp, times: times.slice(0, 20).map(Number), within: 0.1 },
        atUs: lit[first].fromUs
      });
  }
  return out;
}
function heard(trace: Trace): Suggestion[] {
  const tones = eventsOf(trace, 'tone').filter((e) => e.hertz > 0);
  const out: Suggestion[] = [];
  if (tones.length)
    out.push({
      says: say('plays {n, plural, one {# tone} other {# tones}}', { n: tones.length }),
      goal: {
        kind: 'plays',
        notes: tones
          .slice(0, 20)
          .map((e) => noteOf(e.hertz).name)
          .join(' ')
      },
      atUs: tones[0].tUs
    });
  for (const { text, tUs } of eventsOf(trace, 'log').slice(0, 6))
    if (text.trim())
      out.push({
        says: say('logs "{text}"', { text }),
        goal: { kind: 'logs', text: text.trim().slice(0, 200) },
        atUs: tUs
      });
  for (const { name, tUs } of eventsOf(trace, 'message').slice(0, 6))
    out.push({ says: say('sends the message {name}', { name }), goal: { kind: 'sends', message: name }, atUs: tUs });
  return out;
}
/** Angles at which a servo rested, in turn. */
function swung(trace: Trace): Suggestion[] {
  const RESTS = 150;
  return trace.channels.flatMap((c): Suggestion[] => {
    const [, servo] = /^servo(.+)$/.exec(c.key) ?? [];
    if (!servo || !trace.ticks) return [];
    const angles: number[] = [];
    let [since, at] = [0, sampleAt(c, 0)];
    for (let tick = 1; tick < trace.ticks; tick++) {
      const deg = sampleAt(c, tick);
      if (Math.abs(deg - at) > 1) [since, at] = [tick, deg];
      else if (tick - since === RESTS && Math.abs((angles.at(-1) ?? Infinity) - at) > SERVO_DEG)
        angles.push(Math.round(at));
    }
    return angles.length < 2
      ? []
      : [
          {
            says: say('the servo on {servo} swings', { servo }),
            goal: { kind: 'swings', servo, angles: angles.slice(0, 12), within: SERVO_DEG }
          }
        ];
  });
}
function built(program: Program, trace: Trace): Suggestion[] {
  const n = countBlocks(program);
  const end = endUs(trace);
  return [
    ...(n
      ? [{ says: say('has {n, plural, one {# block} other {# blocks}}', { n }), goal: { kind: 'few', most: n } }]
      : []),
    ...['loop', 'routine', 'variable'].map((what) => ({ says: '', goal: { kind: 'uses', what } })),
    {
      says: say('is done in {s} s', { s: sec(end) }),
      goal: { kind: 'under', s: Math.min(600, Math.ceil((end / 1e6) * 1.25)) }
    }
  ];
}

/** What a run did, in turn, as goals: each of them this run meets. What was meant with the run's mat and program. */
export function suggested(trace: Trace, mat: Mat, program?: Program): Suggestion[] {
  const all = [
    ...places(trace, mat),
    ...shown(trace),
    ...heard(trace),
    ...swung(trace),
    ...(program ? built(program, trace) : [])
  ];
  const look = { trace, program, fromUs: 0, toUs: endUs(trace) };
  return all
    .flatMap((one) => {
      const result = checkGoal(one.goal, { ...look, mat: one.hoop ? withHoop(mat, one.hoop) : mat });
      return result.state === 'met' ? [{ ...one, atUs: one.atUs ?? result.atUs }] : [];
    })
    .sort((a, b) => (a.atUs ?? Infinity) - (b.atUs ?? Infinity));
}
export const withHoop = (mat: Mat, hoop: Hoop): Mat => ({ ...mat, hoops: [...mat.hoops, hoop] });
