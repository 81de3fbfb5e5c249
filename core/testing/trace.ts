/** Traces written by hand: what a question or a rule is to answer, to the digit, without a robot that drives. */
import { channelSpecs } from '../run/channels.ts';
import { barrow } from '../kit/kit.ts';
import { askedAndGot } from '../trace/query.ts';
import type { Found, Rule } from '../trace/findings/finding.ts';
import type { Program } from '../language/program.ts';
import { Recorder } from '../trace/recorder.ts';
import type { Conditions, Ended, Trace, TraceEvent } from '../trace/trace.ts';
import { hall } from './build.ts';
import { header } from './header.ts';

type At = number | ((tMs: number) => number);
/** What was so at the end of each millisecond, by channel (0 where nothing is said), what happened, and which blocks ran. */
export type Written = {
  ms: number;
  channels?: Record<string, At>;
  events?: TraceEvent[];
  /** block, from and to, ms; `times` of a bundle */
  spans?: [block: string, fromMs: number, toMs: number, times?: number][];
  changes?: [name: string, ms: number, value: number][];
  ended?: Ended;
  start?: Conditions['start'];
  wheels?: { left: string; right: string };
};
/** Channels are those of a Barrow, so that a rule finds what it asks for. */
export function written({ ms, channels = {}, events = [], spans = [], changes = [], ...rest }: Written): Trace {
  const blocks = [...new Set(spans.map(([block]) => block))];
  const specs = channelSpecs(barrow, hall);
  const run = { ...header.run, ...(rest.start ? { start: rest.start } : {}) };
  const recorder = new Recorder({ ...header, blocks, run, ...(rest.wheels ? { wheels: rest.wheels } : {}) }, specs);
  const of = specs.map(({ key }): ((t: number) => number) => {
    const at = channels[key] ?? 0;
    return typeof at === 'number' ? () => at : at;
  });
  for (let t = 1; t <= ms; t++) recorder.sample(Float64Array.from(of, (at) => at(t)));
  const { trace } = recorder;
  for (const e of events) trace.events.push(e);
  for (const [block, from, to, times = 1] of spans) {
    const row = recorder.begin(blocks.indexOf(block), 0, from * 1000);
    recorder.end(row, to * 1000);
    trace.spans.times[row] = times;
  }
  for (const [name, at, value] of changes) recorder.change(name, at * 1000, value);
  recorder.finish(rest.ended ?? 'done', ms * 1000);
  return trace;
}
/** What one rule has to say of it. */
export const ruled = (rule: Rule, of: Written, program?: Program): Found[] => {
  const trace = written(of);
  return rule({ trace, kit: barrow, program, moves: askedAndGot(trace) });
};
