/** How the trace is looked at: the stretch of time, two cursors, the arrangement of the lanes, the run beside. */
import type { Alignment } from '../../../../core/trace/compare.ts';
import type { Finding } from '../../../../core/trace/findings/findings.ts';
import type { Run } from '../runs.svelte.ts';
import { arrange, asItIs, lanesWith, type Arrangement, type Lane } from './lanes.ts';

export type Tool = 'findings' | 'measure' | 'table' | 'times' | 'search' | 'log' | 'lanes' | 'runs' | 'differences';
/** So many findings are seen at first. */
export const AT_FIRST_SIGHT = 5;
const STORE = 'mossbell.lanes';

export class TraceView {
  /** chosen by the person; otherwise the whole run */
  range = $state.raw<[number, number]>();
  /** the two cursors, µs */
  a = $state<number>();
  b = $state<number>();
  tool = $state<Tool>();
  /** the finding that is pointed at: in the list, on the axis or in the yard */
  lit = $state.raw<Finding>();
  /** channels that a finding is about: only their lanes are drawn */
  only = $state.raw<readonly string[]>();
  /** the run that is drawn beside: the last one, the device's, or one that was chosen */
  beside = $state.raw<'last' | 'device' | 'nothing' | Run>('device');
  align = $state<Alignment>('start');
  arrangement = $state.raw<Arrangement>(asItIs());

  constructor(private readonly device: string) {
    if (typeof localStorage === 'undefined') return;
    try {
      const kept = JSON.parse(localStorage.getItem(`${STORE}.${device}`) ?? 'null') as Partial<Arrangement> | null;
      if (kept) this.arrangement = { ...asItIs(), ...kept };
    } catch {
      // what cannot be read is forgotten
    }
  }
  put(a: Arrangement): void {
    this.arrangement = a;
    localStorage.setItem(`${STORE}.${this.device}`, JSON.stringify(a));
  }
  lanes(all: readonly Lane[]): Lane[] {
    if (!this.only) return arrange(all, this.arrangement);
    // there is room: what shows it is drawn high
    return lanesWith(all, this.only).map((l) => (l.kind === 'curve' ? { ...l, height: 56 } : l));
  }
  get selection(): [number, number] | undefined {
    const { a, b } = this;
    return a === undefined || b === undefined || a === b ? undefined : a < b ? [a, b] : [b, a];
  }
  toggle(tool: Tool): void {
    this.tool = this.tool === tool ? undefined : tool;
  }
  /** The stretch around something, and only the lanes that show it. */
  show(fromUs: number, toUs: number, channels?: readonly string[]): void {
    const margin = Math.max(300_000, (toUs - fromUs) * 0.4);
    this.range = [Math.max(0, fromUs - margin), toUs + margin];
    this.only = channels?.length ? channels : undefined;
  }
  whole(): void {
    this.range = undefined;
    this.only = undefined;
  }
}
