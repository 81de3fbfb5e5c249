/** What a class shows at one errand: which goals are missed, which findings come up, which numbers were tried, where it stopped. */
import { allSteps, type Program } from '../language/program.ts';
import type { Told, TryResult } from '../trace/tried.ts';

/** A slot of a block: what begins with the same program has the same ids. */
export type SlotKey = { block: string; kind: string; slot: string };
/** One pupil, or a pair, at the errand. */
export type Work = {
  nickname: string;
  projectId: string;
  /** what the look-over says of the program as it is now */
  remarks: readonly { rule: string; says: string }[];
  /** in the order of time; with the program as it was */
  tries: readonly { at: number; result?: TryResult; told: readonly Told[]; program: Program }[];
};
export type Shown = {
  /** of each goal: who has not met it in any try, and how many have tried at all */
  goals: { missedBy: string[]; of: number }[];
  /** the commonest first, each once a pupil, with the try in which it was last seen */
  found: { rule: string; says: string; pupils: number; nickname: string; projectId: string }[];
  /** the same of what the look-over remarks */
  remarks: Shown['found'];
  /** of each number of the program that more than one value was tried of: who tried what when, and whether all goals were met */
  slots: { key: SlotKey; series: { nickname: string; points: { at: number; value: number; met: boolean }[] }[] }[];
  /** every stopping place, m */
  stops: { nickname: string; projectId: string; x: number; y: number; met: boolean; last: boolean }[];
};

export function shows(works: readonly Work[], goals: number): Shown {
  const tried = works.filter((w) => w.tries.length);
  return {
    goals: Array.from({ length: goals }, (_, i) => ({
      missedBy: tried.filter((w) => !w.tries.some((t) => t.result?.goals?.[i])).map((w) => w.nickname),
      of: tried.length
    })),
    found: commonest(
      tried.flatMap(({ nickname, projectId, tries }) =>
        tries.flatMap(({ told, at }) => told.map((t) => ({ ...t, at, nickname, projectId })))
      )
    ),
    remarks: commonest(
      works.flatMap(({ nickname, projectId, remarks }) => remarks.map((r) => ({ ...r, at: 0, nickname, projectId })))
    ),
    slots: slotsOf(tried),
    stops: tried.flatMap(({ nickname, projectId, tries }) =>
      tries.flatMap(({ result }, i) =>
        result?.stop ? [{ nickname, projectId, ...result.stop, met: result.met, last: i === tries.length - 1 }] : []
      )
    )
  };
}
type Said = { rule: string; says: string; at: number; nickname: string; projectId: string };
function commonest(said: readonly Said[]): Shown['found'] {
  const byRule = new Map<string, Said & { who: Set<string> }>();
  for (const one of said) {
    const known = byRule.get(one.rule);
    if (!known) byRule.set(one.rule, { ...one, who: new Set([one.nickname]) });
    else {
      known.who.add(one.nickname);
      if (one.at > known.at) Object.assign(known, one);
    }
  }
  return [...byRule.values()]
    .sort((a, b) => b.who.size - a.who.size || b.at - a.at)
    .map(({ rule, says, who, nickname, projectId }) => ({ rule, says, pupils: who.size, nickname, projectId }));
}
/** The numbers in the slots of a program; a slot that holds a block is none. */
const numbersOf = (program: Program): { key: SlotKey; value: number }[] =>
  [...allSteps(program)].flatMap(({ id, kind, slots }) =>
    Object.entries(slots).flatMap(([slot, value]) =>
      typeof value === 'number' ? [{ key: { block: id, kind, slot }, value }] : []
    )
  );
function slotsOf(works: readonly Work[]): Shown['slots'] {
  const bySlot = new Map<string, Shown['slots'][number]>();
  for (const { nickname, tries } of works)
    for (const { at, result, program } of tries)
      for (const { key, value } of numbersOf(program)) {
        const id = `${key.block} ${key.slot}`;
        let slot = bySlot.get(id);
        if (!slot) bySlot.set(id, (slot = { key, series: [] }));
        let series = slot.series.find((s) => s.nickname === nickname);
        if (!series) slot.series.push((series = { nickname, points: [] }));
        series.points.push({ at, value, met: result?.met ?? false });
      }
  const values = ({ series }: Shown['slots'][number]): Set<number> =>
    new Set(series.flatMap((s) => s.points.map((p) => p.value)));
  return [...bySlot.values()]
    .filter((slot) => values(slot).size > 1)
    .sort((a, b) => b.series.length - a.series.length || values(b).size - values(a).size);
}
