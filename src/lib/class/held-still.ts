/** Which backups still hold who was deleted, in a sentence. */
import { say } from '../../../core/words.ts';
import type { HeldStill } from './class.ts';

/** @returns nothing where none does */
export function heldStill(left: readonly HeldStill[]): string {
  const files = (which: readonly HeldStill[]): string => which.map(({ file }) => file).join(', ');
  const [away, here] = [left.filter((h) => h.away), left.filter((h) => !h.away)];
  return [
    here.length
      ? say('These backups could not be changed, and may still hold it: {files}.', { files: files(here) })
      : '',
    away.length
      ? say('These are not where they were made; if they are elsewhere they still hold it: {files}.', {
          files: files(away)
        })
      : ''
  ]
    .filter(Boolean)
    .join(' ');
}
