/** The person's hand on the device: what it does becomes inputs of the run; how the device is held is read off the trace. */
import type { Lean } from '../../../../core/yard/hand.ts';
import { LEVEL } from '../../../../core/yard/hand.ts';
import type { Input } from '../../../../core/trace/trace.ts';

/** A hand's lean is told so often, ms. */
const EVERY_MS = 33;
/** After so long the trace has what the hand did, on a slow computer too, ms. */
const TRUST_MS = 1000;
const limit = (deg: number): number => Math.max(-180, Math.min(180, Math.round(deg * 10) / 10));

/** Whom the hand is on: how that device is, and who takes what is done to it. */
export type Held = {
  readonly values: Record<string, number> | undefined;
  give(input: Input): void;
  press(button: 'Dot' | 'Bar', down: boolean): void;
};
export class HandOn {
  /** while it is being leaned: not yet in the trace */
  private going = $state.raw<Lean>();
  held = $state.raw<readonly string[]>([]);
  soil = $state(false);
  /** cm */
  height = $state(60);
  /** newtons */
  strength = $state(6);
  private timer: ReturnType<typeof setTimeout> | undefined;
  private trusted: ReturnType<typeof setTimeout> | undefined;
  private told = 0;

  constructor(private readonly on: Held) {}

  get lean(): Lean {
    if (this.going) return this.going;
    const { values } = this.on;
    return values && 'leanSideways' in values
      ? { sideways: values.leanSideways, forwards: values.leanForwards, turned: values.leanTurned }
      : LEVEL;
  }
  leanTo(lean: Partial<Lean>, soon = false): void {
    clearTimeout(this.trusted);
    const now = { ...this.lean, ...lean };
    this.going = { sideways: limit(now.sideways), forwards: limit(now.forwards), turned: limit(now.turned) };
    if (soon) this.tell();
    else this.timer ??= setTimeout(() => this.tell(), Math.max(0, EVERY_MS - (performance.now() - this.told)));
  }
  private tell(): void {
    clearTimeout(this.timer);
    this.timer = undefined;
    this.told = performance.now();
    if (this.going) this.on.give({ lean: this.going });
  }
  /** The hand keeps it as it is now: from here on the trace knows. */
  keep(): void {
    if (!this.going) return;
    this.tell();
    clearTimeout(this.trusted);
    this.trusted = setTimeout(() => (this.going = undefined), TRUST_MS);
  }
  level(): void {
    this.leanTo(LEVEL, true);
    this.keep();
  }
  touch(what: string, down: boolean): void {
    this.held = down ? [...this.held, what] : this.held.filter((h) => h !== what);
    if (what === 'Dot' || what === 'Bar') this.on.press(what, down);
    else if (what === 'nose') this.on.give({ nose: down });
    else this.on.give({ edge: what === 'left edge' ? 'left' : 'right', touched: down });
  }
  rim(deg: number, down: boolean): void {
    this.on.give({ rim: deg, touched: down });
  }
  intoSoil(is: boolean): void {
    this.soil = is;
    this.on.give({ soil: is });
  }
}
