/** Everything that was handed in of an errand, run again by the pool of workers. */
import { eq } from 'drizzle-orm';
import type { Again } from '../../../core/class/again.ts';
import type { TryResult } from '../../../core/trace/tried.ts';
import { goalWords } from '../../../core/errand/goals.ts';
import { situationSays, yardsOf } from '../../../core/errand/yards.ts';
import { say, tongue } from '../../../core/words.ts';
import type { AgainTable } from '../class/class.ts';
import { openErrand } from './errands.ts';
import { collected, handedIn, hasRun } from './hand-ins.ts';
import { inOrder } from '../class/folded.ts';
import { listGiven } from './given.ts';
import { heavy } from './pool.ts';
import { csv, type Cell } from './table.ts';
import { given, type Store } from './schema.ts';

/** @param target the errand as the teacher gave it, where it was given; its own otherwise, as it stands on the shelf */
async function rerun(store: Store, handIn: string, target: string | undefined): Promise<Again | undefined> {
  const project = handedIn(store, handIn);
  if (!project) return undefined;
  const id = target ?? project.errand?.id;
  const errand = id === undefined ? undefined : openErrand(store, id, true);
  const came = await heavy('again', { project, errand, tongue: tongue() });
  if (!('text' in came)) hasRun(store, handIn, errand && resultOf(errand.id, came));
  return came;
}
const resultOf = (errand: string, came: Exclude<Again, { text: true }>): TryResult => ({
  errand,
  met: came.met,
  got: came.goals.filter(Boolean).length,
  of: came.goals.length,
  ...(came.seconds === undefined ? {} : { seconds: came.seconds }),
  ...(came.blocks === undefined ? {} : { blocks: came.blocks }),
  ...(came.situations.length ? { situations: came.situations.map((s) => s.met) } : {}),
  goals: came.goals,
  stop: { x: came.stop.x, y: came.stop.y },
  changed: []
});
/**
 * What was handed in is run on the server, and what comes of that stands, whatever the pupil's browser said. A program in text
 * is not: what was said of it stays a claim.
 */
export async function runHandedIn(store: Store, handIn: string, givenId: string | null): Promise<void> {
  const row = givenId === null ? undefined : store.select().from(given).where(eq(given.id, givenId)).get();
  await rerun(store, handIn, row?.kind === 'errand' ? row.target : undefined);
}

/** One at a time and class: a second click waits for the first. */
const going = new Map<string, Promise<AgainTable>>();

/** @returns undefined where the class was not given this */
export async function runAllAgain(store: Store, classId: string, givenId: string): Promise<AgainTable | undefined> {
  const one = listGiven(store, classId).find((g) => g.id === givenId);
  if (!one || one.kind !== 'errand') return undefined;
  const key = `${givenId} ${tongue().code}`;
  let run = going.get(key);
  if (!run) {
    run = all(store, classId, givenId, one.target).finally(() => going.delete(key));
    going.set(key, run);
  }
  return run;
}
async function all(store: Store, classId: string, givenId: string, target: string): Promise<AgainTable> {
  const errand = openErrand(store, target, true);
  const list = collected(store, classId).filter((c) => c.givenId === givenId);
  const rows = await Promise.all(
    list.map(async ({ handIn, nickname, projectId }): Promise<AgainTable['rows'][number]> => {
      const row = { handIn, nickname, projectId };
      try {
        const came = await rerun(store, handIn, target);
        if (!came) return { ...row, says: say('This cannot be read any more.') };
        return 'text' in came
          ? { ...row, says: say('A program in text: open it to see what it does.') }
          : { ...row, ...came };
      } catch (problem) {
        return { ...row, says: (problem as Error).message };
      }
    })
  );
  return {
    goals: errand?.goals.map(goalWords) ?? [],
    situations: errand?.situations ? yardsOf(errand, errand).map(situationSays) : [],
    rows: rows.sort((a, b) => inOrder(a.nickname, b.nickname))
  };
}
/** The same as a file for a spreadsheet. */
export function againCsv({ goals, situations, rows }: AgainTable): string {
  const head = [
    say('Nickname'),
    ...goals,
    ...situations.map((says, i) => say('situation {n}: {says}', { n: i + 1, says })),
    say('all goals'),
    's',
    say('blocks'),
    'x cm',
    'y cm',
    say('what there is to know')
  ];
  const rounded = (n: number | undefined, digits = 1): Cell =>
    n === undefined ? undefined : Number(n.toFixed(digits));
  const body = rows.map((row): Cell[] =>
    'says' in row
      ? [row.nickname, ...goals.map(() => ''), ...situations.map(() => ''), '', '', '', '', '', row.says]
      : [
          row.nickname,
          ...row.goals.map(Number),
          ...situations.map((_, i) => Number(row.situations[i]?.met ?? false)),
          Number(row.met),
          rounded(row.seconds, 2),
          row.blocks,
          rounded(row.stop.x * 100),
          rounded(row.stop.y * 100),
          row.told[0]?.says ?? ''
        ]
  );
  return csv([head, ...body]);
}
