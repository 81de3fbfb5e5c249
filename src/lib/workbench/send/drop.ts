/** A file on its way onto the drive of a device, at the pace of a drive. */
import { DRIVE_RATE, SECTOR, type Drive } from '../../../../board/standin/drive.ts';
import { tooLarge } from '../../../../core/link/file.ts';
import type { Progress } from '../../../../core/link/send.ts';
import { say } from '../../../../core/words.ts';
import type { DeviceLink } from './device.svelte.ts';
import { firmwareImage } from './firmware.ts';

export const takingSays = (name: string, share: number): Progress => ({
  stage: 'sending',
  share,
  says: say('Taking "{name}", {round} %', { name, round: Math.round(share * 100) })
});
/** It takes the file and starts anew, or says what is wrong with it; nothing of either where the cable is pulled. */
export async function dropOn(
  d: DeviceLink,
  drive: Drive,
  name: string,
  size: number,
  read: () => Promise<Uint8Array>
): Promise<void> {
  const large = tooLarge(name, size);
  const came = large ? { problem: large } : await taken(d, drive, name, await read());
  if (!came) return;
  d.progress = undefined;
  await keep(d, drive);
  if ('problem' in came) return d.tell(came.problem);
  // it starts anew, and is no drive any more
  d.powerOff();
  await d.plugIn();
  if (!d.mood) d.tell(came.took, 'good');
}
/** @returns what came of it; undefined where the cable was pulled */
async function taken(
  d: DeviceLink,
  drive: Drive,
  name: string,
  bytes: Uint8Array
): Promise<{ took: string } | { problem: string } | undefined> {
  let begun = false;
  const taking = drive.take(name, bytes);
  for (let next = taking.next(); ; next = taking.next()) {
    if (d.drive !== drive) return undefined;
    if (next.done) return next.value;
    d.progress = takingSays(name, next.value);
    // what is erased is erased from the first piece on: also for a page that goes away now
    if (!begun) await keep(d, drive);
    begun = true;
    await new Promise((resolve) => setTimeout(resolve, (SECTOR / DRIVE_RATE) * 1000));
  }
}
async function keep(d: DeviceLink, drive: Drive): Promise<void> {
  d.kept = { ...d.kept, ...drive.memory };
  d.files = drive.files;
  await d.remember();
}
/** Firmware, as a file for its drive. */
export async function installOn(d: DeviceLink, what: 'micropython' | 'factory'): Promise<void> {
  const image = await firmwareImage(what);
  await d.drop(what === 'micropython' ? 'micropython.img' : 'factory-demo.img', image.length, async () => image);
}
