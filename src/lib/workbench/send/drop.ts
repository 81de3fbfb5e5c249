/** A file on its way onto the drive of a device, at the pace of a drive. */
import { DRIVE_RATE, SECTOR, type Drive } from '../../../../board/standin/drive.ts';
import { tooLarge } from '../../../../core/link/file.ts';
import type { Progress } from '../../../../core/link/send.ts';
import { say } from '../../../../core/words.ts';

export const takingSays = (name: string, share: number): Progress => ({
  stage: 'sending',
  share,
  says: say('Taking "{name}", {round} %', { name, round: Math.round(share * 100) })
});
/**
 * @param here whether the drive is still there @param step told after each piece; what is erased is erased from the first on
 * @returns what came of it; undefined where the cable was pulled
 */
export async function dropOn(
  drive: Drive,
  name: string,
  size: number,
  read: () => Promise<Uint8Array>,
  here: () => boolean,
  step: (progress: Progress) => Promise<void>
): Promise<{ took: string } | { problem: string } | undefined> {
  const large = tooLarge(name, size);
  if (large) return { problem: large };
  const taking = drive.take(name, await read());
  for (let next = taking.next(); ; next = taking.next()) {
    if (!here()) return undefined;
    if (next.done) return next.value;
    await step(takingSays(name, next.value));
    await new Promise((resolve) => setTimeout(resolve, (SECTOR / DRIVE_RATE) * 1000));
  }
}
