/** since-before: a run that differs from the run before by one change of the program: what that change did. */
import { partName, type Kit } from '../../kit/kit.ts';
import { sentence } from '../../language/catalogue.ts';
import { differences, type Difference } from '../../language/differ.ts';
import { isStep, walkSteps, type Program, type Step } from '../../language/program.ts';
import { say } from '../../words.ts';
import { sameBehaviour } from '../same.ts';
import { recordedInputs } from '../track.ts';
import type { Trace } from '../trace.ts';
import type { Finding } from './finding.ts';

type Ran = { trace: Trace; program: Program; kit: Kit };

/** The statement that each block stands in, itself or as one of its values; and those next to it. */
function statements(program: Program): Map<string, { step: Step; next: string[] }> {
  const found = new Map<string, { step: Step; next: string[] }>();
  const values = (step: Step): Step[] =>
    Object.values(step.slots).flatMap((v) => (isStep(v) ? [...walkSteps([v])] : []));
  const look = (list: readonly Step[], round: string[]): void =>
    list.forEach((step, i) => {
      const next = [list[i - 1]?.id, list[i + 1]?.id, ...round].filter((id) => id !== undefined);
      for (const s of [step, ...values(step)]) found.set(s.id, { step, next });
      for (const body of Object.values(step.bodies ?? {})) look(body, [step.id]);
    });
  for (const { steps } of [...program.stacks, ...program.routines]) look(steps, []);
  return found;
}
/** The one statement in which two programs differ, if there is only one. */
function theOne(
  was: Program,
  is: Program
): { what: Difference['what']; step: Step; old?: Step; near: string[] } | undefined {
  const [before, after] = [statements(was), statements(is)];
  const changed = new Map<string, { what: Difference['what']; step: Step; old?: Step; near: string[] }>();
  for (const d of differences(was, is)) {
    const { id } = (d.is ?? d.was)!;
    const at = d.what === 'gone' ? before.get(id) : after.get(id);
    if (!at) return undefined;
    const { step, next } = at;
    // a block that goes takes with it what it holds
    const own = step.id === id;
    const known = changed.get(step.id);
    const what = own || known?.what === 'gone' || known?.what === 'new' ? (known?.what ?? d.what) : 'changed';
    const here = before.has(step.id) && after.has(step.id);
    changed.set(step.id, { what: own && !here ? d.what : what, step, old: before.get(step.id)?.step, near: next });
  }
  const inside = new Set(
    [...changed.values()].flatMap(({ step }) =>
      Object.values(step.bodies ?? {}).flatMap((b) => [...walkSteps(b)].map((s) => s.id))
    )
  );
  const outer = [...changed].filter(([id, { what }]) => !(inside.has(id) && what !== 'changed' && what !== 'moved'));
  return outer.length === 1 ? outer[0][1] : undefined;
}

/** All else that decides a run: another start, another seed, a button pressed at another moment may be why it differs. */
const around = (trace: Trace): string => JSON.stringify([trace.header.run, recordedInputs(trace)]);
/** @param before the run before, of the same machine in the same yard */
export function sinceBefore(before: Ran, now: Ran): Finding | undefined {
  const [a, b] = [before.trace.header.hashes, now.trace.header.hashes];
  if (a.kit !== b.kit || a.mat !== b.mat || a.program === b.program) return undefined;
  if (around(before.trace) !== around(now.trace)) return undefined;
  const one = theOne(before.program, now.program);
  if (!one) return undefined;
  const same = sameBehaviour(before.trace, now.trace);
  if (same.same) return undefined;
  const words = (step: Step, { program, kit }: Ran): string =>
    sentence(step, program, (socket) => partName(kit, socket));
  const block = words(one.step, one.what === 'gone' ? before : now);
  const says = { block, was: one.old ? words(one.old, before) : '', what: same.says };
  return {
    rule: 'since-before',
    weight: 50,
    says: {
      gone: say('Since the run before, "{block}" is left out. {what}', says),
      new: say('Since the run before, "{block}" is new. {what}', says),
      moved: say('Since the run before, "{block}" stands elsewhere. {what}', says),
      changed: say('Since the run before, "{was}" became "{block}". {what}', says)
    }[one.what],
    todo: say('If that is not what you meant, undo it. Say first what should happen, and it can be compared.'),
    blocks: [...(one.what === 'gone' ? [] : [one.step.id]), ...one.near, ...(same.block ? [same.block] : [])].filter(
      (id, i, all) => all.indexOf(id) === i
    ),
    fromUs: same.atUs,
    toUs: same.atUs,
    lanes: []
  };
}
