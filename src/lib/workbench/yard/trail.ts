/** The path that a run drove: points in metres, and as SVG points in cm, y down. */
import { channel, type Trace } from '../../../../core/trace/trace.ts';
import { sampleAt } from '../../../../core/trace/query.ts';

const EVERY = 25; // ticks
const MOST = 2000;
/** Points found so far, kept up as the trace grows: when they are too many, every second one goes and they come half as often. */
type Trail = { points: [number, number][]; ticks: number[]; upTo: number; least: number };
const trails = new WeakMap<Trace, Trail>();

export function trailPoints(trace: Trace, upToUs: number): [number, number][] {
  const x = channel(trace, 'x');
  const y = channel(trace, 'y');
  const {
    run: { start }
  } = trace.header;
  if (!x || !y) return [[start.x, start.y]];
  let t = trails.get(trace);
  if (!t) trails.set(trace, (t = { points: [[start.x, start.y]], ticks: [0], upTo: 0, least: 0.001 }));
  for (let tick = t.upTo + EVERY; tick <= trace.ticks; tick += EVERY) {
    t.upTo = tick;
    const nx = sampleAt(x, tick - 1);
    const ny = sampleAt(y, tick - 1);
    const [px, py] = t.points[t.points.length - 1];
    // standing still adds nothing
    if (Math.abs(nx - px) + Math.abs(ny - py) < t.least) continue;
    t.points.push([nx, ny]);
    t.ticks.push(tick);
    if (t.points.length <= MOST) continue;
    t.points = t.points.filter((_, i) => i % 2 === 0);
    t.ticks = t.ticks.filter((_, i) => i % 2 === 0);
    t.least = Math.max(0.004, t.least * 2);
  }
  const last = Math.min(trace.ticks, Math.floor(upToUs / 1000));
  const until = t.ticks.findLastIndex((tick) => tick <= last);
  const points = t.points.slice(0, until + 1);
  // to where it stands, however few points there are
  if (last > 0) points.push([sampleAt(x, last - 1), sampleAt(y, last - 1)]);
  return points;
}
export const trail = (trace: Trace, upToUs: number, height: number): string =>
  trailPoints(trace, upToUs)
    .map(([x, y]) => `${(x * 100).toFixed(2)},${((height - y) * 100).toFixed(2)}`)
    .join(' ');
