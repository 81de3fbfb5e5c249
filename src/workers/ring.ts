/** Orders as JSON in a ring of shared memory: one writer (the page), one reader (the board's thread). */
const HEAD = 8; // bytes: where the reader is, where the writer is

export class Ring {
  private readonly at: Int32Array;
  private readonly bytes: Uint8Array;
  constructor(buffer: SharedArrayBuffer) {
    this.at = new Int32Array(buffer, 0, 2);
    this.bytes = new Uint8Array(buffer, HEAD);
  }
  static make(size = 1 << 18): SharedArrayBuffer {
    return new SharedArrayBuffer(HEAD + size);
  }
  /** @returns false if there is no room: the reader has not kept up */
  put(order: unknown): boolean {
    const text = new TextEncoder().encode(JSON.stringify(order));
    const size = this.bytes.length;
    const read = Atomics.load(this.at, 0);
    let write = Atomics.load(this.at, 1);
    if (text.length + 4 >= size - ((write - read + size) % size)) return false;
    for (const byte of [
      text.length & 255,
      (text.length >> 8) & 255,
      (text.length >> 16) & 255,
      text.length >> 24,
      ...text
    ]) {
      this.bytes[write] = byte;
      write = (write + 1) % size;
    }
    Atomics.store(this.at, 1, write);
    return true;
  }
  take(): unknown {
    let read = Atomics.load(this.at, 0);
    if (read === Atomics.load(this.at, 1)) return undefined;
    const size = this.bytes.length;
    const next = (): number => {
      const byte = this.bytes[read];
      read = (read + 1) % size;
      return byte;
    };
    const length = next() | (next() << 8) | (next() << 16) | (next() << 24);
    const text = new Uint8Array(length);
    for (let i = 0; i < length; i++) text[i] = next();
    Atomics.store(this.at, 0, read);
    return JSON.parse(new TextDecoder().decode(text));
  }
}
