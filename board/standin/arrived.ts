/** What has come over a port, until it is read. */
import { LinkClosed } from '../../core/link/port.ts';

/** a device may talk without end: more than this is not kept, bytes */
const KEPT = 1 << 17;

export class Arrived {
  private pieces: Uint8Array[] = [];
  private bytes = 0;
  private wake: (() => void) | undefined;
  closed = false;

  put(piece: Uint8Array): void {
    this.pieces.push(piece);
    this.bytes += piece.length;
    while (this.bytes > KEPT && this.pieces.length > 1) this.bytes -= this.pieces.shift()!.length;
    this.wake?.();
  }
  /** @param loses what has come and was not read is lost */
  close(loses = false): void {
    this.closed = true;
    if (loses) this.pieces = [];
    this.wake?.();
  }
  /** @returns the piece that came first; undefined where none came in time @throws LinkClosed */
  async read(timeoutMs: number): Promise<Uint8Array | undefined> {
    if (!this.pieces.length && !this.closed && timeoutMs > 0) {
      await new Promise<void>((resolve) => {
        const timer = setTimeout(resolve, timeoutMs);
        this.wake = () => {
          clearTimeout(timer);
          resolve();
        };
      });
      this.wake = undefined;
    }
    const piece = this.pieces.shift();
    if (!piece && this.closed) throw new LinkClosed();
    this.bytes -= piece?.length ?? 0;
    return piece;
  }
}
