/**
 * The path that a move block asks for, by geometry alone: no motors, no slip. Arcs go round the instantaneous centre of
 * curvature, R = (l/2) (v_l + v_r) / (v_r - v_l) (Dudek and Jenkin, Computational Principles of Mobile Robotics).
 */
import { abilities, diameterMm, meanDiameterMm, placesOf, trackMm, type Kit } from '../kit/kit.ts';
import { rowOf } from '../kit/rolling.ts';
import type { Step } from '../language/program.ts';
import { typedNumber } from '../language/values.ts';
import type { Pose } from '../yard/mat.ts';
import { lengthIn } from '../yard/profile.ts';

/** Poses along the way, the start first; m and degrees clockwise from up. */
export type Ghost = Pose[];
const RAD = Math.PI / 180;
/** 100 % of a measured move, m/s. */
const FULL_SPEED = 0.4;
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
/** Aside or any other way, facing as before. */
const aside = (from: Pose, lengthM: number, directionDeg: number): Ghost =>
  Array.from({ length: PIECES + 1 }, (_, n) => {
    const { x, y } = along({ ...from, facingDeg: from.facingDeg + directionDeg }, (lengthM * n) / PIECES, 0);
    return { ...from, x, y };
  });
const path = (from: Pose, lengthM: number, turnDeg: number): Ghost =>
  Array.from({ length: PIECES + 1 }, (_, n) => along(from, (lengthM * n) / PIECES, (turnDeg * n) / PIECES));

/** @returns the way of a move block whose numbers are typed in; nothing for other blocks */
export function ghostOf(step: Step, kit: Kit, from: Pose, startFacingDeg: number): Ghost | undefined {
  const n = (slot: string): number => {
    const value = step.slots[slot];
    const number = typeof value === 'number' ? value : typeof value === 'string' ? typedNumber(value) : undefined;
    return number ?? NaN;
  };
  if (!abilities(kit).has('drive')) return undefined;
  const mean = meanDiameterMm(kit) / 1000;
  const speed = (Math.min(100, Math.abs(n('power'))) / 100) * FULL_SPEED;
  const inTime = (s: number, v: number): number =>
    v > 0 && s > 0 ? lengthIn(s, v, kit.board.accelerationCmS2 / 100, step.slots.ending === 'brake') : 0;
  /** @param rims how far the rim that rolls furthest goes for each metre over the ground */
  const measured = (diameterM: number, v: number, rims = 1): number => {
    const amount = n('amount');
    if (step.slots.unit === 's') return inTime(amount, v * rims) / rims;
    return step.slots.unit === 'wheel turns' ? (amount * Math.PI * diameterM) / rims : amount / 100;
  };
  const rimsTowards = (deg: number): number =>
    Math.max(
      ...placesOf(kit.wheels).map((w) => {
        const [ahead, left] = rowOf(w);
        return Math.abs(ahead * Math.cos(deg * RAD) - left * Math.sin(deg * RAD));
      })
    );
  const side = step.slots.side === 'left' ? -1 : 1;
  const turn = (by: number): Ghost | undefined => sound(path(from, 0, by));
  switch (step.kind) {
    case 'drive.measure':
      return sound(path(from, measured(mean, speed, rimsTowards(0)) * (step.slots.way === 'back' ? -1 : 1), 0));
    case 'slide.measure': {
      const direction = n('direction');
      return abilities(kit).has('slide')
        ? sound(aside(from, measured(mean, speed, rimsTowards(direction)), direction))
        : undefined;
    }
    case 'drive.facing': {
      const facingDeg = (((startFacingDeg + n('heading')) % 360) + 360) % 360;
      return sound(path({ ...from, facingDeg }, n('amount') / 100, 0));
    }
    case 'turn.angle':
    case 'turn.gyro':
      return turn(side * n('angle'));
    case 'turn.face': {
      const by = startFacingDeg + n('heading') - from.facingDeg;
      return turn(((((by + 180) % 360) + 360) % 360) - 180);
    }
    case 'curve.angle':
      return sound(path(from, (n('radius') / 100) * n('angle') * RAD, side * n('angle')));
    case 'wheels.span': {
      const [l, r] = [n('left') / 100, n('right') / 100].map((v) => Math.max(-1, Math.min(1, v)));
      const top = Math.max(Math.abs(l), Math.abs(r));
      const faster = diameterMm(kit, Math.abs(l) >= Math.abs(r) ? 'left' : 'right') / 1000;
      const length = top > 0 ? measured(faster, top * FULL_SPEED) / top : 0;
      return sound(path(from, (length * (l + r)) / 2, (length * (l - r)) / (trackMm(kit) / 1000) / RAD));
    }
    default:
      return undefined;
  }
}
const sound = (ghost: Ghost): Ghost | undefined =>
  ghost.every((p) => Number.isFinite(p.x) && Number.isFinite(p.y)) ? ghost : undefined;
