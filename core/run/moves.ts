/** Measured moves under way: who steers which motor, when a move is over, and who takes over from whom. */
import type { Ending, MoveId } from '../language/meaning.ts';
import type { Recorder } from '../trace/recorder.ts';
import type { Motor } from '../yard/motor.ts';
import { NEAR, reference, type Follower, type Profile } from '../yard/profile.ts';

export type Clock = { readonly now: number; readonly worldUs: number };
export type Following = { motor: Motor; follower: Follower };
/** A move that is steered by the gyro: how many degrees clockwise it is off now, at this share of its way. */
export type Steering = {
  off: (share: number) => number;
  /** m at each wheel for a radian clockwise */ rims: readonly number[];
};
/** s in which a heading that is off is put right. */
const PUT_RIGHT_S = 0.15;
/** A gyro turn is over when less than this is left, degrees. */
const NEAR_DEG = 0.25;
type Plan = {
  /** the heading that it keeps to, by the gyro */
  heeds?: Steering;
  list: Following[];
  profile: Profile;
  ending: Ending;
  never: boolean;
  block?: string;
  /** how much came of it, in the unit of the move's event */
  got: () => number;
};
type Move = Plan & {
  /** radians clockwise that it was put right by so far */
  bias: number;
  id: MoveId;
  startUs: number;
  status: 'waiting' | 'going' | 'done' | 'blocked' | 'taken over';
};

const DEG = 180 / Math.PI;
/** m/s that the gyro adds to a wheel at the most */
const FASTEST = 0.12;

export const round6 = (v: number): number => Math.round(v * 1e6) / 1e6 || 0;

export class Moves {
  private made = 0;
  /** those that are not over */
  private readonly alive = new Set<MoveId>();
  private readonly active: Move[] = [];
  private readonly ref = { x: 0, v: 0, a: 0 };
  constructor(
    private readonly clock: Clock,
    private readonly recorder: Recorder
  ) {}

  /** A move that begins when `go` is called, at a tick's boundary. */
  plan(plan: Plan): { id: MoveId; go: () => void } {
    const move: Move = { ...plan, bias: 0, id: ++this.made, startUs: 0, status: 'waiting' };
    this.alive.add(move.id);
    return { id: move.id, go: () => this.go(move) };
  }
  private go(move: Move): void {
    for (const { motor } of move.list) this.release(motor);
    move.status = 'going';
    move.startUs = this.clock.worldUs;
    this.active.push(move);
    for (const { motor } of move.list) motor.state = 'driven';
    if (move.profile.length === 0) this.over(move, 'done');
    else if (move.never) this.over(move, 'blocked');
  }
  isOver(id: MoveId): boolean {
    return !this.alive.has(id);
  }
  get going(): boolean {
    return this.active.length > 0;
  }

  /** A motor gets another command: the move that steered it is taken over. */
  release(motor: Motor): void {
    const before = this.active.find((m) => m.list.some((f) => f.motor === motor));
    if (before) this.over(before, 'taken over', motor);
  }
  letGo(): void {
    for (const move of [...this.active]) this.over(move, 'taken over');
  }

  /** Before a tick: each motor follows its share of the trapezoid. */
  steer(): void {
    for (const move of this.active) {
      reference(move.profile, (this.clock.worldUs - move.startUs) / 1e6, this.ref);
      if (move.heeds) {
        const { off, rims } = move.heeds;
        const share = move.profile.length > 0 ? Math.min(1, this.ref.x / move.profile.length) : 1;
        // each wheel rolls its part of the angle more, or less
        const fastest = FASTEST / Math.max(...rims.map(Math.abs));
        const rate = off(share) / DEG / PUT_RIGHT_S;
        move.bias += Math.max(-fastest, Math.min(fastest, rate)) * 0.001;
        move.list.forEach(({ follower }, i) => (follower.bias = move.bias * rims[i]));
      }
      for (const { motor, follower } of move.list) motor.duty = follower.control(this.ref, motor.counts);
    }
  }
  /** After a tick: which moves are on their mark, out of time, or held. */
  settle(): void {
    for (let i = this.active.length - 1; i >= 0; i--) {
      const move = this.active[i];
      const t = (this.clock.worldUs - move.startUs) / 1e6;
      const { length, time } = move.profile;
      let rest = 0;
      let held = false;
      for (const { motor, follower } of move.list) {
        if (follower.blocked) held = true;
        const gone = follower.travelled(motor.counts) - follower.bias;
        rest = Math.max(rest, (follower.share * length - gone) * Math.sign(follower.share || 1));
      }
      if (move.heeds && t >= time && move.ending === 'brake') {
        const off = Math.abs(move.heeds.off(1));
        if (held) this.over(move, 'blocked');
        else if ((off < NEAR_DEG && rest < 0.001) || t >= time + 1.5) this.over(move, 'done');
        continue;
      }
      if (held) this.over(move, 'blocked');
      else if (move.ending === 'coast' ? rest <= 0 || t > time + 2 : t >= time && (rest < NEAR || t >= time + 0.5))
        this.over(move, 'done');
    }
  }

  private over(move: Move, status: 'done' | 'blocked' | 'taken over', except?: Motor): void {
    move.status = status;
    this.alive.delete(move.id);
    this.active.splice(this.active.indexOf(move), 1);
    for (const { motor } of move.list)
      if (motor !== except) {
        motor.state = status !== 'taken over' && move.ending === 'brake' ? 'brake' : 'coast';
        motor.duty = 0;
      }
    this.recorder.event({
      tUs: this.clock.worldUs,
      ...(move.block ? { block: move.block } : {}),
      type: 'moved',
      id: move.id,
      got: round6(move.got()),
      ended: status
    });
  }
}
