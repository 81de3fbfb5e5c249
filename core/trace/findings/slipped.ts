/** slipped: the wheels rolled on the spot for a while. */
import { say } from '../../words.ts';
import { sampleAt } from '../query.ts';
import { channel } from '../trace.ts';
import { seconds, speeds, type Found, type Rule } from './finding.ts';

const SLIP_MS = 300;
export const slipped: Rule = ({ trace }) => {
  const [x, y] = ['x', 'y'].map((key) => channel(trace, key));
  const rims = speeds(trace).map((key) => channel(trace, key)!);
  // of wheels that roll in several directions the rims do not tell how far the machine goes
  if (!(trace.header.wheels || rims.length === 2) || !x || !y) return [];
  const out: Found[] = [];
  const EVERY = 20;
  let since = -1;
  for (let t = EVERY; t <= trace.ticks; t += EVERY) {
    const rim = rims.reduce((sum, c) => sum + sampleAt(c, t - 1), 0) / rims.length;
    const dx = sampleAt(x, t - 1) - sampleAt(x, t - 1 - EVERY);
    const dy = sampleAt(y, t - 1) - sampleAt(y, t - 1 - EVERY);
    const real = (Math.sqrt(dx * dx + dy * dy) * 100 * 1000) / EVERY;
    const slips = Math.abs(rim) > 4 && real < 0.3 * Math.abs(rim);
    if (slips && since < 0) since = t;
    if ((!slips || t + EVERY > trace.ticks) && since >= 0) {
      if (t - since >= SLIP_MS)
        out.push({
          rule: 'slipped',
          weight: 62,
          says: say('The wheels rolled on the spot from {from} s to {to} s.', {
            from: seconds(since * 1000),
            to: seconds(t * 1000)
          }),
          todo: say('It pushes against something, or is held: look at the mat there.'),
          figures: [since, t].map((ms) => ({ value: ms / 1000, sum: [{ take: 's', fromUs: 0, toUs: ms * 1000 }] })),
          blocks: [],
          fromUs: since * 1000,
          toUs: t * 1000,
          lanes: [...speeds(trace), 'distance']
        });
      since = -1;
    }
  }
  return out;
};
