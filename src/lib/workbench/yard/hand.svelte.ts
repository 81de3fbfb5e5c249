/** The person's hand on the device: what it does becomes inputs of the run; how the device is held is read off the trace. */
import type { Lean } from '../../../../core/yard/hand.ts';
import { LEVEL } from '../../../../core/yard/hand.ts';
import type { Workbench } from '../workbench.svelte.ts';

/** A hand's lean is told so often, ms. */
const EVERY_MS = 33;
/** After so long the trace has what the hand did, on a slow computer too, ms. */
const TRUST_MS = 1000;
const limit = (deg: number): number => Math.max(-180, Math.min(180, Math.round(deg * 10) / 10));

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

  constructor(private readonly w: Workbench) {}

  get lean(): Lean {
    if (this.going) return this.going;
    const values = this.w.runs.view?.values;
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
    if (this.going) this.w.give({ lean: this.going });
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
    if (what === 'Dot' || what === 'Bar') this.w.press(what, down);
    else if (what === 'nose') this.w.give({ nose: down });
    else this.w.give({ edge: what === 'left edge' ? 'left' : 'right', touched: down });
  }
  intoSoil(is: boolean): void {
    this.soil = is;
    this.w.give({ soil: is });
  }
}
