/**
 * Large pictures inside a project (a photo as the floor of a mat) are stored once by their hash, not in each of two hundred
 * versions and forty runs. In what is stored a name stands in their place; what is read has them again.
 */
import { createHash } from 'node:crypto';
import { and, eq, inArray, notExists, sql } from 'drizzle-orm';
import { LARGE_PICTURES } from './large.ts';
import { pictures, pictureUses, type Store } from './schema.ts';

const NAME = /"(png|grey)":"stored:([0-9a-f]{64})"/g;

/** @param json a project or a run as text; @returns the same with names in place of its large pictures */
export function stow(store: Store, projectId: string, json: string): string {
  return json.replace(LARGE_PICTURES, (_, field: string, data: string) => {
    const hash = createHash('sha256').update(data).digest('hex');
    store.insert(pictures).values({ hash, data }).onConflictDoNothing().run();
    store.insert(pictureUses).values({ hash, projectId }).onConflictDoNothing().run();
    return `"${field}":"stored:${hash}"`;
  });
}
/** @returns the text with its pictures in their places again; a name that nothing is stored under stays */
export function unstow(store: Store, json: string): string {
  const hashes = [...new Set([...json.matchAll(NAME)].map((m) => m[2]))];
  if (!hashes.length) return json;
  const rows = store.select().from(pictures).where(inArray(pictures.hash, hashes)).all();
  const found = new Map(rows.map((r) => [r.hash, r.data]));
  return json.replace(NAME, (name, field: string, hash: string) =>
    found.has(hash) ? `"${field}":"${found.get(hash)}"` : name
  );
}
/** The text with small pictures in place of what is stored elsewhere, for what looks at other things. */
export const withoutPictures = (json: string): string => json.replace(NAME, '"$1":"data:image/png;base64,AA=="');
/** Takes out pictures that no project uses any more. */
export function sweepPictures(store: Store): void {
  const used = store
    .select({ one: sql`1` })
    .from(pictureUses)
    .where(and(eq(pictureUses.hash, pictures.hash)));
  store.delete(pictures).where(notExists(used)).run();
}
