/** touched: what it met, with which side, how hard and for how long. Touches of one push are one contact. */
import { liveSteps, type Program } from '../../language/program.ts';
import { retell, say } from '../../words.ts';
import { endUs, type Trace, type TraceEvent } from '../trace.ts';
import { eventOf, one, seconds, shortWay, speeds, valueAt, type Found, type Rule } from './finding.ts';

/** Let go for less than this it is the same push, µs. */
const SAME_US = 400_000;
type Touch = TraceEvent & { type: 'touch' };
type Contact = { first: Touch; toUs: number; newton: number; nose: boolean };

function contactsOf(trace: Trace): Contact[] {
  const out: Contact[] = [];
  const open = new Map<string, Contact>();
  for (const e of trace.events) {
    if (e.type === 'touch') {
      const before = open.get(e.what);
      if (before && e.tUs - before.toUs < SAME_US) {
        before.toUs = Infinity;
        before.nose ||= e.nose;
      } else {
        const contact: Contact = { first: e, toUs: Infinity, newton: 0, nose: e.nose };
        open.set(e.what, contact);
        out.push(contact);
      }
    } else if (e.type === 'free') {
      const contact = open.get(e.what);
      if (!contact) continue;
      contact.toUs = e.tUs;
      contact.newton = Math.max(contact.newton, e.newton);
    }
  }
  const end = endUs(trace);
  return out.map((c) => ({ ...c, toUs: Math.min(c.toUs, end) }));
}
/** Which side of the robot met it. */
function side(trace: Trace, { first, nose }: Contact): string {
  if (nose) return say('with its nose');
  if (first.rim !== undefined) return say('with its rim, {deg}° from the notch', { deg: Math.round(first.rim) });
  const [x, y, facing] = ['x', 'y', 'facing'].map((key) => valueAt(trace, key, first.tUs));
  const bearing = shortWay((Math.atan2(first.x - x, first.y - y) * 180) / Math.PI - facing);
  return Math.abs(bearing) < 45
    ? say('with its front')
    : Math.abs(bearing) > 135
      ? say('with its back')
      : bearing > 0
        ? say('with its right side')
        : say('with its left side');
}
/** A program that looks at its nose or its rim may mean to touch. */
const wantsTouch = (program: Program | undefined): boolean =>
  !!program &&
  [...liveSteps(program)].some(
    (s) =>
      ['sense.nose', 'sense.rim', 'sense.rimplace'].includes(s.kind) ||
      ((s.kind === 'begin.touch' || s.kind === 'wait.touch') && s.slots.what !== 'edge')
  );

export const touched: Rule = ({ trace, program }) => {
  const meant = wantsTouch(program);
  return contactsOf(trace).map((contact): Found => {
    const { first, toUs, newton, nose } = contact;
    const lasts = toUs - first.tUs >= 100_000 && newton >= 0.05;
    const felt = nose || first.rim !== undefined;
    const words = {
      what: retell(first.what),
      speed: one(first.speedCmS),
      side: side(trace, contact),
      x: Math.round(first.x * 100),
      y: Math.round(first.y * 100),
      s: seconds(toUs - first.tUs),
      newton: one(newton)
    };
    return {
      rule: 'touched',
      weight: meant && felt ? 25 : 80,
      says: !lasts
        ? say('Touched {what} {side}, with {speed} cm/s, at x {x}, y {y} cm.', words)
        : say('Touched {what} {side}, with {speed} cm/s, at x {x}, y {y} cm: for {s} s, with up to {newton} N.', words),
      todo:
        meant && felt
          ? nose
            ? say('The program looks at its nose: if it was to touch here, all is well.')
            : say('The program looks at its rim: if it was to touch here, all is well.')
          : say('Stop before it: measure how far it is, or let the distance sensor tell.'),
      figures: [
        eventOf(first, 'speedCmS'),
        {
          value: first.x * 100,
          sum: [{ take: 'event', type: 'touch', field: 'x', atUs: first.tUs, times: 100 }]
        },
        {
          value: first.y * 100,
          sum: [{ take: 'event', type: 'touch', field: 'y', atUs: first.tUs, times: 100 }]
        },
        ...(first.rim === undefined ? [] : [eventOf(first, 'rim')]),
        ...(lasts
          ? [
              { value: (toUs - first.tUs) / 1e6, sum: [{ take: 's' as const, fromUs: first.tUs, toUs }] },
              {
                value: newton,
                sum: [
                  {
                    take: 'most' as const,
                    type: 'free' as const,
                    what: first.what,
                    field: 'newton',
                    fromUs: first.tUs,
                    toUs
                  }
                ]
              }
            ]
          : [])
      ],
      blocks: [],
      fromUs: first.tUs,
      toUs,
      at: { x: first.x, y: first.y },
      lanes: ['distance', ...speeds(trace)]
    };
  });
};
