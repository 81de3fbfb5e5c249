/** How long drawing and comparing take, for `npm run speed`: in this page, on the trace that is seen. */
import { apart, differences } from '../../../../core/trace/compare.ts';
import { bytesOfTrace } from '../../../../core/trace/files.ts';
import { CHUNK, channel, type Trace } from '../../../../core/trace/trace.ts';
import { draw, type Drawing } from './draw.ts';

const median = (list: number[]): number => [...list].sort((x, y) => x - y)[Math.floor(list.length / 2)];
const time = (act: () => void): number =>
  median(
    Array.from({ length: 5 }, () => {
      const began = performance.now();
      act();
      return performance.now() - began;
    })
  );

/** Every sample of every curve looked at once and one line up and down a column: no less can be done. */
function bare(g: CanvasRenderingContext2D, d: Drawing): void {
  for (const lane of d.lanes) {
    if (lane.kind !== 'curve') continue;
    for (const { key } of lane.keys) {
      const c = channel(d.trace, key);
      if (!c) continue;
      g.beginPath();
      const per = d.trace.ticks / d.width;
      for (let i = 0; i < d.width; i++) {
        let low = Infinity;
        let high = -Infinity;
        for (let t = Math.floor(i * per); t < Math.floor((i + 1) * per); t++) {
          const chunk = c.chunks[Math.floor(t / CHUNK)];
          const v = typeof chunk === 'number' ? chunk : chunk[t % CHUNK];
          if (v < low) low = v;
          if (v > high) high = v;
        }
        g.lineTo(i, low * 0.01);
        g.lineTo(i, high * 0.01);
      }
      g.stroke();
    }
  }
}
/** ms for drawing all lanes, for the bare loop over the same points, for comparing two runs; bytes of both. */
export function timing(d: Drawing, other: Trace): { draw: number; bare: number; compare: number; bytes: number } {
  const canvas = new OffscreenCanvas(d.width, 4000);
  const g = canvas.getContext('2d') as unknown as CanvasRenderingContext2D;
  const keys = d.lanes.flatMap((l) => (l.kind === 'curve' ? l.keys.map((k) => k.key) : []));
  return {
    draw: time(() => draw(g, d)),
    bare: time(() => bare(g, d)),
    compare: time(() => {
      differences(d.trace, other, 0);
      for (const key of keys) apart(d.trace, other, key, 0);
    }),
    bytes: bytesOfTrace(d.trace) + bytesOfTrace(other)
  };
}
