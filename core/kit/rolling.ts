/** How wheels roll in a motion, and what a set of them can do. */

/** Metres and radians in the machine's frame: x ahead, y to the left, counter-clockwise, from the point that is reckoned with. */
export type WheelPlace = {
  x: number;
  y: number;
  /** the direction in which it rolls: 0 is ahead */
  rolls: number;
  /** a tyre resists sideways, rollers do not */
  rim: 'tyre' | 'rollers';
};
/** What the wheels can make of it, each by itself. */
export type Can = { drive: boolean; turn: boolean; slide: boolean };

/** Beyond what numbers of double precision tell apart here. */
export const tidy = (v: number): number => Math.round(v * 1e12) / 1e12 || 0;

/** How far a wheel rolls for 1 m ahead, 1 m to the left, 1 rad counter-clockwise (kit/drive.ts has the source). */
export function rowOf({ x, y, rolls }: WheelPlace): [number, number, number] {
  const [cos, sin] = [tidy(Math.cos(rolls)), tidy(Math.sin(rolls))];
  return [cos, sin, x * sin - y * cos || 0];
}

/** What is left of a column when all that others say is taken from it (Gram and Schmidt): something, or nothing new. */
function isNew(column: readonly number[], others: readonly (readonly number[])[]): boolean {
  const dot = (a: readonly number[], b: readonly number[]): number => a.reduce((sum, v, i) => sum + v * b[i], 0);
  const known: number[][] = [];
  const rest = (of: readonly number[]): number[] => {
    let left = [...of];
    for (const k of known) {
      const share = dot(left, k) / dot(k, k);
      left = left.map((v, i) => v - share * k[i]);
    }
    return left;
  };
  const isSome = (of: readonly number[]): boolean => dot(of, of) > 1e-12;
  for (const other of others) {
    const left = rest(other);
    if (isSome(left)) known.push(left);
  }
  return isSome(rest(column));
}
/** A motion that the wheels tell apart from the others is one that they can make; to slide none may hold sideways. */
export function canOf(wheels: readonly WheelPlace[]): Can {
  const rows = wheels.map(rowOf);
  const [ahead, left, turn] = [0, 1, 2].map((c) => rows.map((r) => r[c]));
  return {
    drive: isNew(ahead, []),
    turn: isNew(turn, [ahead]),
    slide: isNew(left, [ahead, turn]) && wheels.every((w) => w.rim === 'rollers')
  };
}
