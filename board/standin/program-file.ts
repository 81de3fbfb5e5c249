import CRC32 from 'crc-32';

/** A program file: the text, and a last line with its checksum. */
export function programFile(text: string): string {
  const crc = (CRC32.str(text) >>> 0).toString(16).padStart(8, '0');
  return `${text}# moss bell crc ${crc}\n`;
}
