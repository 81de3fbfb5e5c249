import type { BetterSQLite3Database } from 'drizzle-orm/better-sqlite3';
import { blob, index, integer, primaryKey, sqliteTable, text } from 'drizzle-orm/sqlite-core';

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
    deletedAt: integer('deleted_at')
  },
  (t) => [index('projects_shelf').on(t.demo, t.deletedAt, t.changedAt, t.id)]
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
    json: text('json').notNull()
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
  deletedAt: integer('deleted_at')
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
  deletedAt: integer('deleted_at')
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

export type Store = BetterSQLite3Database<typeof import('./schema.ts')>;
