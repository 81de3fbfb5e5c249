/**
 * Where a run stops to be looked at: before chosen blocks, when a value changes or passes a limit, on contact, and after one
 * step in, over or out. The same for the interpreter and for MicroPython, whose blocks are lines. Values are those of the
 * trace, so that what stops a run is what a person sees.
 */
import type { Bench } from './bench.ts';

/** What is looked at: a variable by its name, or a channel of the trace by its key. */
export type Seen = { variable: string } | { channel: string };
export const SIGNS = ['=', '≠', '<', '>'] as const;
/** A question to one value. */
export type Test = { of: Seen; is: (typeof SIGNS)[number]; than: number | string };
export type Stop =
  /** before a block, if the test holds, from the n-th time on that it comes there */
  | { on: 'block'; block: string; test?: Test; times?: number; off?: boolean }
  | { on: 'change'; of: Seen; off?: boolean }
  /** when the test begins to hold */
  | { on: 'limit'; test: Test; off?: boolean }
  | { on: 'contact'; off?: boolean };
/** How far to go: until a stop, one step, to the next step of this list, out of this list, to a block. */
export type Go = 'on' | 'into' | 'over' | 'out' | { to: string };
export type Why = { stop: Stop } | { step: true } | { here: true };

const NEAR = 1e-9;
/** @returns undefined where the value is not known yet */
function holds(test: Test, value: number | string | undefined): boolean {
  if (value === undefined) return false;
  const { is, than } = test;
  const a = typeof value === 'number' ? value : Number.isNaN(Number(value)) ? value : Number(value);
  const same =
    typeof a === 'number' && typeof than === 'number' ? Math.abs(a - than) < NEAR : String(a) === String(than);
  if (is === '=') return same;
  if (is === '≠') return !same;
  if (typeof a !== 'number' || typeof than !== 'number') return false;
  return is === '<' ? a < than : a > than;
}

export class Stops {
  /** why it stopped last */
  why: Why | undefined;
  private list: readonly Stop[] = [];
  private readonly hits = new Map<Stop, number>();
  private readonly last = new Map<Stop, number | string | boolean | undefined>();
  private go: Go = 'on';
  /** where the step that goes over or out began */
  private from: { task: number; level: number } | undefined;
  private at: { task: number; level: number } | undefined;
  private touches = 0;

  /** @param alive whether a task still runs */
  constructor(
    private readonly bench: Bench,
    private readonly alive: (task: number) => boolean
  ) {}

  set(list: readonly Stop[]): void {
    const known = this.list;
    this.list = list.filter((s) => !s.off);
    for (const stop of this.list)
      if (!known.includes(stop)) {
        if (stop.on === 'change') this.last.set(stop, this.value(stop.of));
        if (stop.on === 'limit') this.last.set(stop, holds(stop.test, this.value(stop.test.of)));
      }
  }
  /** Sets off again. */
  start(go: Go): void {
    this.go = go;
    this.from = this.at;
    this.why = undefined;
  }
  /** Whether there is anything to look at between steps. */
  get looksAtTicks(): boolean {
    return this.list.some((s) => s.on === 'contact' || s.on === 'change' || s.on === 'limit');
  }
  /** Whether there is anything to look at before steps. */
  get looksAtSteps(): boolean {
    return this.go !== 'on' || this.list.length > 0;
  }
  private value(of: Seen): number | string | undefined {
    return 'variable' in of ? (this.bench.recorder.held(of.variable) ?? 0) : this.bench.machine.reading(of.channel);
  }

  /** Before a step: whether to stop there. @param level how deep it is nested in its task */
  before(block: string, task: number, level: number): boolean {
    const why = this.steps(block, task, level) ?? this.blocks(block) ?? this.watched();
    if (!why) return false;
    this.why = why;
    this.at = { task, level };
    this.go = 'on';
    return true;
  }
  private steps(block: string, task: number, level: number): Why | undefined {
    const { go, from } = this;
    if (go === 'on') return undefined;
    if (typeof go === 'object') return go.to === block ? { here: true } : undefined;
    const step: Why = { step: true };
    if (go === 'into' || !from || !this.alive(from.task)) return step;
    if (task !== from.task) return undefined;
    return (go === 'over' ? level <= from.level : level < from.level) ? step : undefined;
  }
  private blocks(block: string): Why | undefined {
    for (const stop of this.list) {
      if (stop.on !== 'block' || stop.block !== block) continue;
      if (stop.test && !holds(stop.test, this.value(stop.test.of))) continue;
      const hits = (this.hits.get(stop) ?? 0) + 1;
      this.hits.set(stop, hits);
      if (hits >= (stop.times ?? 1)) return { stop };
    }
    return undefined;
  }
  /** Values and contacts, at a boundary or before a step. */
  watched(): Why | undefined {
    let why: Why | undefined;
    for (const stop of this.list) {
      if (stop.on === 'change') {
        const now = this.value(stop.of);
        if (now !== this.last.get(stop)) why ??= { stop };
        this.last.set(stop, now);
      } else if (stop.on === 'limit') {
        const now = holds(stop.test, this.value(stop.test.of));
        if (now && !this.last.get(stop)) why ??= { stop };
        this.last.set(stop, now);
      } else if (stop.on === 'contact') {
        const { events } = this.bench.trace;
        for (; this.touches < events.length; this.touches++)
          if (events[this.touches].type === 'touch') why ??= { stop };
      }
    }
    return why;
  }
  /** At a boundary: whether to stop in the middle of whatever goes on. */
  tick(): boolean {
    const why = this.watched();
    if (!why) return false;
    this.why = why;
    this.at = undefined;
    this.go = 'on';
    return true;
  }
}
