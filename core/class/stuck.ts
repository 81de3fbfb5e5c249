/** Who is likely to need the teacher first. */
export type Standing = {
  handUpAt?: number;
  /** when something was changed or tried last */
  changedAt?: number;
  /** when it came nearer to its goals last: begun, a goal more, handed in */
  furtherAt?: number;
  handedInAt?: number;
  met?: boolean;
};
const MINUTE_MS = 60_000;
/** More than a lesson says no more than a lesson does, minutes. */
const LONGEST = 90;

/**
 * Minutes since somebody got further: busy without a goal more counts as idleness does. Whoever has a hand up comes first, the
 * one who waits longest before the others; whoever has handed in or met all goals comes last, and before them who has not begun.
 */
export function stuckFor({ handUpAt, changedAt, furtherAt, handedInAt, met }: Standing, now: number): number {
  const since = (at: number): number => Math.min(LONGEST, Math.max(0, (now - at) / MINUTE_MS));
  if (handUpAt !== undefined) return 1000 + since(handUpAt);
  if (met || (handedInAt !== undefined && handedInAt >= (changedAt ?? 0))) return -2;
  return furtherAt === undefined ? -1 : since(furtherAt);
}
