/** The path that a run drove, as SVG points in cm, y down. */
import { channel, type Trace } from '../../../../core/trace/trace.ts';
import { sampleAt } from '../../../../core/trace/query.ts';

const EVERY = 25; // ticks

export function trail(trace: Trace, upToUs: number, height: number): string {
  const x = channel(trace, 'x');
  const y = channel(trace, 'y');
  const { start } = trace.header;
  let points = `${(start.x * 100).toFixed(2)},${((height - start.y) * 100).toFixed(2)}`;
  if (!x || !y) return points;
  const last = Math.min(trace.ticks, Math.floor(upToUs / 1000));
  let px = start.x;
  let py = start.y;
  for (let t = EVERY; t <= last; t += EVERY) {
    const nx = sampleAt(x, t - 1);
    const ny = sampleAt(y, t - 1);
    // standing still adds nothing
    if (Math.abs(nx - px) + Math.abs(ny - py) < 0.001) continue;
    points += ` ${(nx * 100).toFixed(2)},${((height - ny) * 100).toFixed(2)}`;
    px = nx;
    py = ny;
  }
  return points;
}
