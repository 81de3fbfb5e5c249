import { sql } from 'drizzle-orm';
import type { BetterSQLite3Database } from 'drizzle-orm/better-sqlite3';
import {
  type AnySQLiteColumn,
  blob,
  index,
  integer,
  primaryKey,
  real,
  sqliteTable,
  text,
  uniqueIndex
} from 'drizzle-orm/sqlite-core';
import { AUDITED } from '../class/audit.ts';

/** The order in which rows came: a clock that is set back changes nothing about it. */
export const cameAs = (table: typeof handIns | typeof runs | typeof given | typeof rounds) => sql`${table}.rowid`;

export const projects = sqliteTable(
  'projects',
  {
    id: text('id').primaryKey(),
    name: text('name').notNull(),
    device: text('device').notNull(),
    /** a demo project is opened as a copy and never written */
    demo: integer('demo', { mode: 'boolean' }).notNull().default(false),
    changedAt: integer('changed_at').notNull(),
    /** a word that the person put on it; of a demo project its group */
    label: text('label').notNull().default(''),
    /** kinds of its blocks, a space before and after each: what it is found by, worked out when it is saved */
    kinds: text('kinds').notNull().default(''),
    /** what the shelf shows of it, as JSON, worked out when it is saved */
    shelf: text('shelf'),
    /** taken off the shelf: it can be taken back for a while */
    deletedAt: integer('deleted_at'),
    /** whose it is: a person, or a guest's browser; demo projects are nobody's */
    owner: text('owner').notNull().default(''),
    /** the other one of a pair, and which of the two drives: the other one looks on */
    partner: text('partner'),
    driver: text('driver'),
    /** what it was begun for */
    givenId: text('given_id').references(() => given.id, { onDelete: 'set null' }),
    /** of a copy: what it was copied from, and of whom */
    origin: text('origin'),
    /** the teacher asked whether the room may see it, or the pupil said yes */
    shown: text('shown', { enum: ['asked', 'yes'] })
  },
  (t) => [
    index('projects_shelf').on(t.owner, t.demo, t.deletedAt, t.changedAt, t.id),
    index('projects_partner').on(t.partner),
    index('projects_given').on(t.givenId)
  ]
);

/** Append-only: saving a project adds a version. */
export const versions = sqliteTable(
  'versions',
  {
    id: integer('id').primaryKey({ autoIncrement: true }),
    projectId: text('project_id')
      .notNull()
      .references(() => projects.id, { onDelete: 'cascade' }),
    at: integer('at').notNull(),
    /** the project, as its file has it */
    json: text('json').notNull(),
    /** the browser's tab that saved it: where its answer was lost it saves again, and is not taken for somebody else */
    tab: text('tab')
  },
  (t) => [index('versions_project').on(t.projectId, t.id)]
);

/** Runs of a project: what makes each again, and of pinned ones every sample. */
export const runs = sqliteTable(
  'runs',
  {
    id: text('id').primaryKey(),
    projectId: text('project_id')
      .notNull()
      .references(() => projects.id, { onDelete: 'cascade' }),
    at: integer('at').notNull(),
    name: text('name').notNull(),
    kind: text('kind', { enum: ['rehearsal', 'device'] }).notNull(),
    device: text('device').notNull(),
    ended: text('ended').notNull(),
    ms: integer('ms').notNull(),
    pinned: integer('pinned', { mode: 'boolean' }).notNull().default(false),
    /** the errand that it is a try of, and what came of it, as JSON */
    errand: text('errand'),
    result: text('result'),
    /** the heaviest findings, as JSON */
    told: text('told'),
    /** the run's file, compressed */
    file: blob('file', { mode: 'buffer' }).notNull()
  },
  (t) => [index('runs_project').on(t.projectId, t.at), index('runs_errand').on(t.errand)]
);

/** Errands: those that ship, and the teacher's own. */
export const errands = sqliteTable('errands', {
  id: text('id').primaryKey(),
  /** it came with Moss Bell, and is put there again when Moss Bell starts */
  ships: integer('ships', { mode: 'boolean' }).notNull().default(false),
  /** what the shelf shows of it, as JSON */
  card: text('card').notNull(),
  /** the errand, as its file has it */
  json: text('json').notNull(),
  changedAt: integer('changed_at').notNull(),
  deletedAt: integer('deleted_at'),
  owner: text('owner').notNull().default(''),
  /** taken from a link: whose it is did not make it, and does not get its solution */
  copied: integer('copied', { mode: 'boolean' }).notNull().default(false)
});

/** Lessons: those that ship, and the teacher's own. */
export const lessons = sqliteTable('lessons', {
  id: text('id').primaryKey(),
  ships: integer('ships', { mode: 'boolean' }).notNull().default(false),
  /** what the shelf shows of it, as JSON */
  card: text('card').notNull(),
  /** the lesson, without the errands that it names */
  json: text('json').notNull(),
  changedAt: integer('changed_at').notNull(),
  deletedAt: integer('deleted_at'),
  owner: text('owner').notNull().default(''),
  /** the browser's tab that saved it last, as of versions */
  tab: text('tab')
});

/** Large pictures, once each by their hash (SHA-256), and which projects have them in a version or a run. */
export const pictures = sqliteTable('pictures', { hash: text('hash').primaryKey(), data: text('data').notNull() });
export const pictureUses = sqliteTable(
  'picture_uses',
  {
    hash: text('hash').notNull(),
    projectId: text('project_id')
      .notNull()
      .references(() => projects.id, { onDelete: 'cascade' })
  },
  (t) => [primaryKey({ columns: [t.hash, t.projectId] })]
);

/** A teacher's class; its pupils come with its code. */
export const classes = sqliteTable('classes', {
  id: text('id').primaryKey(),
  name: text('name').notNull(),
  code: text('code').notNull().unique(),
  teacherId: text('teacher_id')
    .notNull()
    .references((): AnySQLiteColumn => people.id, { onDelete: 'cascade' }),
  /** the language of its cards */
  language: text('language').notNull(),
  at: integer('at').notNull()
});

/** Who teaches a class beside the teacher whose it is. */
export const helpers = sqliteTable(
  'helpers',
  {
    classId: text('class_id')
      .notNull()
      .references(() => classes.id, { onDelete: 'cascade' }),
    teacherId: text('teacher_id')
      .notNull()
      .references((): AnySQLiteColumn => people.id, { onDelete: 'cascade' })
  },
  (t) => [primaryKey({ columns: [t.classId, t.teacherId] }), index('helpers_teacher').on(t.teacherId)]
);

/** Who signs in: teachers by a passphrase, pupils by the words of their card. A nickname is all that is known of anyone. */
export const people = sqliteTable(
  'people',
  {
    id: text('id').primaryKey(),
    role: text('role', { enum: ['teacher', 'pupil'] }).notNull(),
    nickname: text('nickname').notNull(),
    /** what the nickname is found by, and alone with (class/folded.ts); names.ts fills it in where an older one left it out */
    folded: text('folded'),
    classId: text('class_id').references(() => classes.id, { onDelete: 'cascade' }),
    /** argon2id of passphrase or words */
    secret: text('secret').notNull(),
    /** of a pupil: the words of the card, sealed (keys.ts), to print it again; of older cards nothing is kept */
    card: text('card'),
    /** a part of the class */
    group: text('group').notNull().default(''),
    /** the other one of a pair */
    partner: text('partner'),
    handUpAt: integer('hand_up_at'),
    at: integer('at').notNull()
  },
  (t) => [
    uniqueIndex('people_pupil').on(t.classId, t.folded),
    uniqueIndex('people_teacher')
      .on(t.folded)
      .where(sql`"people"."role" = 'teacher'`)
  ]
);

export const sessions = sqliteTable(
  'sessions',
  {
    /** SHA-256 of what the browser keeps */
    hash: text('hash').primaryKey(),
    personId: text('person_id')
      .notNull()
      .references(() => people.id, { onDelete: 'cascade' }),
    endsAt: integer('ends_at').notNull()
  },
  (t) => [index('sessions_person').on(t.personId)]
);

/** An errand, a lesson or a project that was given to a class, or to a part of it. */
export const given = sqliteTable(
  'given',
  {
    id: text('id').primaryKey(),
    classId: text('class_id')
      .notNull()
      .references(() => classes.id, { onDelete: 'cascade' }),
    group: text('group').notNull().default(''),
    kind: text('kind', { enum: ['errand', 'lesson', 'project'] }).notNull(),
    target: text('target').notNull(),
    /** of a project: as it was when it was given out */
    json: text('json'),
    at: integer('at').notNull(),
    fromAt: integer('from_at').notNull(),
    untilAt: integer('until_at')
  },
  (t) => [index('given_class').on(t.classId)]
);

/** What was handed in: the project as it was, and its last run. */
export const handIns = sqliteTable(
  'hand_ins',
  {
    id: text('id').primaryKey(),
    projectId: text('project_id')
      .notNull()
      .references(() => projects.id, { onDelete: 'cascade' }),
    personId: text('person_id')
      .notNull()
      .references(() => people.id, { onDelete: 'cascade' }),
    givenId: text('given_id').references(() => given.id, { onDelete: 'set null' }),
    at: integer('at').notNull(),
    note: text('note').notNull(),
    json: text('json').notNull(),
    /** the last run's file, compressed, and what came of it */
    run: blob('run', { mode: 'buffer' }),
    result: text('result'),
    /** when the server ran it, and the result is what came of that; until then it is what the browser said */
    ranAt: integer('ran_at'),
    /** a teacher opened it; a teacher gave it back to be worked on */
    seenAt: integer('seen_at'),
    backAt: integer('back_at'),
    withdrawnAt: integer('withdrawn_at')
  },
  (t) => [index('hand_ins_project').on(t.projectId), index('hand_ins_person').on(t.personId)]
);

/** What is said about a block, or about the whole program, and what is answered. */
export const comments = sqliteTable(
  'comments',
  {
    id: integer('id').primaryKey({ autoIncrement: true }),
    projectId: text('project_id')
      .notNull()
      .references(() => projects.id, { onDelete: 'cascade' }),
    personId: text('person_id')
      .notNull()
      .references(() => people.id, { onDelete: 'cascade' }),
    /** the one that it answers */
    under: integer('under').references((): AnySQLiteColumn => comments.id, { onDelete: 'cascade' }),
    block: text('block'),
    text: text('text').notNull(),
    at: integer('at').notNull(),
    changedAt: integer('changed_at'),
    /** the pupil has dealt with it */
    doneAt: integer('done_at')
  },
  (t) => [index('comments_project').on(t.projectId)]
);

/** How far a pupil is with a lesson: the steps that were gone through, and the last answer to each question. */
export const readings = sqliteTable(
  'readings',
  {
    personId: text('person_id')
      .notNull()
      .references(() => people.id, { onDelete: 'cascade' }),
    lessonId: text('lesson_id').notNull(),
    /** as JSON (class/reading.ts) */
    json: text('json').notNull(),
    at: integer('at').notNull()
  },
  (t) => [primaryKey({ columns: [t.personId, t.lessonId] })]
);

/** A run that the class guesses together: where will it stop? */
export const rounds = sqliteTable(
  'rounds',
  {
    id: text('id').primaryKey(),
    classId: text('class_id')
      .notNull()
      .references(() => classes.id, { onDelete: 'cascade' }),
    /** the project that will run, as it was when this began */
    json: text('json').notNull(),
    at: integer('at').notNull(),
    /** where it stopped, m, once that is decided */
    stopX: real('stop_x'),
    stopY: real('stop_y')
  },
  (t) => [index('rounds_class').on(t.classId, t.at)]
);
export const guesses = sqliteTable(
  'guesses',
  {
    roundId: text('round_id')
      .notNull()
      .references(() => rounds.id, { onDelete: 'cascade' }),
    personId: text('person_id')
      .notNull()
      .references(() => people.id, { onDelete: 'cascade' }),
    x: real('x').notNull(),
    y: real('y').notNull()
  },
  (t) => [primaryKey({ columns: [t.roundId, t.personId] })]
);

/** A link to a project or an errand in the room: whoever has it may look, and take a copy. */
export const links = sqliteTable(
  'links',
  {
    token: text('token').primaryKey(),
    kind: text('kind', { enum: ['project', 'errand'] }).notNull(),
    target: text('target').notNull(),
    at: integer('at').notNull()
  },
  (t) => [uniqueIndex('links_target').on(t.kind, t.target)]
);

/** Backups that were made of this database, wherever they are: a class that is deleted goes from them too. */
export const backups = sqliteTable('backups', { file: text('file').primaryKey(), at: integer('at').notNull() });

/** What was done with rights: for the teacher to look through. No addresses. */
export const audit = sqliteTable(
  'audit',
  {
    id: integer('id').primaryKey({ autoIncrement: true }),
    at: integer('at').notNull(),
    teacherId: text('teacher_id'),
    classId: text('class_id'),
    what: text('what', { enum: AUDITED }).notNull(),
    /** the nickname that it was about */
    whom: text('whom').notNull().default('')
  },
  (t) => [index('audit_teacher').on(t.teacherId, t.id)]
);

export type Store = BetterSQLite3Database<typeof import('./schema.ts')>;
