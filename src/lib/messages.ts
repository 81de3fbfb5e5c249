/** A message file: English to another language's words, those of the interface and those of the blocks. */
import type { Tongue } from '../../core/words.ts';

export type MessageFile = { interface: Record<string, string>; blocks: Record<string, string> };
export const tongueOf = (code: string, { interface: told, blocks }: MessageFile): Tongue => ({
  code,
  messages: { ...blocks, ...told },
  told
});
