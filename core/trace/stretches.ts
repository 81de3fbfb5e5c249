/** `sinceUs`: when it began to be so, also where that is before what is looked at. */
export type Stretch<T> = { what: T; fromUs: number; toUs: number; sinceUs: number };
/** What was so from when to when, of changes one after the other; the same again is one stretch. */
export function stretches<T>(
  changes: readonly { tUs: number; what: T }[],
  first: T,
  { fromUs, toUs }: { fromUs: number; toUs: number }
): Stretch<T>[] {
  const out: Stretch<T>[] = [{ what: first, fromUs: 0, sinceUs: 0, toUs }];
  for (const { tUs, what } of changes) {
    if (tUs > toUs) break;
    const last = out[out.length - 1];
    if (last.what === what) continue;
    last.toUs = tUs;
    out.push({ what, fromUs: tUs, sinceUs: tUs, toUs });
  }
  return out.filter((s) => s.toUs > fromUs).map((s) => ({ ...s, fromUs: Math.max(s.fromUs, fromUs) }));
}
