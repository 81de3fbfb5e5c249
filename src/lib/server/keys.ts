/** A key beside the database, for what a browser keeps and must not make up. Whoever may read the folder may read it. */
import { createHmac, randomBytes, timingSafeEqual } from 'node:crypto';
import { existsSync, mkdirSync, readFileSync, writeFileSync } from 'node:fs';
import { join } from 'node:path';

let key: Buffer | undefined;
function keyOf(folder: string): Buffer {
  const file = join(folder, 'key');
  if (!existsSync(file)) {
    mkdirSync(folder, { recursive: true });
    writeFileSync(file, randomBytes(32).toString('base64url'), { mode: 0o600 });
  }
  return Buffer.from(readFileSync(file, 'utf8'), 'base64url');
}
const sign = (of: string): string => {
  key ??= keyOf(process.env.MOSSBELL_DATA ?? 'data');
  return createHmac('sha256', key).update(of).digest('base64url');
};
/** A name with its signature. */
export const signed = (of: string): string => `${of}.${sign(of)}`;
/** @returns whether it is what was signed for that name */
export function isSigned(text: string | undefined, of: string): boolean {
  const [given, own] = [Buffer.from(text ?? ''), Buffer.from(signed(of))];
  return given.length === own.length && timingSafeEqual(given, own);
}
