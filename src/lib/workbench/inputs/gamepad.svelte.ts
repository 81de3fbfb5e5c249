/**
 * A gamepad through the browser's Gamepad API (W3C "Gamepad", standard mapping: axes 0 and 1 are the left stick, 2 and 3 the
 * right one, right and down positive). Sticks are read once a frame and told when they changed by a per cent.
 */
import { say } from '../../../../core/words.ts';
import type { Taker } from './taker.ts';

import { STICKS } from '../../../../core/language/blocks/sense.ts';

export { STICKS };

/** @param raw -1 to 1 as the browser has it @returns -100 to 100, up and right positive, nothing inside the dead zone */
export function stickValue(raw: number, axis: number, deadZone: number): number {
  const size = Math.abs(raw);
  if (size <= deadZone) return 0;
  const share = Math.min(1, (size - deadZone) / (1 - deadZone));
  return Math.round(share * 100) * Math.sign(raw) * (axis % 2 ? -1 : 1) || 0;
}

export class GamepadReader {
  name = $state('');
  /** what the sticks give now, and the least and most that each axis has given */
  raw = $state.raw<readonly number[]>([]);
  least = $state.raw<readonly number[]>([]);
  most = $state.raw<readonly number[]>([]);
  /** share of the way in which a stick counts as let go */
  deadZone = $state(0.1);
  lost = $state(false);
  private sent = [0, 0, 0, 0];
  private frame = 0;
  private readonly off: () => void;

  constructor(private readonly w: Taker) {
    const came = (): void => {
      this.lost = false;
      if (!this.frame) this.read();
    };
    const gone = (): void => this.letGo();
    window.addEventListener('gamepadconnected', came);
    window.addEventListener('gamepaddisconnected', gone);
    this.off = () => {
      window.removeEventListener('gamepadconnected', came);
      window.removeEventListener('gamepaddisconnected', gone);
      cancelAnimationFrame(this.frame);
    };
    if (this.pad()) this.read();
  }
  static get possible(): boolean {
    return typeof navigator !== 'undefined' && 'getGamepads' in navigator && isSecureContext;
  }
  private pad(): Gamepad | undefined {
    if (!GamepadReader.possible) return undefined;
    return navigator.getGamepads().find((p) => p !== null) ?? undefined;
  }
  private read(): void {
    const pad = this.pad();
    if (!pad) {
      if (this.name) this.letGo();
      this.frame = 0;
      return;
    }
    this.name = pad.id;
    const raw = pad.axes.slice(0, 4);
    if (raw.some((v, i) => v !== this.raw[i])) {
      this.raw = raw;
      this.least = raw.map((v, i) => Math.min(v, this.least[i] ?? 0));
      this.most = raw.map((v, i) => Math.max(v, this.most[i] ?? 0));
    }
    if (this.w.takesInput)
      raw.forEach((v, axis) => {
        const at = stickValue(v, axis, this.deadZone);
        if (at === this.sent[axis]) return;
        this.sent[axis] = at;
        this.w.give({ stick: STICKS[axis], at });
      });
    this.frame = requestAnimationFrame(() => this.read());
  }
  /** Unplugged: every stick goes to 0, and the trace has it. */
  private letGo(): void {
    if (this.w.takesInput)
      this.sent.forEach((at, axis) => {
        if (at !== 0) this.w.give({ stick: STICKS[axis], at: 0 });
      });
    this.sent = [0, 0, 0, 0];
    if (this.name) {
      this.lost = true;
      this.w.notice = say('The gamepad is unplugged. Its sticks count as let go.');
    }
    this.name = '';
    this.raw = [];
  }
  /** A new run begins: what the sticks give now has to be told again. */
  again(): void {
    this.sent = [0, 0, 0, 0];
  }
  close(): void {
    this.off();
  }
}
