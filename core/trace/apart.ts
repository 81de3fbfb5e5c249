/** What a trace holds sorted apart (events by type, changes by variable), kept up as the trace grows; and where a time lies. */
import type { Trace, TraceEvent } from './trace.ts';

type Type = TraceEvent['type'];
export type EventOf<T extends Type> = Extract<TraceEvent, { type: T }>;
type Sorted = {
  events: number;
  byType: Map<Type, TraceEvent[]>;
  plots: Map<string, EventOf<'plot'>[]>;
  lamps: Map<string, EventOf<'lamp'>[]>;
  /** which stack each task is of: its place among the stacks that began, in the order in which they first did */
  stacks: Map<number, number>;
  starters: string[];
  changes: number;
  byVariable: number[][];
  spans: number;
  byBlock: number[][];
};
const sorted = new WeakMap<Trace, Sorted>();

function put<K, V>(lists: Map<K, V[]>, key: K, value: V): void {
  const list = lists.get(key);
  if (list) list.push(value);
  else lists.set(key, [value]);
}
function of(trace: Trace): Sorted {
  let s = sorted.get(trace);
  if (!s) {
    s = {
      events: 0,
      byType: new Map(),
      plots: new Map(),
      lamps: new Map(),
      stacks: new Map(),
      starters: [],
      changes: 0,
      byVariable: [],
      spans: 0,
      byBlock: []
    };
    sorted.set(trace, s);
  }
  for (; s.events < trace.events.length; s.events++) {
    const e = trace.events[s.events];
    put(s.byType, e.type, e);
    if (e.type === 'plot') put(s.plots, e.name, e);
    if (e.type === 'lamp') put(s.lamps, e.lamp, e);
    if (e.type === 'began') {
      const starter = e.block ?? '';
      const at = s.starters.indexOf(starter);
      s.stacks.set(e.task, at < 0 ? s.starters.push(starter) - 1 : at);
    }
  }
  for (; s.spans < trace.spans.count; s.spans++) (s.byBlock[trace.spans.block[s.spans]] ??= []).push(s.spans);
  for (; s.changes < trace.changes.count; s.changes++) {
    const variable = trace.changes.variable[s.changes];
    (s.byVariable[variable] ??= []).push(s.changes);
  }
  return s;
}
/** The events of one type, in the order of time. */
export const eventsOf = <T extends Type>(trace: Trace, type: T): readonly EventOf<T>[] =>
  (of(trace).byType.get(type) ?? []) as EventOf<T>[];
/** What was plotted, by name, in the order in which the names came. */
export const plotsOf = (trace: Trace): ReadonlyMap<string, readonly EventOf<'plot'>[]> => of(trace).plots;
/** What was switched, by lamp. */
export const lampsOf = (trace: Trace): ReadonlyMap<string, readonly EventOf<'lamp'>[]> => of(trace).lamps;
/** Starters of the stacks that began, in the order in which they first did. */
export const startersOf = (trace: Trace): readonly string[] => of(trace).starters;
/** The stack that a task runs, by its place in `startersOf`. */
export const stackOf = (trace: Trace, task: number): number => of(trace).stacks.get(task) ?? 0;
/** Rows of `spans` that are a block's, in the order they began. */
export const rowsOfBlock = (trace: Trace, id: string): readonly number[] =>
  of(trace).byBlock[trace.header.blocks.indexOf(id)] ?? [];
/** Rows of `changes` that are a variable's, by its place in `names`, in the order of time. */
export const rowsOf = (trace: Trace, variable: number): readonly number[] => of(trace).byVariable[variable] ?? [];

/** @returns how many of `count` things, sorted by time, come up to t (those at t too) */
export function upTo(count: number, timeOf: (i: number) => number, tUs: number): number {
  let low = 0;
  let high = count;
  while (low < high) {
    const mid = (low + high) >> 1;
    if (timeOf(mid) <= tUs) low = mid + 1;
    else high = mid;
  }
  return low;
}
/** Index of the first event after t, in a list in the order of time. */
export const firstAfter = (list: readonly { tUs: number }[], tUs: number): number =>
  upTo(list.length, (i) => list[i].tUs, tUs);
/** The last event of a list at or before t. */
export const lastBy = <E extends { tUs: number }>(list: readonly E[], tUs: number): E | undefined =>
  list[firstAfter(list, tUs) - 1];
