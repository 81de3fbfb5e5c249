/** The stand-ins that ship: each an individual with a serial number of its own. */
import { kits, type Kit } from './kit.ts';
import { SWAPPED } from './quirks.ts';

/** How a stand-in comes out of its box. */
export type Comes = 'ready' | 'no library' | 'old library' | 'factory demo';
export const STAND_INS = [
  { name: 'Barrow 3', serial: 'MB-BAR-0003', comes: 'ready', device: 'barrow' },
  { name: 'Barrow 5', serial: 'MB-BAR-0005', comes: 'no library', device: 'barrow' },
  { name: 'Barrow 7', serial: SWAPPED, comes: 'ready', device: 'barrow' },
  { name: 'Barrow 9', serial: 'MB-BAR-0009', comes: 'factory demo', device: 'barrow' },
  { name: 'Barrow 12', serial: 'MB-BAR-0012', comes: 'old library', device: 'barrow' },
  { name: 'Saucer 4', serial: 'MB-SAU-0004', comes: 'ready', device: 'saucer' },
  { name: 'Hauler 1', serial: 'MB-HAU-0001', comes: 'ready', device: 'hauler' },
  { name: 'Trowel 2', serial: 'MB-TRO-0002', comes: 'ready', device: 'trowel' }
] as const satisfies readonly { name: string; serial: string; comes: Comes; device: string }[];
export type Unit = (typeof STAND_INS)[number];
export const standIn = (serial: string): Unit | undefined => STAND_INS.find((s) => s.serial === serial);
/** The kit that a stand-in was built from. */
export const kitOf = (serial: string): Kit => kits[standIn(serial)?.device ?? STAND_INS[0].device];
