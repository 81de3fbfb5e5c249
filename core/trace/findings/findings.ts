/**
 * What a trace shows that the person should know, heaviest first. Pure functions of the trace (and, where a finding is about
 * what the program could have done, of the program that ran), one rule a file. Each names blocks, the moment, the place on
 * the mat, the lanes that show it, and what to try. What only follows from another finding is folded under it.
 */
import type { Kit } from '../../kit/kit.ts';
import type { Program } from '../../language/program.ts';
import { say } from '../../words.ts';
import { askedAndGot, sampleAt, tickAt } from '../query.ts';
import { channel, type Trace } from '../trace.ts';
import { asked } from './asked-and-got.ts';
import { battery } from './battery-used.ts';
import { blocked } from './blocked.ts';
import { clipped } from './clipped.ts';
import { countedOnLevel } from './counted-on-level.ts';
import { cutOff } from './cut-off.ts';
import { drifted } from './drifted.ts';
import { ended } from './ended.ts';
import { error } from './error.ts';
import type { Finding, Found, Rule } from './finding.ts';
import { heardBriefly, litBriefly } from './lit-briefly.ts';
import { mishaps } from './mishaps.ts';
import { unreached } from './never-reached.ts';
import { nothingRan } from './nothing-ran.ts';
import { otherWay } from './other-way.ts';
import { ranBriefly } from './ran-briefly.ts';
import { rolledOnAfter } from './rolled-on.ts';
import { stops } from './rolled-on-stop.ts';
import { sensing } from './sensing-rate.ts';
import { shownBriefly } from './shown-briefly.ts';
import { skippedLoop } from './skipped-loop.ts';
import { slipped } from './slipped.ts';
import { staleDisplay } from './stale-display.ts';
import { takenOver } from './taken-over.ts';
import { touched } from './touched.ts';
import { facedAlready } from './faced-already.ts';
import { servoShort } from './servo-short.ts';
import { wheelStill } from './wheel-still.ts';
import { missed } from './trigger-missed.ts';
import { waits } from './wait-ended-at-once.ts';

export type { Finding } from './finding.ts';

const RULES: readonly Rule[] = [
  error,
  nothingRan,
  ended,
  touched,
  mishaps,
  shownBriefly,
  litBriefly,
  heardBriefly,
  ranBriefly,
  blocked,
  wheelStill,
  servoShort,
  facedAlready,
  takenOver,
  otherWay,
  drifted,
  rolledOnAfter,
  asked,
  stops,
  slipped,
  missed,
  clipped,
  cutOff,
  battery,
  waits,
  sensing,
  countedOnLevel,
  skippedLoop,
  staleDisplay,
  unreached
];

export function findings(trace: Trace, kit: Kit, program?: Program): Finding[] {
  const seen = { trace, kit, program, moves: askedAndGot(trace) };
  const found = together(RULES.flatMap((rule) => rule(seen)))
    .map((f): Finding => ({ ...f, at: f.at ?? placeAt(trace, f.fromUs) }))
    .sort((a, b) => b.weight - a.weight || a.fromUs - b.fromUs);
  return folded(found);
}

/** The same thing at the same block again and again is one finding: its first time, and how often. */
function together(list: Found[]): Found[] {
  const kept = new Map<string, { found: Found; times: number }>();
  for (const found of list) {
    const key = `${found.rule} ${found.blocks.join() || found.says.replace(/[\d.,]+/g, '#')}`;
    const before = kept.get(key);
    if (before) before.times++;
    else kept.set(key, { found, times: 1 });
  }
  return [...kept.values()].map(({ found, times }) =>
    times === 1 ? found : { ...found, says: `${found.says} ${say('({times} times in this run)', { times })}` }
  );
}
function placeAt(trace: Trace, tUs: number): { x: number; y: number } | undefined {
  const [x, y] = ['x', 'y'].map((key) => channel(trace, key));
  if (!x || !y || trace.ticks === 0) return undefined;
  const tick = tickAt(tUs, trace.ticks);
  return { x: sampleAt(x, tick), y: sampleAt(y, tick) };
}

/** What a cause brings with it: told under it, not beside it. */
const NEAR_US = 500_000;
const during = (cause: Finding, f: Finding): boolean =>
  f.fromUs <= cause.toUs + NEAR_US && f.toUs >= cause.fromUs - NEAR_US;
const later = (cause: Finding, f: Finding): boolean => f.toUs >= cause.fromUs;
const always = (): boolean => true;
const CAUSES: readonly { rule: string; brings: readonly string[]; when: (cause: Finding, f: Finding) => boolean }[] = [
  // wheels that are swapped or mirrored: whatever else is off in any move
  ...['turned-the-other-way', 'drove-the-other-way', 'spun'].map((rule) => ({
    rule,
    brings: [
      'turned-the-other-way',
      'drove-the-other-way',
      'spun',
      'asked-and-got',
      'rolled-on',
      'drifted',
      'touched',
      'slipped',
      'blocked',
      'key-other-way'
    ],
    when: always
  })),
  // nothing stopped it, and so it drove against something
  { rule: 'still-driving', brings: ['touched', 'slipped', 'time-limit'], when: later },
  { rule: 'tipped', brings: ['slipped', 'asked-and-got', 'blocked', 'touched'], when: later },
  { rule: 'blocked', brings: ['touched', 'slipped', 'asked-and-got'], when: during },
  { rule: 'touched', brings: ['slipped', 'asked-and-got', 'rolled-on', 'drifted'], when: during },
  // a move that went on into the next one: that one is off too
  { rule: 'drifted', brings: ['rolled-on', 'asked-and-got'], when: during },
  { rule: 'rolled-on', brings: ['asked-and-got'], when: during },
  { rule: 'battery', brings: ['battery-used'], when: always },
  { rule: 'never-reached', brings: ['time-limit'], when: always }
];
function folded(list: Finding[]): Finding[] {
  const gone = new Set<Finding>();
  const more = new Map<Finding, Finding[]>();
  for (const { rule, brings, when } of CAUSES)
    for (const cause of list) {
      if (cause.rule !== rule || gone.has(cause)) continue;
      for (const f of list) {
        if (f === cause || gone.has(f) || !brings.includes(f.rule) || !when(cause, f)) continue;
        gone.add(f);
        more.set(cause, [...(more.get(cause) ?? []), f, ...(more.get(f) ?? [])]);
        more.delete(f);
      }
    }
  return list
    .filter((f) => !gone.has(f))
    .map((f) => (more.has(f) ? { ...f, more: more.get(f)!.sort((a, b) => b.weight - a.weight) } : f));
}
