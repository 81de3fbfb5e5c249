/** What browsers and Node have and the core's types do not know. */
declare const TextEncoder: new () => { encode(text: string): Uint8Array };
export const utf8 = (text: string): Uint8Array => new TextEncoder().encode(text);
const DIGITS = 'ABCDEFGHIJKLMNOPQRSTUVWXYZabcdefghijklmnopqrstuvwxyz0123456789+/';
/** The value of each digit by its character code; -1 for what is none. */
const VALUES = new Int8Array(128).fill(-1);
for (let i = 0; i < DIGITS.length; i++) VALUES[DIGITS.charCodeAt(i)] = i;
/** Bytes of a base64 text (RFC 4648); what is not a digit of it is passed over. */
export function bytesOf(base64: string): Uint8Array {
  let length = base64.length;
  while (length > 0 && base64[length - 1] === '=') length--;
  const out = new Uint8Array(Math.floor((length * 3) / 4));
  let at = 0;
  let i = 0;
  const digit = (k: number): number => VALUES[base64.charCodeAt(k) & 127];
  // four digits are three bytes, as long as nothing else comes between
  for (; i + 4 <= length; i += 4) {
    const held = (digit(i) << 18) | (digit(i + 1) << 12) | (digit(i + 2) << 6) | digit(i + 3);
    if (held < 0) break;
    out[at++] = held >> 16;
    out[at++] = (held >> 8) & 255;
    out[at++] = held & 255;
  }
  let held = 0;
  let bits = 0;
  for (; i < length && at < out.length; i++) {
    if (digit(i) < 0) continue;
    held = (held << 6) | digit(i);
    bits += 6;
    if (bits >= 8) {
      bits -= 8;
      out[at++] = (held >> bits) & 255;
    }
  }
  return out;
}
const CODES = Uint8Array.from(DIGITS, (c) => c.charCodeAt(0));
const PART = 8190;
/** Bytes as a base64 text (RFC 4648). */
export function base64Of(bytes: Uint8Array): string {
  let text = '';
  for (let from = 0; from < bytes.length; from += PART) {
    const end = Math.min(bytes.length, from + PART);
    const codes = new Uint8Array(Math.ceil((end - from) / 3) * 4).fill(61); // "=" where the last bytes fall short
    let at = 0;
    for (let i = from; i < end; i += 3) {
      const n = (bytes[i] << 16) | ((bytes[i + 1] ?? 0) << 8) | (bytes[i + 2] ?? 0);
      codes[at++] = CODES[n >> 18];
      codes[at++] = CODES[(n >> 12) & 63];
      if (i + 1 < end) codes[at] = CODES[(n >> 6) & 63];
      if (i + 2 < end) codes[at + 1] = CODES[n & 63];
      at += 2;
    }
    text += String.fromCharCode.apply(null, codes as unknown as number[]);
  }
  return text;
}

/** What of the streams of browsers and Node (Compression Streams, WHATWG) is used here: the core's types do not know them. */
type Through = {
  writable: { getWriter(): { write(bytes: Uint8Array): Promise<void>; close(): Promise<void> } };
  readable: { getReader(): { read(): Promise<{ done: boolean; value?: Uint8Array }>; cancel(): Promise<void> } };
};
declare const CompressionStream: new (format: 'gzip') => Through;
declare const DecompressionStream: new (format: 'gzip') => Through;
async function through({ writable, readable }: Through, bytes: Uint8Array, most = Infinity): Promise<Uint8Array> {
  const writer = writable.getWriter();
  const written = writer.write(bytes).then(() => writer.close());
  // what is wrong with the bytes is told by the reader
  written.catch(() => {});
  const reader = readable.getReader();
  const parts: Uint8Array[] = [];
  let length = 0;
  for (let part = await reader.read(); !part.done; part = await reader.read()) {
    length += part.value!.length;
    if (length > most) {
      void reader.cancel().catch(() => {});
      throw new RangeError('unpacks to too much');
    }
    parts.push(part.value!);
  }
  return joined(parts);
}
/** Bytes one after another. */
export function joined(parts: readonly Uint8Array[]): Uint8Array {
  const out = new Uint8Array(parts.reduce((n, p) => n + p.length, 0));
  let at = 0;
  for (const part of parts) {
    out.set(part, at);
    at += part.length;
  }
  return out;
}
/** Compressed as gzip (RFC 1952). */
export const zipped = (bytes: Uint8Array): Promise<Uint8Array> => through(new CompressionStream('gzip'), bytes);
/** @param most bytes that it may come to, looked at while it is unpacked; @throws where it is more, or no gzip */
export const unzipped = (bytes: Uint8Array, most?: number): Promise<Uint8Array> =>
  through(new DecompressionStream('gzip'), bytes, most);
