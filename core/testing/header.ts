/** The header of a run of nothing, for traces that tests write by hand. */
import type { TraceHeader } from '../trace/trace.ts';

export const header: TraceHeader = {
  format: 'mossbell.trace',
  version: 2,
  name: '',
  device: '',
  runner: 'interpreter',
  hashes: { program: '', kit: '', mat: '', run: '' },
  run: { seed: 1, start: { x: 0, y: 0, facingDeg: 0 }, limitS: 120, noise: false, onBattery: false, open: false },
  blocks: []
};
