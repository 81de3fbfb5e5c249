/** Goals of what is shown, heard, moved and said: pictures, lamps, tones, servos, the log, messages. */
import { playedNotes, noteOf, TEMPO } from '../../language/notes.ts';
import { eventsOf, lampsOf } from '../../trace/apart.ts';
import { sampleAt, volumeAt } from '../../trace/query.ts';
import { stretches, type Stretch } from '../../trace/stretches.ts';
import { channel } from '../../trace/trace.ts';
import { later, say } from '../../words.ts';
import { defineGoal, inLook, isOver, met, num, sec, wanting, type Look } from '../goal.ts';

const seconds = {
  type: 'number',
  label: later('for at least'),
  unit: 's',
  min: 0.02,
  max: 60,
  first: 0.5
} as const;

const pictures = (look: Look): Stretch<string>[] =>
  stretches(
    eventsOf(look.trace, 'display').map((e) => ({ tUs: e.tUs, what: e.picture })),
    '',
    look
  );
export const shows = defineGoal({
  kind: 'shows',
  label: later('shows a picture'),
  fields: {
    picture: { type: 'picture', label: later('Picture'), first: '...#... ..###.. .#####. ..###.. ...#...' },
    seconds
  },
  words: ({ seconds: s }) => say('Show this picture for at least {s} s', { s: num(s, 2) }),
  check: ({ picture, seconds: s }, look) => {
    const shown = pictures(look).filter((one) => one.what === picture && inLook(look, one.sinceUs));
    let longest: Stretch<string> | undefined;
    for (const one of shown) {
      if (one.toUs - one.fromUs >= s * 1e6 - 1000) return met(Math.round(one.fromUs + s * 1e6));
      if (!longest || one.toUs - one.fromUs > longest.toUs - longest.fromUs) longest = one;
    }
    if (!longest) return wanting(look, say('This picture was not shown.'));
    const was = (longest.toUs - longest.fromUs) / 1e6;
    return wanting(
      look,
      say('It was shown for {was} s at the longest, at {s} s.', {
        was: num(was, was < 0.1 ? 4 : 2),
        s: sec(longest.fromUs)
      }),
      { atUs: longest.fromUs, off: { amount: s - was, unit: 's' } }
    );
  },
  broken: ({ picture }, look) => pictures(look).find((one) => one.what !== picture)?.fromUs
});

export const blinks = defineGoal({
  kind: 'blinks',
  label: later('a lamp goes on and off'),
  fields: {
    lamp: { type: 'lamp', label: later('Lamp') },
    times: {
      type: 'numbers',
      label: later('on, off, on ... for'),
      unit: 's',
      min: 0.02,
      max: 60,
      first: [0.5, 0.5, 0.5]
    },
    within: { type: 'number', label: later('give or take'), unit: 's', min: 0.01, max: 10, first: 0.1 }
  },
  words: ({ lamp, times }) =>
    say('The lamp {lamp} on, off, on ... for {times} s', {
      lamp,
      times: times.map((t) => num(t, 2)).join(', ')
    }),
  check: ({ lamp, times, within }, look) => {
    const changes = (lampsOf(look.trace).get(lamp) ?? []).map((e) => ({ tUs: e.tUs, what: e.on && e.level !== 0 }));
    const all = stretches(changes, false, look);
    let best = { matched: -1, tUs: look.fromUs, says: say('The lamp {lamp} was not lit.', { lamp }), off: 0 };
    for (let i = 0; i < all.length; i++) {
      // what was lit before what it waits for is not its answer
      if (!all[i].what || all[i].sinceUs < look.fromUs) continue;
      let k = 0;
      // what nothing ended yet has no length
      const ended = (n: number): boolean => n < all.length - 1;
      const fits = (): boolean =>
        ended(i + k) && Math.abs((all[i + k].toUs - all[i + k].fromUs) / 1e6 - times[k]) <= within;
      while (k < times.length && fits()) k++;
      if (k === times.length) return met(all[i + k - 1].toUs);
      const one = all[i + k];
      if (k <= best.matched) continue;
      const was = one ? (one.toUs - one.fromUs) / 1e6 : 0;
      best = {
        matched: k,
        tUs: one?.fromUs ?? all[i].fromUs,
        off: Math.abs(was - times[k]),
        says: !one
          ? say('It went on and off {n} times too few.', { n: times.length - k })
          : !ended(i + k) && was > times[k] - within
            ? one.what
              ? say('At {s} s it came on, and nothing put it out.', { s: sec(one.fromUs) })
              : say('At {s} s it went out, and did not come on again.', { s: sec(one.fromUs) })
            : one.what
              ? say('At {s} s it was on for {was} s instead of {asked} s.', {
                  s: sec(one.fromUs),
                  was: num(was, 2),
                  asked: num(times[k], 2)
                })
              : say('At {s} s it was off for {was} s instead of {asked} s.', {
                  s: sec(one.fromUs),
                  was: num(was, 2),
                  asked: num(times[k], 2)
                })
      };
    }
    return wanting(look, best.says, best.matched < 0 ? {} : { atUs: best.tUs, off: { amount: best.off, unit: 's' } });
  }
});

/** Two pitches are the same within a quarter tone: 50 hundredths of a half tone (ISO 16 tunes A4 to 440 Hz). */
const CENTS = 50;
const apart = (a: number, b: number): number => Math.abs((1200 * Math.log(a / b)) / Math.log(2));
export const plays = defineGoal({
  kind: 'plays',
  label: later('plays tones in turn'),
  fields: { notes: { type: 'text', label: later('Notes'), first: 'C4 E4 G4' } },
  words: ({ notes }) => say('Play {notes}', { notes }),
  check: ({ notes }, look) => {
    let asked: number[];
    try {
      asked = playedNotes(notes, TEMPO).flatMap(({ hertz }) => (hertz > 0 ? [hertz] : []));
    } catch {
      return { state: 'missed', says: say('The goal has a note that is none: {notes}', { notes }) };
    }
    const heard = eventsOf(look.trace, 'tone').filter(
      (e) => e.hertz > 0 && inLook(look, e.tUs) && volumeAt(look.trace, e.tUs) > 0
    );
    let best = 0;
    let wrong: (typeof heard)[number] | undefined;
    for (let i = 0; i < heard.length; i++) {
      let k = 0;
      while (k < asked.length && heard[i + k] && apart(heard[i + k].hertz, asked[k]) < CENTS) k++;
      if (k === asked.length) return met(heard[i + k - 1].tUs);
      if (k > best || (k === best && !wrong)) [best, wrong] = [k, heard[i + k]];
    }
    if (!heard.length) return wanting(look, say('No tone was heard.'));
    const note = noteOf(asked[best]).name;
    if (!wrong)
      return wanting(look, say('Tone {n} of {of}, {note}, did not come.', { n: best + 1, of: asked.length, note }));
    return wanting(
      look,
      say('Tone {n} was {hertz} Hz instead of {asked} Hz ({note}), at {s} s.', {
        n: best + 1,
        hertz: num(wrong.hertz),
        asked: num(asked[best]),
        note,
        s: sec(wrong.tUs)
      }),
      { atUs: wrong.tUs, off: { amount: Math.abs(wrong.hertz - asked[best]), unit: 'Hz' } }
    );
  }
});

/** Whoever is there for so many ms was there. */
const VISIT = 100;
export const swings = defineGoal({
  kind: 'swings',
  label: later('a servo visits angles'),
  fields: {
    servo: { type: 'servo', label: later('Servo') },
    angles: { type: 'numbers', label: later('Angles in turn'), unit: '°', min: -720, max: 720, first: [90, 0] },
    within: { type: 'number', label: later('give or take'), unit: '°', min: 0.5, max: 90, first: 5 }
  },
  words: ({ angles }) => say('The servo goes to {angles}°', { angles: angles.map((a) => num(a)).join('°, ') }),
  check: ({ servo, angles, within }, look) => {
    const c = channel(look.trace, `servo${servo}`);
    if (!c) return { state: 'missed', says: say('There is no servo on {servo}.', { servo }) };
    const to = Math.min(look.trace.ticks, Math.floor(look.toUs / 1000));
    let next = 0;
    let nearest = { deg: Infinity, tick: 0, is: 0 };
    /** since when it is there, and from which side it came */
    let [since, from] = [-1, 0];
    for (let tick = Math.ceil(look.fromUs / 1000); tick < to; tick++) {
      const is = sampleAt(c, tick);
      const deg = is - angles[next];
      const there = Math.abs(deg) <= within;
      if (there && since < 0) since = tick;
      // who only passes through was not there: it stays for a moment, turns round there, or the run is over
      const visited = there
        ? tick + 1 - since >= VISIT || (isOver(look) && tick + 1 === to)
        : since >= 0 && Math.sign(deg) === from;
      if (visited) {
        next++;
        if (next === angles.length) return met((tick + 1) * 1000);
        nearest = { deg: Infinity, tick, is };
        [since, from] = [-1, Math.sign(is - angles[next])];
        continue;
      }
      if (there) continue;
      [since, from] = [-1, Math.sign(deg)];
      if (Math.abs(deg) < nearest.deg) nearest = { deg: Math.abs(deg), tick, is };
    }
    return wanting(
      look,
      say('It did not come to {angle}°: at {s} s it was at {is}°.', {
        angle: num(angles[next]),
        s: sec(nearest.tick * 1000),
        is: num(nearest.is)
      }),
      {
        atUs: nearest.tick * 1000,
        ...(Number.isFinite(nearest.deg) ? { off: { amount: nearest.deg - within, unit: '°' } } : {})
      }
    );
  }
});

/** Whether a line has a text by itself: "5" is in "n = 5", and not in "15", "5.2" or "-5". */
function isIn(line: string, text: string): boolean {
  const before = String.raw`(?<![\p{L}\p{N}]|[-−]|\p{N}[.,])`;
  const after = String.raw`(?![\p{L}\p{N}]|[.,]\p{N})`;
  const plain = text.replace(/[.*+?^${}()|[\]\\]/g, String.raw`\$&`);
  return new RegExp(
    `${/^[\p{L}\p{N}]/u.test(text) ? before : ''}${plain}${/[\p{L}\p{N}]$/u.test(text) ? after : ''}`,
    'u'
  ).test(line);
}
export const logs = defineGoal({
  kind: 'logs',
  label: later('logs a text'),
  fields: { text: { type: 'text', label: later('Text'), first: '5' } },
  words: ({ text }) => say('Log "{text}"', { text }),
  check: ({ text }, look) => {
    const lines = eventsOf(look.trace, 'log').filter((e) => inLook(look, e.tUs));
    const found = lines.find((e) => isIn(e.text, text));
    if (found) return met(found.tUs);
    const last = lines.at(-1);
    return last
      ? wanting(look, say('It logged "{text}" last, at {s} s.', { text: last.text, s: sec(last.tUs) }), {
          atUs: last.tUs
        })
      : wanting(look, say('Nothing was logged.'));
  }
});
export const sends = defineGoal({
  kind: 'sends',
  label: later('sends a message'),
  fields: { message: { type: 'text', label: later('Message'), first: 'come' } },
  words: ({ message }) => say('Send the message {message}', { message }),
  check: ({ message }, look) => {
    const found = eventsOf(look.trace, 'message').find((e) => e.name === message && inLook(look, e.tUs));
    return found ? met(found.tUs) : wanting(look, say('This message was not sent.'));
  }
});
