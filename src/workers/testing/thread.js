/** The global scope of a browser's worker, in a thread of Node: then the worker's own file (web-worker.ts). */
import { register } from 'node:module';
import { parentPort, workerData } from 'node:worker_threads';
import { register as typescript } from 'tsx/esm/api';

// the address of a file that a bundler hands out: in Node the package finds its own
const hooks =
  "export const resolve = (s, c, n) => s.endsWith('.wasm?url') ? { url: 'data:text/javascript,export default undefined', shortCircuit: true } : n(s, c)";
typescript();
register(`data:text/javascript,${encodeURIComponent(hooks)}`);

const target = new EventTarget();
Object.assign(globalThis, {
  self: globalThis,
  postMessage: (data, transfer) => parentPort.postMessage(data, transfer),
  addEventListener: (...a) => target.addEventListener(...a),
  removeEventListener: (...a) => target.removeEventListener(...a)
});
const early = [];
const hand = (data) => {
  const event = Object.assign(new Event('message'), { data });
  globalThis.onmessage?.(event);
  target.dispatchEvent(event);
};
let ready = false;
parentPort.on('message', (data) => (ready ? hand(data) : early.push(data)));
await import(workerData);
ready = true;
early.forEach(hand);
