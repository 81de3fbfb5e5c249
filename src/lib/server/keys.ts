/**
 * A key beside the database, for what a browser keeps and must not make up, and for what the database holds and a copy of it
 * must not tell. Whoever may read the folder may read it.
 */
import { createCipheriv, createDecipheriv, createHmac, hkdfSync, randomBytes, timingSafeEqual } from 'node:crypto';
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
const theKey = (): Buffer => (key ??= keyOf(process.env.MOSSBELL_DATA ?? 'data'));
const sign = (of: string): string => createHmac('sha256', theKey()).update(of).digest('base64url');
/** A name with its signature. */
export const signed = (of: string): string => `${of}.${sign(of)}`;
/** @returns whether it is what was signed for that name */
export function isSigned(text: string | undefined, of: string): boolean {
  const [given, own] = [Buffer.from(text ?? ''), Buffer.from(signed(of))];
  return given.length === own.length && timingSafeEqual(given, own);
}

const CIPHER = 'aes-256-gcm';
const IV_BYTES = 12;
const TAG_BYTES = 16;
const sealing = (): Buffer => Buffer.from(hkdfSync('sha256', theKey(), '', 'seal', 32));
/** Text as it may lie in the database: whoever has a copy of that without the key reads nothing (AES-GCM, NIST SP 800-38D). */
export function seal(text: string): string {
  const iv = randomBytes(IV_BYTES);
  const cipher = createCipheriv(CIPHER, sealing(), iv);
  const sealed = [cipher.update(text, 'utf8'), cipher.final()];
  return Buffer.concat([iv, ...sealed, cipher.getAuthTag()]).toString('base64url');
}
/** @returns undefined where it was sealed with another key */
export function unseal(sealed: string): string | undefined {
  const bytes = Buffer.from(sealed, 'base64url');
  if (bytes.length < IV_BYTES + TAG_BYTES) return undefined;
  const decipher = createDecipheriv(CIPHER, sealing(), bytes.subarray(0, IV_BYTES));
  decipher.setAuthTag(bytes.subarray(-TAG_BYTES));
  try {
    const open = decipher.update(bytes.subarray(IV_BYTES, -TAG_BYTES));
    return Buffer.concat([open, decipher.final()]).toString('utf8');
  } catch {
    return undefined;
  }
}
