/** A program for all devices of a class. */
import CRC32 from 'crc-32';
import type { Project } from '../../../../core/project.ts';
import type { Devices } from './devices.svelte.ts';

/** To every one that is plugged in and of the right kind, each for itself: one that fails does not hold up the others. */
export async function sendAll(devices: Devices, project?: Project): Promise<void> {
  await Promise.all(devices.plugged.filter((d) => d.fits).map((d) => d.send(project, { installs: true })));
}
/** CRC-32 of the program's text as it would be sent now: which devices have this very version. */
export async function versionOf(devices: Devices, project: Project): Promise<number> {
  const { text } = await devices.chosen.textOf(project);
  return CRC32.str(text) >>> 0;
}
