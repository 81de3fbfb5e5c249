/** Marks: the pupils of a class and what it was given out, gathered from the database; and the same as a table. */
import { toldIn } from '../../../core/errand/task.ts';
import type { TryResult } from '../../../core/trace/tried.ts';
import { say } from '../../../core/words.ts';
import type { Given, Mark, Marks } from '../class/class.ts';
import { listPupils } from './classes.ts';
import { begunBy, listGiven, progressOf } from './given.ts';
import { isLate, lastHandIn } from './hand-ins.ts';
import { readSoFar } from './readings.ts';
import type { Store } from './schema.ts';
import { csv, moment, type Cell } from './table.ts';

/** What came of one thing for one pupil: what was handed in counts, and the best try where nothing was. */
function markOf(store: Store, pupilId: string, one: Given): Mark {
  if (one.kind === 'lesson') {
    const read = readSoFar(store, pupilId, one.target);
    if (!read) return { tries: 0 };
    const told = read.answers.filter((a) => a.right !== undefined);
    return {
      tries: 0,
      steps: read.steps,
      ofSteps: read.ofSteps,
      ...(told.length ? { right: told.filter((a) => a.right).length, ofQuestions: told.length } : {})
    };
  }
  const begun = begunBy(store, one.id, pupilId);
  if (!begun) return { tries: 0 };
  const { tries, best } = progressOf(store, begun.id);
  const last = lastHandIn(store, begun.id);
  const result = last?.result ? (JSON.parse(last.result) as TryResult) : undefined;
  const came = result ?? (last ? undefined : best);
  return {
    projectId: begun.id,
    tries,
    ...(came ? { got: came.got, of: came.of, met: came.met } : {}),
    ...(came && (!last || last.ranAt === null) ? { claimed: true } : {}),
    ...(last
      ? {
          handIn: last.id,
          handedInAt: last.at,
          ...isLate(last.at, one.untilAt),
          ...(last.seenAt === null ? {} : { seenAt: last.seenAt }),
          ...(last.backAt === null ? {} : { backAt: last.backAt })
        }
      : {})
  };
}
/** What was given out first stands first. */
export function marksOf(store: Store, classId: string): Marks {
  const given = listGiven(store, classId).reverse();
  return {
    given,
    rows: listPupils(store, classId).map(({ id, nickname, group }) => ({
      id,
      nickname,
      group,
      marks: given.map((one) => (one.group && one.group !== group ? { tries: 0 } : markOf(store, id, one)))
    }))
  };
}
/** One line for each pupil, and for each thing its columns. */
export function marksCsv({ given, rows }: Marks): string {
  const columns = given.map((one): [string[], (mark: Mark) => Cell[]] => {
    const of = (what: string): string => `${toldIn(one.name)}: ${what}`;
    if (one.kind === 'lesson')
      return [
        [of(say('steps')), of(say('steps in all')), of(say('right answers'))],
        (m) => [m.steps, m.ofSteps, m.right]
      ];
    const goals: [string[], (mark: Mark) => Cell[]] =
      one.kind === 'errand' ? [[of(say('goals met')), of(say('goals'))], (m) => [m.got, m.of]] : [[], () => []];
    return [
      [...goals[0], ...[say('tries'), say('handed in'), say('late'), say('seen'), say('as the browser said')].map(of)],
      (m) => [
        ...goals[1](m),
        m.projectId === undefined ? undefined : m.tries,
        moment(m.handedInAt),
        m.late ? 1 : m.handIn ? 0 : undefined,
        moment(m.seenAt),
        m.claimed ? 1 : m.got === undefined ? undefined : 0
      ]
    ];
  });
  const head = [say('Nickname'), say('Group'), ...columns.flatMap(([names]) => names)];
  return csv([
    head,
    ...rows.map((row) => [row.nickname, row.group, ...columns.flatMap(([, cells], i) => cells(row.marks[i]))])
  ]);
}
