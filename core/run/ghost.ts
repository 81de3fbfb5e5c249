/**
 * The path that a move block asks for, by geometry alone: no motors, no slip. Arcs go round the instantaneous centre of
 * curvature, R = (l/2) (v_l + v_r) / (v_r - v_l) (Dudek and Jenkin, Computational Principles of Mobile Robotics).
 */
import { abilities, diameterMm, meanDiameterMm, placesOf, trackMm, type Kit } from '../kit/kit.ts';
import { FULL_SPEED } from '../kit/ranges.ts';
import { rowOf } from '../kit/rolling.ts';
import { definition } from '../language/catalogue.ts';
import type { Path } from '../language/define.ts';
import type { Step } from '../language/program.ts';
import { typedNumber } from '../language/values.ts';
import type { Pose } from '../yard/mat.ts';
import { lengthIn } from '../yard/profile.ts';

/** Poses along the way, the start first; m and degrees clockwise from up. */
export type Ghost = Pose[];
const RAD = Math.PI / 180;
const PIECES = 48;

/** Turned by `turnDeg` clockwise while the middle rolls `lengthM` ahead. */
function along({ x, y, facingDeg }: Pose, lengthM: number, turnDeg: number): Pose {
  const facing = facingDeg * RAD;
  const turn = turnDeg * RAD;
  if (Math.abs(turn) < 1e-9) return { x: x + lengthM * Math.sin(facing), y: y + lengthM * Math.cos(facing), facingDeg };
  const radius = lengthM / turn;
  return {
    x: x + radius * (Math.cos(facing) - Math.cos(facing + turn)),
    y: y + radius * (Math.sin(facing + turn) - Math.sin(facing)),
    facingDeg: (((facingDeg + turnDeg) % 360) + 360) % 360
  };
}
/** Poses along a way; towards another direction than ahead it faces as before. */
function posesOf({ lengthM = 0, turnDeg = 0, towardsDeg, facingDeg }: Path, from: Pose): Ghost {
  const begin = { ...from, facingDeg: facingDeg ?? from.facingDeg + (towardsDeg ?? 0) };
  return Array.from({ length: PIECES + 1 }, (_, n) => {
    const at = along(begin, (lengthM * n) / PIECES, (turnDeg * n) / PIECES);
    return towardsDeg === undefined ? at : { ...at, facingDeg: from.facingDeg };
  });
}

/** @returns the way of a move block whose numbers are typed in; nothing for other blocks */
export function ghostOf(step: Step, kit: Kit, from: Pose, startFacingDeg: number): Ghost | undefined {
  const def = definition(step.kind);
  if (!('path' in def) || !def.path || !(def.needs ?? []).every((need) => abilities(kit).has(need))) return undefined;
  const n = (slot: string): number => {
    const value = step.slots[slot];
    const number = typeof value === 'number' ? value : typeof value === 'string' ? typedNumber(value) : undefined;
    return number ?? NaN;
  };
  const { unit, ending } = step.slots;
  const inTime = (s: number, v: number): number =>
    v > 0 && s > 0 ? lengthIn(s, v, kit.board.accelerationCmS2 / 100, ending === 'brake') : 0;
  /** @param rims how far the rim that rolls furthest goes for each metre over the ground */
  const measured = (diameterM: number, v: number, rims = 1): number => {
    const amount = n('amount');
    if (unit === 's') return inTime(amount, v * rims) / rims;
    return unit === 'wheel turns' ? (amount * Math.PI * diameterM) / rims : amount / 100;
  };
  const rimsTowards = (deg: number): number =>
    Math.max(
      ...placesOf(kit.wheels).map((w) => {
        const [ahead, left] = rowOf(w);
        return Math.abs(ahead * Math.cos(deg * RAD) - left * Math.sin(deg * RAD));
      })
    );
  const asked = def.path(step, {
    n,
    facingDeg: from.facingDeg,
    startFacingDeg,
    length: (towardsDeg) => {
      const speed = (Math.min(100, Math.abs(n('power'))) / 100) * FULL_SPEED;
      return measured(meanDiameterMm(kit) / 1000, speed, rimsTowards(towardsDeg));
    },
    sides: (left, right) => {
      const [l, r] = [left, right].map((v) => Math.max(-1, Math.min(1, v)));
      const top = Math.max(Math.abs(l), Math.abs(r));
      const faster = diameterMm(kit, Math.abs(l) >= Math.abs(r) ? 'left' : 'right') / 1000;
      const length = top > 0 ? measured(faster, top * FULL_SPEED) / top : 0;
      return { lengthM: (length * (l + r)) / 2, turnDeg: (length * (l - r)) / (trackMm(kit) / 1000) / RAD };
    }
  });
  const ghost = posesOf(asked, from);
  return ghost.every((p) => Number.isFinite(p.x) && Number.isFinite(p.y)) ? ghost : undefined;
}
