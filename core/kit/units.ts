/** The stand-ins that ship: each an individual with a serial number of its own. */
import { kits, type Kit } from './kit.ts';
import { SWAPPED } from './quirks.ts';

export const STAND_INS = [
  { name: 'Barrow 3', serial: 'MB-BAR-0003', library: true, device: 'barrow' },
  { name: 'Barrow 5', serial: 'MB-BAR-0005', library: false, device: 'barrow' },
  { name: 'Barrow 7', serial: SWAPPED, library: true, device: 'barrow' },
  { name: 'Saucer 4', serial: 'MB-SAU-0004', library: true, device: 'saucer' },
  { name: 'Hauler 1', serial: 'MB-HAU-0001', library: true, device: 'hauler' },
  { name: 'Trowel 2', serial: 'MB-TRO-0002', library: true, device: 'trowel' }
] as const;
export const standIn = (serial: string): (typeof STAND_INS)[number] | undefined =>
  STAND_INS.find((s) => s.serial === serial);
/** The kit that a stand-in was built from. */
export const kitOf = (serial: string): Kit => kits[standIn(serial)?.device ?? STAND_INS[0].device];
