import CRC32 from 'crc-32';

/** A program file: the text, and a last line with its checksum. */
export function programFile(text: string): string {
  const crc = (CRC32.str(text) >>> 0).toString(16).padStart(8, '0');
  return `${text}# moss bell crc ${crc}\n`;
}
export const utf8 = (text: string): Uint8Array =>
  Uint8Array.from(
    encodeURIComponent(text).replace(/%([0-9A-F]{2})/g, (_, hex: string) => String.fromCharCode(parseInt(hex, 16))),
    (c) => c.charCodeAt(0)
  );
