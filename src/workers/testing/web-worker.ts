/**
 * A browser's Worker for tests in Node: a thread of its own that runs the very file. Tests put it in place of the global:
 * `vi.stubGlobal('Worker', WebWorker)`.
 */
import { Worker as Thread } from 'node:worker_threads';
import { vi } from 'vitest';

type Listener = (event: { data: unknown }) => void;

export class WebWorker {
  onmessage: Listener | undefined;
  private readonly thread: Thread;
  private readonly listeners = new Set<Listener>();

  constructor(url: URL | string) {
    const name = /([\w.-]+\.worker\.ts)/.exec(String(url))![1];
    const here = import.meta.url;
    this.thread = new Thread(new URL('thread.js', here), { workerData: new URL(`../${name}`, here).href });
    this.thread.on('message', (data) => {
      const event = { data };
      this.onmessage?.(event);
      for (const listener of this.listeners) listener(event);
    });
  }
  postMessage(data: unknown, transfer: ArrayBuffer[] = []): void {
    this.thread.postMessage(data, transfer);
  }
  addEventListener(_: string, listener: Listener): void {
    this.listeners.add(listener);
  }
  removeEventListener(_: string, listener: Listener): void {
    this.listeners.delete(listener);
  }
  terminate(): void {
    void this.thread.terminate();
  }
}

/** Waits until it is so. @param says what never came, if it does not */
export const until = (what: () => boolean, says: string): Promise<unknown> =>
  vi.waitUntil(what, { timeout: 25_000, interval: 10 }).catch(() => {
    throw new Error(`never: ${says}`);
  });
