/**
 * Files for a device: a program, as it lies on its file system and as its drive takes it, and an image of its firmware. A
 * program is its text and a last line, a comment to Python: `# moss bell crc 1a2b3c4d 2 barrow 1777624200000 Name`: the
 * CRC-32 of the text, the number of this format, what it is for, when it was made (ms since 1970) and what it is called.
 * An image is a line `moss bell image 1 micropython 1.27 433743 1a2b3c4d`: what it holds, its version, the bytes that follow
 * and their CRC-32.
 */
import CRC32 from 'crc-32';
import { joined, utf8 } from '../bytes.ts';
import { kits } from '../kit/kit.ts';
import { say } from '../words.ts';

const FORMAT = 2;
const IMAGE_FORMAT = 1;
/** a program of blocks has a few thousand bytes, an image some hundred thousand */
export const LARGEST_FILE = 2_000_000;
const MARK = '# moss bell crc ';
const IMAGE = 'moss bell image ';
/** What the list of programs on a device tells of one. */
export type Called = { name: string; at: number; device: string };
export type Firmware = 'micropython' | 'factory';
export const hex = (crc: number): string => (crc >>> 0).toString(16).padStart(8, '0');

const LIBRARY = 'library';
/** The board library as a file for the drive: as a program, for every device. */
export const libraryFile = (text: string, version: string): string =>
  programFile(text, { device: LIBRARY, at: 0, name: version });
/** A program file. Without `called`, of which only its device and its text can be told. */
export function programFile(text: string, called?: Called): string {
  const tail = called
    ? ` ${FORMAT} ${called.device} ${Math.round(called.at)} ${called.name.replace(/\s+/g, ' ').trim()}`
    : '';
  return `${text}${MARK}${hex(CRC32.str(text))}${tail}\n`;
}
/** The tail of a program's last line, after its checksum. */
export function calledIn(tail: string): Called | undefined {
  const found = /^ \d+ (\S+) (\d+) (.*)$/.exec(tail);
  return found ? { device: found[1], at: Number(found[2]), name: found[3] } : undefined;
}
export function imageOf(firmware: Firmware, version: string, payload: Uint8Array): Uint8Array {
  const head = `${IMAGE}${IMAGE_FORMAT} ${firmware} ${version} ${payload.length} ${hex(CRC32.buf(payload))}\n`;
  return joined([utf8(head), payload]);
}

export type Dropped =
  | { what: 'program'; text: string; called: Called }
  | { what: 'library'; version: string }
  | { what: 'micropython'; version: string }
  | { what: 'factory'; version: string }
  | { problem: string };
/** Before a file is read at all. @returns why the drive does not take one of this size, or '' */
export const tooLarge = (name: string, bytes: number): string =>
  bytes <= LARGEST_FILE
    ? ''
    : say(
        '"{name}" has {mb} MB, and the drive takes files up to {largest} MB. Drop a file that Moss Bell saved for the device.',
        {
          name,
          mb: (bytes / 1e6).toFixed(1),
          largest: LARGEST_FILE / 1e6
        }
      );
/** What a file is that was dropped on the drive of a device of this kind, or why it is not taken. */
export function dropped(name: string, bytes: Uint8Array, device: string): Dropped {
  const large = tooLarge(name, bytes.length);
  if (large) return { problem: large };
  if (!bytes.length) return { problem: say('"{name}" is empty. Save it once more and drop it again.', { name }) };
  const start = String.fromCharCode(...bytes.subarray(0, 120));
  if (start.startsWith(IMAGE)) return imageIn(name, bytes, start.split('\n')[0]);
  const problem = pictureIn(bytes) ? say('"{name}" is a picture.', { name }) : undefined;
  if (problem) return { problem: `${problem} ${wanted()}` };
  let text: string;
  try {
    text = new TextDecoder('utf-8', { fatal: true }).decode(bytes);
  } catch {
    return { problem: `${say('"{name}" is no text.', { name })} ${wanted()}` };
  }
  if (text.includes('"mossbell.project"'))
    return {
      problem: say('"{name}" is a project: open it on the shelf, and save it for the device from there.', { name })
    };
  const cut = text.lastIndexOf(MARK);
  if (cut < 0) {
    if (/^from mossbell import|^"""Moss Bell board library/m.test(text))
      return {
        problem: say(
          '"{name}" is not whole: its last line, which tells that nothing is missing, is not there. Save it for the device once more.',
          { name }
        )
      };
    return { problem: `${say('"{name}" is not a program for a device.', { name })} ${wanted()}` };
  }
  const program = text.slice(0, cut);
  const told = /^([0-9a-f]{8})(.*)\n?$/.exec(text.slice(cut + MARK.length));
  if (!told || told[1] !== hex(CRC32.str(program)))
    return {
      problem: say('"{name}" was changed or cut short after it was saved. Save it for the device once more.', { name })
    };
  const format = Number(/^ (\d+)/.exec(told[2])?.[1] ?? 1);
  const called = calledIn(told[2]);
  if (format > FORMAT)
    return { problem: say('"{name}" was saved by a newer Moss Bell. Save it with this one.', { name }) };
  if (format < FORMAT || !called)
    return {
      problem: say('"{name}" is of an old format. Open its project and save it for the device once more.', { name })
    };
  if (called.device === LIBRARY) return { what: 'library', version: called.name };
  if (called.device !== device)
    return {
      problem: say('"{name}" is for {other}, and this is {device}.', {
        name,
        other: kitName(called.device),
        device: kitName(device)
      })
    };
  return { what: 'program', text: program, called };
}
/** A device in words: the kit it belongs to. */
export const kitName = (device: string): string => (kits as Record<string, { name: string }>)[device]?.name ?? device;
const wanted = (): string => say('The drive takes the file that "Save for the device" writes.');
function imageIn(name: string, bytes: Uint8Array, line: string): Dropped {
  const found = /^moss bell image (\d+) (micropython|factory) (\S+) (\d+) ([0-9a-f]{8})$/.exec(line);
  const payload = bytes.subarray(line.length + 1);
  if (!found || Number(found[1]) !== IMAGE_FORMAT)
    return { problem: say('"{name}" is firmware of a kind that this device does not know.', { name }) };
  if (payload.length !== Number(found[4]) || hex(CRC32.buf(payload)) !== found[5])
    return { problem: say('"{name}" is not whole. Take the file once more.', { name }) };
  return { what: found[2] as Firmware, version: found[3] };
}
/** PNG, JPEG, GIF, WebP and BMP by their first bytes (their specifications; from memory). */
const pictureIn = (b: Uint8Array): boolean =>
  [
    [0x89, 0x50, 0x4e, 0x47],
    [0xff, 0xd8, 0xff],
    [0x47, 0x49, 0x46, 0x38],
    [0x52, 0x49, 0x46, 0x46],
    [0x42, 0x4d]
  ].some((first) => first.every((byte, i) => b[i] === byte));
