import * as Comlink from 'comlink';
import { it, expect } from 'vitest';
import { WebWorker } from './testing/web-worker.ts';
import type { BenchApi } from './bench.worker.ts';
import { barrow } from '../../core/kit/kit.ts';
import { b, hall, program, start } from '../../core/testing/build.ts';
it('x', async () => {
  const w = new WebWorker('bench.worker.ts');
  const api = Comlink.wrap<BenchApi>(w as unknown as Comlink.Endpoint);
  const whole = await api.whole({ program: program(start(b('drive.measure', { amount: 20 }))), kit: barrow, mat: hall, seed: 1 });
  expect(whole.trace.ended).toBe('done');
  w.terminate();
}, 30_000);
