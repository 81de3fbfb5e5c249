/**
 * Who may do what: the one place. Each route of the interface's server stands here with its methods and the rule for each; a
 * route or a method that does not is refused. `access.test.ts` tries every role on every one, on what is theirs and what is
 * not. Rules look at whose things are; what a request says is none of their concern.
 */
import { and, eq, inArray, isNull, or } from 'drizzle-orm';
import { say } from '../../../core/words.ts';
import type { Who } from './people.ts';
import { reachOf, teachesClass, teachesPupil, type Reach } from './reach.ts';
import {
  classes,
  comments,
  errands,
  given,
  handIns,
  lessons,
  people,
  projects,
  rounds,
  runs,
  type Store
} from './schema.ts';

type Asked = { store: Store; who: Who; params: Readonly<Record<string, string | undefined>> };
export type Refused = { status: 401 | 403 | 404 | 405; message: string };
type Rule = (asked: Asked) => Refused | undefined;

const NOTHING = (): Refused => ({ status: 404, message: say('There is nothing here.') });
const NO_PROJECT = (): Refused => ({ status: 404, message: say('There is no such project on this computer.') });
const NO_CLASS = (): Refused => ({ status: 404, message: say('There is no such class on this computer.') });

const anyone: Rule = () => undefined;
const role =
  (...roles: Who['role'][]): Rule =>
  ({ who }) =>
    roles.includes(who.role)
      ? undefined
      : who.role === 'guest'
        ? { status: 401, message: say('Sign in first.') }
        : {
            status: 403,
            message: roles.includes('teacher')
              ? say('Only a teacher can do this.')
              : say('Only a pupil of a class can do this.')
          };
const teacher = role('teacher');
const pupil = role('pupil');

const reaches =
  (idOf: (asked: Asked) => string | undefined, ...how: readonly Reach[]): Rule =>
  (asked) => {
    const id = idOf(asked);
    const reach = id === undefined ? 'none' : reachOf(asked.store, asked.who, id);
    if (how.includes(reach)) return undefined;
    if (reach === 'look' || reach === 'drive')
      return { status: 403, message: say('You can look at this, but not change it.') };
    return NO_PROJECT();
  };
const project = ({ params }: Asked): string | undefined => params.id;
const looks = reaches(project, 'own', 'drive', 'look');
const writes = reaches(project, 'own', 'drive');
/** what is said between a pupil and the teacher: of those who made it and their teacher, not of the room that it is shown to */
const between: Rule = (asked) => (mine(asked) && teacherOfProject(asked) ? NO_PROJECT() : undefined);
/** either one of a pair, whoever drives */
const mine: Rule = ({ store, who, params }) => {
  const row = store
    .select({ owner: projects.owner, partner: projects.partner })
    .from(projects)
    .where(eq(projects.id, params.id ?? ''))
    .get();
  return row && (row.owner === who.id || row.partner === who.id) ? undefined : NO_PROJECT();
};
const ofRun = ({ store, params }: Asked): string | undefined =>
  store
    .select({ id: runs.projectId })
    .from(runs)
    .where(eq(runs.id, params.id ?? ''))
    .get()?.id;
const looksAtRun = reaches(ofRun, 'own', 'drive', 'look');
const writesRun = reaches(ofRun, 'own', 'drive');

/** Whose an errand or a lesson is. */
const madeBy = (table: typeof errands | typeof lessons, { store, params }: Asked) =>
  store
    .select({ owner: table.owner, ships: table.ships })
    .from(table)
    .where(eq(table.id, params.id ?? ''))
    .get();
/** an errand or a lesson that is one's own */
const ownsOf =
  (table: typeof errands | typeof lessons): Rule =>
  ({ store, who, params }) => {
    const row = madeBy(table, { store, who, params });
    if (!row) return undefined; // the route says that there is none
    return row.owner === who.id || (row.owner === '' && !row.ships && who.role === 'teacher')
      ? undefined
      : { status: 403, message: say('This is not yours: you can use it, but not change it.') };
  };
/** found in the room, or one's own, or of a pupil of one's class */
const findsOf =
  (table: typeof errands | typeof lessons): Rule =>
  ({ store, who, params }) => {
    const row = madeBy(table, { store, who, params });
    if (!row || row.ships || row.owner === '' || row.owner === who.id) return undefined;
    const owner = store.select({ role: people.role }).from(people).where(eq(people.id, row.owner)).get();
    if (owner?.role === 'teacher') return undefined;
    return who.role === 'teacher' && teachesPupil(store, who.id, row.owner) ? undefined : NOTHING();
  };
const teaches: Rule = (asked) =>
  teacher(asked) ?? (teachesClass(asked.store, asked.who.id, asked.params.id ?? '') ? undefined : NO_CLASS());
/** the class is theirs: who helps with it does not delete it */
const ownsClass: Rule = (asked) =>
  teaches(asked) ??
  (asked.store
    .select({ id: classes.id })
    .from(classes)
    .where(and(eq(classes.id, asked.params.id ?? ''), eq(classes.teacherId, asked.who.id)))
    .get()
    ? undefined
    : { status: 403, message: say('You help with this class; its own teacher can do this.') });
/** the class of the teacher has what else is named in the address */
const teachesWith =
  (table: typeof people | typeof given, key: string): Rule =>
  (asked) =>
    teaches(asked) ??
    (asked.store
      .select({ id: table.id })
      .from(table)
      .where(and(eq(table.id, asked.params[key] ?? ''), eq(table.classId, asked.params.id ?? '')))
      .get()
      ? undefined
      : NOTHING());
/** the teacher of the pupil whose project it is */
const teacherOfProject: Rule = (asked) =>
  teacher(asked) ??
  (() => {
    const row = asked.store
      .select({ owner: projects.owner, partner: projects.partner })
      .from(projects)
      .where(eq(projects.id, asked.params.id ?? ''))
      .get();
    return row && teachesPupil(asked.store, asked.who.id, row.owner, row.partner) ? undefined : NO_PROJECT();
  })();
const ofProject =
  (table: typeof handIns | typeof comments, key: string, first: Rule): Rule =>
  (asked) =>
    first(asked) ??
    (asked.store
      .select({ id: table.projectId })
      .from(table)
      .where(
        and(
          eq(table.id as never, (asked.params[key] ?? '') as never),
          inArray(table.projectId, [asked.params.id ?? ''])
        )
      )
      .get()
      ? undefined
      : NOTHING());
/** who said it, as long as that is between them */
const saidIt: Rule = (asked) =>
  between(asked) ??
  (asked.store
    .select({ id: comments.id })
    .from(comments)
    .where(and(eq(comments.id, Number(asked.params.comment)), eq(comments.personId, asked.who.id)))
    .get()
    ? undefined
    : { status: 403, message: say('Somebody else said this.') });
/** what a lesson is read by is kept for who is signed in and finds it */
const reads: Rule = (asked) => role('pupil', 'teacher')(asked) ?? findsOf(lessons)(asked);
/** handed in by somebody of the class, and not withdrawn */
const handedInHere: Rule = (asked) =>
  teaches(asked) ??
  (asked.store
    .select({ id: handIns.id })
    .from(handIns)
    .innerJoin(projects, eq(projects.id, handIns.projectId))
    .innerJoin(people, or(eq(people.id, projects.owner), eq(people.id, projects.partner)))
    .where(
      and(
        eq(handIns.id, asked.params.handIn ?? ''),
        isNull(handIns.withdrawnAt),
        eq(people.classId, asked.params.id ?? '')
      )
    )
    .get()
    ? undefined
    : NOTHING());
/** a lesson that the teacher of the class finds */
const teachesLesson: Rule = (asked) =>
  teaches(asked) ?? findsOf(lessons)({ ...asked, params: { id: asked.params.lesson } });
/** the pupil's class or group got it */
const got: Rule = (asked) =>
  pupil(asked) ??
  (asked.store
    .select({ id: given.id })
    .from(given)
    .innerJoin(people, eq(people.classId, given.classId))
    .where(and(eq(given.id, asked.params.id ?? ''), eq(people.id, asked.who.id)))
    .get()
    ? undefined
    : NOTHING());

/** of the class that guesses, or its teacher */
const inRound: Rule = ({ store, who, params }) => {
  const row = store
    .select({ classId: rounds.classId })
    .from(rounds)
    .where(eq(rounds.id, params.id ?? ''))
    .get();
  return row && (row.classId === who.classId || teachesClass(store, who.id, row.classId)) ? undefined : NOTHING();
};

type Methods = Partial<Record<'GET' | 'POST' | 'PUT' | 'PATCH' | 'DELETE', Rule>>;
export const RULES: Readonly<Record<string, Methods>> = {
  '/api/deleted': { GET: anyone },
  '/api/errands': { GET: anyone, POST: anyone },
  '/api/errands/[id]': { GET: findsOf(errands), POST: findsOf(errands), DELETE: ownsOf(errands) },
  '/api/errands/[id]/yard': { GET: findsOf(errands) },
  '/api/errands/[id]/link': { POST: ownsOf(errands), DELETE: ownsOf(errands) },
  '/api/hand': { POST: anyone },
  '/api/hand/[code]': { GET: anyone, POST: anyone, PUT: anyone },
  '/api/lessons': { GET: anyone, POST: anyone },
  '/api/lessons/[id]': {
    GET: findsOf(lessons),
    PUT: ownsOf(lessons),
    POST: ownsOf(lessons),
    DELETE: ownsOf(lessons)
  },
  '/api/lessons/[id]/reading': { GET: reads, PUT: reads },
  '/api/made': { GET: anyone },
  '/api/projects': { GET: anyone, POST: anyone },
  '/api/projects/[id]': { GET: looks, PUT: writes, PATCH: writes, DELETE: writes, POST: mine },
  '/api/projects/[id]/runs': { GET: looks, POST: writes },
  '/api/projects/[id]/versions': { GET: looks },
  '/api/projects/[id]/versions/[version]': { GET: looks },
  '/api/projects/[id]/comments': { GET: between, POST: teacherOfProject },
  '/api/projects/[id]/comments/[comment]': {
    PATCH: ofProject(comments, 'comment', mine),
    POST: ofProject(comments, 'comment', between),
    PUT: ofProject(comments, 'comment', saidIt),
    DELETE: ofProject(comments, 'comment', saidIt)
  },
  '/api/projects/[id]/hand-ins': { GET: between, POST: (a) => pupil(a) ?? mine(a) },
  '/api/projects/[id]/hand-ins/[handIn]': {
    GET: ofProject(handIns, 'handIn', between),
    DELETE: ofProject(handIns, 'handIn', mine)
  },
  '/api/projects/[id]/live': { GET: looks },
  '/api/projects/[id]/point': { POST: teacherOfProject },
  '/api/projects/[id]/show': { POST: teacherOfProject, PUT: (a) => pupil(a) ?? mine(a) },
  '/api/projects/[id]/link': { GET: between, POST: mine, DELETE: between },
  '/api/projects/[id]/drive': { PUT: (a) => pupil(a) ?? mine(a) },
  '/api/runs/[id]': { GET: looksAtRun, PATCH: writesRun, PUT: writesRun, DELETE: writesRun },
  '/api/session': { POST: anyone, DELETE: anyone },
  '/api/live': { GET: pupil },
  '/api/open/[token]': { GET: anyone, POST: anyone },
  '/api/rounds/[id]': { GET: inRound, PUT: (a) => pupil(a) ?? inRound(a), POST: (a) => teacher(a) ?? inRound(a) },
  '/api/rounds/[id]/live': { GET: inRound },
  '/api/me': { PATCH: role('pupil', 'teacher'), POST: role('pupil', 'teacher') },
  '/api/given': { GET: pupil },
  '/api/given/[id]': { POST: got },
  '/api/teachers': { POST: anyone },
  '/api/teachers/[id]': { DELETE: teacher },
  '/api/classes': { POST: teacher },
  '/api/classes/[id]': { PATCH: teaches, POST: teaches, DELETE: ownsClass },
  '/api/classes/[id]/cards': { POST: teaches },
  '/api/classes/[id]/teachers': { POST: ownsClass, PUT: ownsClass },
  '/api/classes/[id]/teachers/[teacher]': { DELETE: teaches },
  '/api/classes/[id]/marks': { GET: teaches },
  '/api/classes/[id]/hand-ins/[handIn]': { PATCH: handedInHere },
  '/api/classes/[id]/pupils': { POST: teaches },
  '/api/classes/[id]/pupils/[pupil]': {
    PATCH: teachesWith(people, 'pupil'),
    POST: teachesWith(people, 'pupil'),
    PUT: teachesWith(people, 'pupil'),
    DELETE: teachesWith(people, 'pupil')
  },
  '/api/classes/[id]/pupils/[pupil]/card': { POST: teachesWith(people, 'pupil') },
  '/api/classes/[id]/pupils/[pupil]/everything': { GET: teachesWith(people, 'pupil') },
  '/api/classes/[id]/given': { POST: teaches },
  '/api/classes/[id]/given/[given]': { PATCH: teachesWith(given, 'given'), DELETE: teachesWith(given, 'given') },
  '/api/classes/[id]/live': { GET: teaches },
  '/api/classes/[id]/rounds': { POST: teaches },
  '/api/classes/[id]/again': { GET: teaches, POST: teaches },
  // pages: those that do not stand here are everybody's, and fetch what they show from the routes above
  '/class': { GET: teacher },
  '/class/audit': { GET: teacher },
  '/class/[id]': { GET: teaches },
  '/class/[id]/wall': { GET: teaches },
  '/class/[id]/shows': { GET: teaches },
  '/class/[id]/marks': { GET: teaches },
  '/class/[id]/hand-in/[handIn]': { GET: handedInHere },
  '/class/[id]/lesson/[lesson]': { GET: teachesLesson }
};
/** @param route as its folder is called; @returns why somebody may not do this */
export function mayNot(
  store: Store,
  who: Who,
  route: string | null,
  method: string,
  params: Asked['params']
): Refused | undefined {
  if (route === null) return undefined; // no such page: answered as such
  const methods = RULES[route];
  if (!methods) return route.startsWith('/api') ? NOTHING() : undefined;
  const rule = methods[(method === 'HEAD' ? 'GET' : method) as keyof Methods];
  if (!rule) return { status: 405, message: say('This cannot be done.') };
  return rule({ store, who, params });
}
