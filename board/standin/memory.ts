/** What a stand-in has in it when it comes out of its box. */
import { utf8 } from '../../core/bytes.ts';
import type { Unit } from '../../core/kit/units.ts';
import { later } from '../../core/words.ts';
import { STORAGE, usedBytes, type Memory } from './drive.ts';

/** as an older Moss Bell left it on a device: it knows nothing of today's parts */
const OLD_LIBRARY = `"""Moss Bell board library."""

VERSION = "1.1"


def launch():
    print("This board library is too old for programs of today.")
`;
export function newMemory({ comes }: Pick<Unit, 'comes'>, library: string): Memory {
  switch (comes) {
    case 'ready':
      return { firmware: 'micropython', flash: { 'lib/mossbell.py': utf8(library) } };
    case 'no library':
      return { firmware: 'micropython', flash: {} };
    case 'old library':
      return { firmware: 'micropython', flash: { 'lib/mossbell.py': utf8(OLD_LIBRARY) } };
    case 'factory demo':
      return { firmware: 'factory', flash: {} };
  }
}
/** What a teacher can switch on for a lesson; the programs on the device stay. */
export const CONDITIONS = {
  ready: later('everything in order'),
  'no library': later('no board library'),
  'old library': later('an old board library'),
  'factory demo': later('the factory demo and no MicroPython'),
  'no firmware': later('no firmware at all'),
  full: later('a full storage')
} as const;
export type Condition = keyof typeof CONDITIONS;
const FILLER = 'recordings.bin';
export function inCondition(memory: Memory, condition: Condition, library: string): Memory {
  const { [FILLER]: _, 'lib/mossbell.py': lib, ...flash } = memory.flash;
  if (condition === 'no firmware')
    return { ...memory, firmware: '', flash: { ...flash, ...(lib ? { 'lib/mossbell.py': lib } : {}) } };
  const fresh = newMemory({ comes: condition === 'full' ? 'ready' : condition }, library);
  const now = { ...memory, firmware: fresh.firmware, flash: { ...flash, ...fresh.flash } };
  if (condition === 'full') now.flash[FILLER] = new Uint8Array(Math.max(0, STORAGE - usedBytes(now.flash)));
  return now;
}
