/** The process of child.mjs as a port, as a serial port would be one. */
import { spawn, type ChildProcessByStdio } from 'node:child_process';
import type { Readable, Writable } from 'node:stream';
import { LinkClosed, type LinkPort } from '../../core/link/port.ts';
import { Arrived } from '../standin/arrived.ts';

export class ChildBoard implements LinkPort {
  private readonly child: ChildProcessByStdio<Writable, Readable, null>;
  private readonly arrived = new Arrived();
  constructor() {
    this.child = spawn(process.execPath, [new URL('child.mjs', import.meta.url).pathname], {
      stdio: ['pipe', 'pipe', 'inherit']
    });
    this.child.stdout.on('data', (bytes: Buffer) => this.arrived.put(new Uint8Array(bytes)));
    this.child.on('exit', () => this.arrived.close());
  }
  async write(bytes: Uint8Array): Promise<void> {
    if (this.arrived.closed) throw new LinkClosed();
    this.child.stdin.write(bytes);
  }
  read(timeoutMs: number): Promise<Uint8Array | undefined> {
    return this.arrived.read(timeoutMs);
  }
  close(): void {
    this.child.kill();
  }
}
