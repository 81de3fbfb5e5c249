/** The path that a run drove: points in metres, and as SVG points in cm, y down. */
import { channel, type Trace } from '../../../../core/trace/trace.ts';
import { sampleAt } from '../../../../core/trace/query.ts';

const EVERY = 25; // ticks

export function trailPoints(trace: Trace, upToUs: number): [number, number][] {
  const x = channel(trace, 'x');
  const y = channel(trace, 'y');
  const { start } = trace.header;
  const points: [number, number][] = [[start.x, start.y]];
  if (!x || !y) return points;
  const last = Math.min(trace.ticks, Math.floor(upToUs / 1000));
  let [px, py] = points[0];
  for (let t = EVERY; t <= last; t += EVERY) {
    const nx = sampleAt(x, t - 1);
    const ny = sampleAt(y, t - 1);
    // standing still adds nothing
    if (Math.abs(nx - px) + Math.abs(ny - py) < 0.001) continue;
    points.push([nx, ny]);
    px = nx;
    py = ny;
  }
  return points;
}
export const trail = (trace: Trace, upToUs: number, height: number): string =>
  trailPoints(trace, upToUs)
    .map(([x, y]) => `${(x * 100).toFixed(2)},${((height - y) * 100).toFixed(2)}`)
    .join(' ');
