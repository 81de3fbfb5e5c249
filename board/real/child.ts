/** The process of child.mjs as a port, as a serial port would be one. */
import { spawn, type ChildProcessByStdio } from 'node:child_process';
import type { Readable, Writable } from 'node:stream';
import { LinkClosed, type LinkPort } from '../../core/link/port.ts';

export class ChildBoard implements LinkPort {
  private readonly child: ChildProcessByStdio<Writable, Readable, null>;
  private readonly arrived: Uint8Array[] = [];
  private wake: (() => void) | undefined;
  private closed = false;
  constructor() {
    this.child = spawn(process.execPath, [new URL('child.mjs', import.meta.url).pathname], {
      stdio: ['pipe', 'pipe', 'inherit']
    });
    this.child.stdout.on('data', (bytes: Buffer) => {
      this.arrived.push(new Uint8Array(bytes));
      this.wake?.();
    });
    this.child.on('exit', () => {
      this.closed = true;
      this.wake?.();
    });
  }
  async write(bytes: Uint8Array): Promise<void> {
    if (this.closed) throw new LinkClosed();
    this.child.stdin.write(bytes);
  }
  async read(timeoutMs: number): Promise<Uint8Array | undefined> {
    if (!this.arrived.length && !this.closed)
      await new Promise<void>((resolve) => {
        const timer = setTimeout(resolve, timeoutMs);
        this.wake = () => (clearTimeout(timer), resolve());
      });
    const bytes = this.arrived.shift();
    if (!bytes && this.closed) throw new LinkClosed();
    return bytes;
  }
  close(): void {
    this.child.kill();
  }
}
