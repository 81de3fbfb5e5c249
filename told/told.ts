/**
 * How much is told: npm run told. Takes the demo projects and the errands' models, makes single small changes to them, runs
 * each, keeps those that differ for somebody who watches, and counts those about which the look-over or a finding says
 * something new at the changed block, next to it, or at the first block whose effect differs. A mere amount can be right: it
 * counts where an errand's goals say what was meant. Then the other way round: whatever is said of a right program counts
 * against it, unless a person wrote down why it is true (told/true.json).
 *
 *   npm run told                  a seeded sample, within three minutes
 *   npm run told -- --all         every change
 *   npm run told -- --silent 20   lists so many examples of which nothing is said
 *   npm run told -- --kind sign   of one kind alone
 */
import '../core/run/exact-math.ts';
import { readFileSync } from 'node:fs';
import { AMOUNTS, smallChanges, WRONG, type Change, type ChangeKind } from '../core/language/changes.ts';
import { lookOver } from '../core/language/lookover/lookover.ts';
import { sentence } from '../core/language/catalogue.ts';
import { partName, type Kit } from '../core/kit/kit.ts';
import { allSteps, liveSteps, type Program } from '../core/language/program.ts';
import { printPython } from '../core/language/python/print.ts';
import { readPython } from '../core/language/python/read.ts';
import { makeRoutine, putIntoLoop, stretch } from '../core/language/refactor.ts';
import { isListed, tried } from '../core/errand/proof.ts';
import { tryOptions } from '../core/errand/try.ts';
import { yardsOf } from '../core/errand/yards.ts';
import type { Errand } from '../core/errand/errand.ts';
import type { Project } from '../core/project.ts';
import { LIMIT_S } from '../core/run/spec.ts';
import { rehearse } from '../core/run/interpreter.ts';
import type { RunOptions } from '../core/run/spec.ts';
import { findings } from '../core/trace/findings/findings.ts';
import { sinceBefore } from '../core/trace/findings/since.ts';
import { sameBehaviour } from '../core/trace/same.ts';
import type { Input } from '../core/trace/inputs.ts';
import type { TimedInput, Trace } from '../core/trace/trace.ts';
import { demoErrands, demoProjects } from '../demo/seed.ts';

const argument = (name: string): string | undefined => {
  const at = process.argv.indexOf(`--${name}`);
  return at < 0 ? undefined : (process.argv[at + 1] ?? '');
};
const ALL = process.argv.includes('--all');
const SAMPLE = 420;
const WATCHED_S = 40;
const LISTED = Number(argument('silent') ?? 8);

/** What people do in a run of a program: each button and key that it listens to, its sticks, the word. */
function handsOf(program: Program): TimedInput[] {
  const out: TimedInput[] = [];
  let t = 0.5;
  const at = (seconds: number, input: Input): void => void out.push({ tUs: Math.round(seconds * 1e6), input });
  const done = new Set<string>();
  for (const { kind, slots } of liveSteps(program)) {
    const key = `${kind.split('.')[1]} ${String(slots.key ?? slots.button ?? slots.stick ?? '')}`;
    if (done.has(key)) continue;
    done.add(key);
    if (kind === 'begin.key' || kind === 'sense.key') {
      at(t, { key: String(slots.key), down: true });
      at(t + 0.8, { key: String(slots.key), down: false });
      t += 1.2;
    } else if (kind === 'begin.button' || kind === 'sense.button') {
      at(t, { press: slots.button as 'Dot' });
      at(t + 1.2, { release: slots.button as 'Dot' });
      t += 3;
    } else if (kind === 'sense.stick') {
      for (const where of [60, -100, 0]) at((t += 0.6), { stick: slots.stick as 'left, up-down', at: where });
    } else if (kind === 'begin.before') at(2, { word: true });
    else if (kind === 'begin.moved' || kind === 'begin.dip') {
      at(t, { lean: { sideways: 40, forwards: 0 } });
      at(t + 1, { lean: { sideways: -40, forwards: 30 } });
      at(t + 2, { toss: 60 });
      t += 4;
    } else if (kind === 'sense.temperature' || kind === 'sense.light') {
      at(t, { around: { light: 80, temperature: -2 } });
      at(t + 3, { around: { light: 20, temperature: 15 } });
      t += 4;
    }
  }
  return out.sort((a, b) => a.tUs - b.tUs);
}

/** A program that does what it is meant to, and where. */
type Right = { name: string; program: Program; kit: Kit; options: RunOptions; errand?: Errand };
const ofDemo = (name: string, p: Project): Right => ({
  name,
  program: p.program,
  kit: p.kit,
  options: { ...p, seed: 1, inputs: handsOf(p.program), limitS: WATCHED_S }
});
const ofErrand = (e: Errand): Right => ({
  name: `errand ${e.id}`,
  program: e.model,
  kit: e.kit,
  errand: e,
  options: { limitS: LIMIT_S, ...tryOptions(e, yardsOf(e, e)[0], e.model) }
});
const rights: Right[] = [
  ...demoProjects().flatMap(([name, p]) => (p.text === undefined ? [ofDemo(name, p)] : [])),
  ...demoErrands().map(ofErrand)
];

type Said = { rule: string; blocks: readonly string[]; says: string };
function said(right: Right, program: Program, trace: Trace): Said[] {
  const all = { ...right.options, program };
  const flat = (f: ReturnType<typeof findings>): Said[] => f.flatMap((one) => [one, ...flat(one.more ?? [])]);
  return [
    ...lookOver({ program, kit: right.kit, mat: all.mat, others: all.others ?? undefined }),
    ...flat(findings(trace, right.kit, program))
  ];
}
const keyOf = ({ rule, blocks }: Said): string => `${rule} ${blocks.join(' ')}`;

/** By name, so that the same changes are taken each time. */
function chosen(changes: { right: Right; change: Change }[]): { right: Right; change: Change }[] {
  const only = argument('kind');
  const of = only === undefined ? changes : changes.filter(({ change }) => change.kind === only);
  if (ALL || of.length <= SAMPLE) return of;
  const step = of.length / SAMPLE;
  return Array.from({ length: SAMPLE }, (_, i) => of[Math.floor(i * step)]);
}
type Count = {
  differ: number;
  told: number;
  /** with the goals that an errand's model misses then */
  goals: number;
  /** with what the run before adds */
  since: number;
};
const counts = new Map<ChangeKind, Count>();
const silent: string[] = [];
const base = new Map<Right, { trace: Trace; said: Set<string> }>();
const baseOf = (right: Right): { trace: Trace; said: Set<string> } => {
  const known = base.get(right);
  if (known) return known;
  base.clear();
  const trace = rehearse({ ...right.options, program: right.program });
  const found = { trace, said: new Set(said(right, right.program, trace).map(keyOf)) };
  base.set(right, found);
  return found;
};
const began = performance.now();
const all = rights.flatMap((right) => [...smallChanges(right.program)].map((change) => ({ right, change })));
for (const { right, change } of chosen(all)) {
  const amount = (AMOUNTS as readonly string[]).includes(change.kind);
  // nobody can know what a demo's numbers were meant to be
  if (amount && !right.errand) continue;
  // nor is wrong what an errand's author says is right too
  if (right.errand && isListed(right.errand, change)) continue;
  const { trace: before, said: known } = baseOf(right);
  const trace = rehearse({ ...right.options, program: change.program });
  const differs = sameBehaviour(before, trace);
  if (differs.same) continue;
  const count = counts.get(change.kind) ?? { differ: 0, told: 0, goals: 0, since: 0 };
  counts.set(change.kind, count);
  count.differ++;
  const here = new Set([...change.blocks, ...(differs.block ? [differs.block] : [])]);
  const fresh = said(right, change.program, trace).filter(
    (s) => !known.has(keyOf(s)) && s.blocks.some((b) => here.has(b))
  );
  const missed = !!right.errand && !tried(right.errand, change.program).met;
  const ran = { trace, program: change.program, kit: right.kit };
  const since = sinceBefore({ trace: before, program: right.program, kit: right.kit }, ran);
  if (fresh.length || (amount && missed)) count.told++;
  if (fresh.length || missed) count.goals++;
  if (fresh.length || missed || since?.blocks.some((b) => here.has(b))) count.since++;
  if (!fresh.length && !missed) {
    const step = [...allSteps(right.program)].find((s) => s.id === change.blocks[0]);
    silent.push(
      `${change.kind} | ${right.name} | ${step ? sentence(step, right.program, (s) => partName(right.kit, s)) : ''} | ${differs.says} (${(differs.atUs / 1e6).toFixed(2)} s)`
    );
  }
}
const share = ({ told, differ, goals, since }: Count): string =>
  `${told} of ${differ} (${goals} with goals, ${since} with the run before)`;
const sum = (kinds: readonly ChangeKind[]): Count =>
  kinds.reduce(
    (a, kind) => {
      const { differ = 0, told = 0, goals = 0, since = 0 } = counts.get(kind) ?? {};
      return {
        differ: a.differ + differ,
        told: a.told + told,
        goals: a.goals + goals,
        since: a.since + since
      };
    },
    { differ: 0, told: 0, goals: 0, since: 0 }
  );
const of100 = (n: number, c: Count): number => Math.round((100 * n) / Math.max(1, c.differ));
console.log(
  `${all.length} changes, ${ALL ? 'all' : 'a sample'} of them run, ${Math.round((performance.now() - began) / 1000)} s`
);
for (const [title, kinds] of [
  ['wrong in themselves', WRONG],
  ['amounts, where a goal says what was meant', AMOUNTS]
] as const) {
  const total = sum(kinds);
  console.log(
    `\n${title}: ${share(total)}: ${of100(total.told, total)} of 100 by look-over and findings of the run alone, ${of100(total.goals, total)} with an errand's goals, ${of100(total.since, total)} with what it differs in from the run before (asked: 80)`
  );
  for (const kind of kinds) if (counts.has(kind)) console.log(`  ${kind.padEnd(24)} ${share(counts.get(kind)!)}`);
}
silent.sort();
console.log(`\nsilent (${silent.length}):`);
const every = Math.max(1, silent.length / LISTED);
for (let i = 0; i < silent.length && i / every < LISTED; i += every) console.log(`  ${silent[Math.floor(i)]}`);

/** Programs that do the same as a right one: through text and back, with a loop or a routine made of what is there. */
function* others(right: Right): Generator<{ how: string; program: Program }> {
  const { program, kit } = right;
  yield { how: 'as it is', program };
  const read = readPython(printPython(program, kit).text, kit);
  if (read.ok) yield { how: 'through text', program: read.program };
  for (const { id } of program.stacks.flatMap((s) => s.steps.slice(1))) {
    if (!stretch(program, [id])) continue;
    const loop = putIntoLoop(program, [id]);
    if (loop.ok) yield { how: `a loop round ${id}`, program: loop.program };
    const routine = makeRoutine(program, [id], 'part');
    if (routine.ok) yield { how: `a routine of ${id}`, program: routine.program };
  }
}
const TRUE = JSON.parse(readFileSync(new URL('./true.json', import.meta.url), 'utf8')) as Record<
  string,
  Record<string, string>
>;
let looked = 0;
const against = new Map<string, { n: number; says: string }>();
for (const right of rights) {
  for (const { how, program } of others(right)) {
    if (!ALL && looked >= 300) break;
    looked++;
    const trace = rehearse({ ...right.options, program });
    for (const { rule, says } of said(right, program, trace)) {
      if (TRUE[right.name]?.[rule] ?? TRUE['*']?.[rule]) continue;
      const key = `${right.name} | ${rule}`;
      against.set(key, { n: (against.get(key)?.n ?? 0) + 1, says: `${says} (${how})` });
    }
  }
}
console.log(`\nsaid of ${looked} right programs, and not in told/true.json: ${against.size} (asked: 0)`);
for (const [key, { n, says }] of against) console.log(`  ${key} | ${n} times | ${says}`);
console.log(`\n${Math.round((performance.now() - began) / 1000)} s`);
