/** Everything that is kept of one pupil, in open formats, as files: for whoever asks what a school keeps of them. */
import { and, asc, eq, or } from 'drizzle-orm';
import { unstow } from './pictures.ts';
import {
  cameAs,
  classes,
  comments,
  errands,
  given,
  guesses,
  handIns,
  lessons,
  people,
  projects,
  readings,
  rounds,
  runs,
  versions,
  type Store
} from './schema.ts';

type Files = Record<string, Uint8Array>;
const bytes = (text: string): Uint8Array => new TextEncoder().encode(text);
const json = (value: unknown): Uint8Array => bytes(`${JSON.stringify(value, null, 1)}\n`);
const time = (at: number | null): string | null => (at === null ? null : new Date(at).toISOString());
/** A name as a part of a path. */
const part = (name: string): string => name.replace(/[^\p{L}\p{M}\p{N} ._-]/gu, '_').replace(/^\.+/, '_') || '_';

/** @returns files by their paths; a run's file is compressed as it is kept */
export function everythingOf(store: Store, pupilId: string): Files {
  const pupil = store.select().from(people).where(eq(people.id, pupilId)).get()!;
  const partner = pupil.partner && store.select().from(people).where(eq(people.id, pupil.partner)).get();
  const of = pupil.classId && store.select().from(classes).where(eq(classes.id, pupil.classId)).get();
  const files: Files = {
    'pupil.json': json({
      nickname: pupil.nickname,
      class: of ? of.name : null,
      group: pupil.group,
      worksWith: partner ? partner.nickname : null,
      since: time(pupil.at),
      handUpSince: time(pupil.handUpAt),
      guesses: store
        .select({ x: guesses.x, y: guesses.y, at: rounds.at })
        .from(guesses)
        .innerJoin(rounds, eq(rounds.id, guesses.roundId))
        .where(eq(guesses.personId, pupilId))
        .all()
        .map((g) => ({ ...g, at: time(g.at) }))
    })
  };
  const all = store
    .select()
    .from(projects)
    .where(or(eq(projects.owner, pupilId), eq(projects.partner, pupilId)))
    .all();
  for (const project of all) filesOfProject(store, pupilId, project, files);
  const read = store.select().from(readings).where(eq(readings.personId, pupilId)).all();
  for (const { lessonId, json: text, at } of read)
    files[`lessons read/${part(lessonId)}.json`] = json({ lesson: lessonId, at: time(at), ...JSON.parse(text) });
  for (const [table, folder] of [
    [errands, 'errands'],
    [lessons, 'lessons']
  ] as const)
    for (const row of store.select().from(table).where(eq(table.owner, pupilId)).all())
      files[`${folder}/${part(row.id)}.json`] = bytes(row.json);
  return files;
}
function filesOfProject(store: Store, pupilId: string, project: typeof projects.$inferSelect, files: Files): void {
  const { id } = project;
  const folder = `projects/${part(project.name)} (${part(id)})`;
  const saved = store.select().from(versions).where(eq(versions.projectId, id)).orderBy(asc(versions.id)).all();
  const newest = saved.at(-1);
  if (newest) files[`${folder}/project.mossbell.json`] = bytes(unstow(store, newest.json));
  // a line each: one after another is how it came to be
  files[`${folder}/versions.ndjson`] = bytes(
    saved.map((v) => `{"at":${JSON.stringify(time(v.at))},"project":${v.json}}\n`).join('')
  );
  const kept = store.select().from(runs).where(eq(runs.projectId, id)).orderBy(cameAs(runs)).all();
  for (const { id: run, file } of kept) files[`${folder}/runs/${part(run)}.json.gz`] = file;
  const hands = store
    .select({ handIn: handIns, target: given.target })
    .from(handIns)
    .leftJoin(given, eq(given.id, handIns.givenId))
    .where(eq(handIns.projectId, id))
    .orderBy(cameAs(handIns))
    .all();
  for (const { handIn } of hands) {
    files[`${folder}/handed in/${part(handIn.id)}.mossbell.json`] = bytes(unstow(store, handIn.json));
    if (handIn.run) files[`${folder}/handed in/${part(handIn.id)}.run.json.gz`] = handIn.run;
  }
  files[`${folder}/about.json`] = json({
    name: project.name,
    label: project.label,
    changedAt: time(project.changedAt),
    offTheShelfAt: time(project.deletedAt),
    origin: project.origin,
    shownToTheRoom: project.shown,
    isOfAPair: project.partner !== null,
    runs: kept.map(({ file: _, projectId: __, at, result, told, ...run }) => ({
      ...run,
      at: time(at),
      result: result && JSON.parse(result),
      told: told && JSON.parse(told)
    })),
    handedIn: hands.map(({ handIn: { id: hand, at, note, result, ranAt, withdrawnAt, backAt }, target }) => ({
      id: hand,
      at: time(at),
      for: target,
      note,
      result: result && JSON.parse(result),
      runOnTheServerAt: time(ranAt),
      withdrawnAt: time(withdrawnAt),
      givenBackAt: time(backAt)
    })),
    remarks: store
      .select({ text: comments.text, block: comments.block, at: comments.at, doneAt: comments.doneAt, by: people.id })
      .from(comments)
      .innerJoin(people, eq(people.id, comments.personId))
      .where(and(eq(comments.projectId, id)))
      .orderBy(comments.id)
      .all()
      .map(({ by, at, doneAt, ...c }) => ({
        ...c,
        at: time(at),
        doneAt: time(doneAt),
        by: by === pupilId ? 'this pupil' : 'somebody else'
      }))
  });
}
