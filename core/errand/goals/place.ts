/** Goals of where it is: in a hoop, through a hoop, back where it began, facing some way. */
import { later, retell, say } from '../../words.ts';
import { headingAt } from '../../units.ts';
import { shortWay, speeds, STILL_CM_S, valueAt } from '../../trace/findings/finding.ts';
import { sampleAt, tickAt, travelled } from '../../trace/query.ts';
import { channel, type Trace } from '../../trace/trace.ts';
import type { Mat } from '../../yard/mat.ts';
import { defineGoal, isOver, met, num, sec, wanting, type Drawn, type Field, type Look, type Result } from '../goal.ts';

const STEP_US = 10_000;
const hoop: Field = { type: 'hoop', label: later('Hoop') };
const beyond = {
  type: 'number',
  label: later('as much beyond its edge'),
  unit: 'cm',
  min: 0,
  max: 100,
  first: 0
} as const;
type Place = { x: number; y: number; facing: number };
function placeAt(trace: Trace, tUs: number): Place {
  const { start } = trace.header.run;
  if (tUs < 1000 || trace.ticks === 0) return { x: start.x, y: start.y, facing: start.facingDeg };
  const of = (key: string): number => valueAt(trace, key, tUs);
  return { x: of('x'), y: of('y'), facing: of('facing') };
}
/** When it came to rest for good, up to a moment; that moment itself while it moves. */
export function restUs(trace: Trace, toUs: number): number {
  const wheels = speeds(trace).map((key) => channel(trace, key)!);
  const moves = (tick: number): boolean => wheels.some((c) => Math.abs(sampleAt(c, tick)) > STILL_CM_S);
  let tick = tickAt(toUs, trace.ticks);
  while (tick >= 0 && !moves(tick)) tick--;
  return Math.min(toUs, (tick + 1) * 1000);
}
const moving = (trace: Trace, toUs: number): boolean => restUs(trace, toUs) >= Math.min(toUs, trace.ticks * 1000);

type Ring = { x: number; y: number; radius: number };
const ringOf = (mat: Mat, name: string): Ring | undefined => mat.hoops.find((h) => h.name === name);
const noRing = (name: string): Result => ({
  state: 'missed',
  says: say('The mat has no hoop that is called {name}.', { name })
});
/** cm from the middle of the device to the edge of the ring, and beyond it; less than 0 inside. */
const off = (p: { x: number; y: number }, ring: Ring, within: number): number => {
  const [dx, dy] = [ring.x - p.x, ring.y - p.y];
  return (Math.sqrt(dx * dx + dy * dy) - ring.radius) * 100 - within;
};
/** Which side of the ring it is on, by the way that it faces. */
function sideOf(p: Place, ring: Ring): 'short' | 'past' | 'left' | 'right' {
  const angle = (p.facing * Math.PI) / 180;
  const [dx, dy] = [ring.x - p.x, ring.y - p.y];
  const ahead = dx * Math.sin(angle) + dy * Math.cos(angle);
  const right = dx * Math.cos(angle) - dy * Math.sin(angle);
  if (Math.abs(ahead) >= Math.abs(right)) return ahead > 0 ? 'short' : 'past';
  return right > 0 ? 'left' : 'right';
}
const draws = ({ hoop: name, within }: { hoop: string; within: number }, mat: Mat): Drawn[] => {
  const ring = ringOf(mat, name);
  return ring ? [{ x: ring.x, y: ring.y, radius: ring.radius + within / 100 }] : [];
};
const needs = ({ hoop: name }: { hoop: string }): { hoop: string } => ({ hoop: name });

export const stop = defineGoal({
  kind: 'stop',
  label: later('stops in a hoop'),
  fields: { hoop, within: beyond },
  words: ({ hoop: name }) => say('Stop in the hoop {name}', { name }),
  draws,
  needs,
  check: ({ hoop: name, within }, look) => {
    const ring = ringOf(look.mat, name);
    if (!ring) return noRing(name);
    const { trace, toUs } = look;
    const place = placeAt(trace, toUs);
    const cm = off(place, ring, within);
    if (!isOver(look)) {
      const words = { cm: num(Math.max(0, cm)) };
      const past = cm > 0 && sideOf(place, ring) === 'past';
      return { state: 'open', says: past ? say('{cm} cm past it', words) : say('{cm} cm to go', words) };
    }
    const atUs = restUs(trace, toUs);
    const at = { x: place.x, y: place.y };
    if (moving(trace, toUs))
      return { state: 'missed', says: say('It was still moving when the run ended.'), atUs: toUs, at };
    if (cm <= 0) return met(atUs, { at });
    const words = { cm: num(cm), name, s: sec(atUs) };
    const says = {
      short: () => say('Stopped {cm} cm short of the hoop {name}, at {s} s.', words),
      past: () => say('Stopped {cm} cm past the hoop {name}, at {s} s.', words),
      left: () => say('Stopped {cm} cm to the left of the hoop {name}, at {s} s.', words),
      right: () => say('Stopped {cm} cm to the right of the hoop {name}, at {s} s.', words)
    }[sideOf(place, ring)]();
    return { state: 'missed', says, atUs, at, off: { amount: cm, unit: 'cm' } };
  }
});

export const pass = defineGoal({
  kind: 'pass',
  label: later('passes a hoop'),
  fields: { hoop, within: beyond },
  words: ({ hoop: name }) => say('Pass the hoop {name}', { name }),
  draws,
  needs,
  check: ({ hoop: name, within }, look) => {
    const ring = ringOf(look.mat, name);
    if (!ring) return noRing(name);
    let nearest = { cm: Infinity, tUs: look.fromUs };
    // once more: it has to have left
    let inside = !!look.anew;
    for (let t = look.fromUs; t <= look.toUs; t += STEP_US) {
      const cm = off(placeAt(look.trace, t), ring, within);
      inside &&= cm <= 0;
      if (inside) continue;
      if (cm <= 0) return met(t, { at: placeAt(look.trace, t) });
      if (cm < nearest.cm) nearest = { cm, tUs: t };
    }
    if (inside) return wanting(look, say('It did not leave the hoop {name} to come once more.', { name }));
    return wanting(
      look,
      say('It came no nearer to the hoop {name} than {cm} cm, at {s} s.', {
        name,
        cm: num(nearest.cm),
        s: sec(nearest.tUs)
      }),
      { atUs: nearest.tUs, at: placeAt(look.trace, nearest.tUs), off: { amount: nearest.cm, unit: 'cm' } }
    );
  }
});

/** To face some way at the end: by the heading that blocks say, from how it faced at the start; or by the mat. */
const facing = <K extends string>(
  kind: K,
  label: string,
  words: (deg: string, within: string) => string,
  byMat: boolean
) =>
  defineGoal({
    kind,
    label,
    fields: {
      deg: { type: 'number', label: later('Heading'), unit: '°', min: -360, max: 360, first: 90 },
      within: { type: 'number', label: later('give or take'), unit: '°', min: 0.5, max: 90, first: 5 }
    },
    words: ({ deg, within }) => words(num(deg), num(within)),
    check: ({ deg, within }, look) => {
      const { trace, toUs } = look;
      const place = placeAt(trace, toUs);
      const faces = place.facing - (byMat ? 0 : trace.header.run.start.facingDeg);
      const by = shortWay(faces - deg);
      const now = num(headingAt(faces, 1));
      if (!isOver(look)) return { state: 'open', says: say('It faces {facing}°', { facing: now }) };
      const atUs = restUs(trace, toUs);
      if (Math.abs(by) <= within) return met(atUs, { at: place });
      return {
        state: 'missed',
        says: say('It faces {facing}° instead of {deg}°: {by}° too far {side}.', {
          facing: now,
          deg: num(headingAt(deg, 1)),
          by: num(Math.abs(by)),
          side: by > 0 ? say('clockwise') : say('anticlockwise')
        }),
        atUs,
        at: place,
        off: { amount: Math.abs(by), unit: '°' }
      };
    }
  });
export const faces = facing(
  'faces',
  later('faces some way at the end'),
  (deg, within) => say('Face {deg}° at the end, give or take {within}°', { deg, within }),
  false
);
/** As errands had it before: clockwise from the top of the mat. It is read, and not offered any more. */
export const facesOnMat = facing(
  'heading',
  later('faces some way on the mat at the end'),
  (deg, within) => say('Face {deg}° on the mat at the end (0° is up), give or take {within}°', { deg, within }),
  true
);

export const closes = defineGoal({
  kind: 'closes',
  label: later('ends where it began'),
  fields: {
    within: { type: 'number', label: later('give or take'), unit: 'cm', min: 0.5, max: 100, first: 5 },
    way: { type: 'number', label: later('after a way of at least'), unit: 'cm', min: 0, max: 5000, first: 50 }
  },
  words: ({ within, way }) =>
    say('End where you began, give or take {within} cm, after at least {way} cm', {
      within: num(within),
      way: num(way)
    }),
  check: ({ within, way }, look) => {
    const { trace, toUs } = look;
    const { start } = trace.header.run;
    const place = placeAt(trace, toUs);
    const [dx, dy] = [place.x - start.x, place.y - start.y];
    const gap = Math.sqrt(dx * dx + dy * dy) * 100;
    const gone = travelled(trace, toUs) * 100;
    if (!isOver(look)) return { state: 'open', says: say('{cm} cm to go', { cm: num(gap) }) };
    const atUs = restUs(trace, toUs);
    if (gone < way)
      return {
        state: 'missed',
        says: say('It went {gone} cm only.', { gone: num(gone) }),
        atUs,
        at: place,
        off: { amount: way - gone, unit: 'cm' }
      };
    if (gap <= within) return met(atUs, { at: place });
    return {
      state: 'missed',
      says: say('It ended {gap} cm away from where it began, at {s} s.', { gap: num(gap), s: sec(atUs) }),
      atUs,
      at: place,
      off: { amount: gap - within, unit: 'cm' }
    };
  }
});

export const touchNothing = defineGoal({
  kind: 'touch-nothing',
  label: later('touches nothing'),
  fields: {},
  words: () => say('Touch nothing'),
  check: (_, look) => {
    const first = look.trace.events.find((e) => e.type === 'touch' && e.tUs >= look.fromUs && e.tUs <= look.toUs);
    if (first?.type === 'touch')
      return {
        state: 'missed',
        says: say('It touched {what} at {s} s.', { what: retell(first.what), s: sec(first.tUs) }),
        atUs: first.tUs,
        at: { x: first.x, y: first.y }
      };
    return { state: isOver(look) ? 'met' : 'holds', says: say('nothing touched') };
  }
});

/** Motion is smoothed over so many ms: a tick alone is a jolt that no pan feels. */
const SMOOTH = 20;
export const steady = defineGoal({
  kind: 'steady',
  label: later('sways little'),
  fields: { g: { type: 'number', label: later('sideways at the most'), unit: 'g', min: 0.01, max: 4, first: 0.3 } },
  words: ({ g }) => say('Sideways never more than {g} g', { g: num(g, 2) }),
  check: ({ g }, look) => {
    const c = channel(look.trace, 'accelX');
    if (!c) return { state: 'missed', says: say('This device has no motion sensor.') };
    const [from, to] = [Math.ceil(look.fromUs / 1000), Math.min(look.trace.ticks, Math.floor(look.toUs / 1000))];
    let sum = 0;
    let most = { g: 0, tUs: look.fromUs };
    for (let tick = from; tick < to; tick++) {
      sum += sampleAt(c, tick);
      if (tick - SMOOTH >= from) sum -= sampleAt(c, tick - SMOOTH);
      const mean = Math.abs(sum / SMOOTH);
      if (mean > most.g) most = { g: mean, tUs: (tick + 1) * 1000 };
    }
    const words = { most: num(most.g, 2), s: sec(most.tUs), g: num(g, 2) };
    if (most.g > g)
      return {
        state: 'missed',
        says: say('Sideways it came to {most} g at {s} s; {g} g are allowed.', words),
        atUs: most.tUs,
        at: placeAt(look.trace, most.tUs),
        off: { amount: most.g - g, unit: 'g' }
      };
    return { state: isOver(look) ? 'met' : 'holds', says: say('at the most {most} g', words) };
  }
});

export const under = defineGoal({
  kind: 'under',
  label: later('is done in a time'),
  fields: { s: { type: 'number', label: later('Time'), unit: 's', min: 0.1, max: 600, first: 20 } },
  words: ({ s }) => say('In under {s} s', { s: num(s) }),
  check: ({ s }, look) => {
    const lastUs = isOver(look) ? doneUs(look) : look.toUs;
    if (lastUs > s * 1e6)
      return {
        state: 'missed',
        says: say('It took {took} s.', { took: sec(lastUs) }),
        atUs: Math.round(s * 1e6),
        off: { amount: lastUs / 1e6 - s, unit: 's' }
      };
    return isOver(look) ? met(lastUs) : { state: 'open', says: say('{s} s are left', { s: num(s - lastUs / 1e6) }) };
  }
});
/** When the last block was over and it stood still. */
function doneUs({ trace, toUs }: Look): number {
  const { spans } = trace;
  let last = 0;
  for (let row = 0; row < spans.count; row++) last = Math.max(last, Math.min(spans.end[row] || toUs, toUs));
  return Math.max(last, restUs(trace, toUs));
}
