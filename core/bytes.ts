/** UTF-8 without the DOM's TextEncoder, which the core's types do not know. */
export const utf8 = (text: string): Uint8Array =>
  Uint8Array.from(
    encodeURIComponent(text).replace(/%([0-9A-F]{2})/g, (_, hex: string) => String.fromCharCode(parseInt(hex, 16))),
    (c) => c.charCodeAt(0)
  );
const DIGITS = 'ABCDEFGHIJKLMNOPQRSTUVWXYZabcdefghijklmnopqrstuvwxyz0123456789+/';
/** The value of each digit by its character code; -1 for what is none. */
const VALUES = new Int8Array(128).fill(-1);
for (let i = 0; i < DIGITS.length; i++) VALUES[DIGITS.charCodeAt(i)] = i;
/** Bytes of a base64 text (RFC 4648); what is not a digit of it is passed over. */
export function bytesOf(base64: string): Uint8Array {
  let length = base64.length;
  while (length > 0 && base64[length - 1] === '=') length--;
  const out = new Uint8Array(Math.floor((length * 3) / 4));
  let held = 0;
  let bits = 0;
  let at = 0;
  for (let i = 0; i < length && at < out.length; i++) {
    const digit = VALUES[base64.charCodeAt(i) & 127];
    if (digit < 0) continue;
    held = (held << 6) | digit;
    bits += 6;
    if (bits >= 8) {
      bits -= 8;
      out[at++] = (held >> bits) & 255;
    }
  }
  return out;
}
/** Bytes as a base64 text (RFC 4648). */
export function base64Of(bytes: Uint8Array): string {
  const parts: string[] = [];
  let text = '';
  for (let i = 0; i < bytes.length; i += 3) {
    const n = (bytes[i] << 16) | ((bytes[i + 1] ?? 0) << 8) | (bytes[i + 2] ?? 0);
    text += DIGITS[n >> 18] + DIGITS[(n >> 12) & 63];
    text += i + 1 < bytes.length ? DIGITS[(n >> 6) & 63] : '=';
    text += i + 2 < bytes.length ? DIGITS[n & 63] : '=';
    if (text.length > 30_000) {
      parts.push(text);
      text = '';
    }
  }
  return parts.join('') + text;
}
