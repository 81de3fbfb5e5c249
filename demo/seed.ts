/** Lays the demo projects on an empty shelf. */
import { readdirSync, readFileSync } from 'node:fs';
import { readErrand, type Errand } from '../core/errand/errand.ts';
import { fromFiles, type Files, type Lesson } from '../core/lesson/lesson.ts';
import { readProject, type Project } from '../core/project.ts';
import { DEMO_GROUPS } from '../src/lib/shelf/cards.ts';
import { eq } from 'drizzle-orm';
import type { Store } from '../src/lib/server/database.ts';
import { shipErrands } from '../src/lib/server/errands.ts';
import { shipLessons } from '../src/lib/server/lessons.ts';
import { projects } from '../src/lib/server/schema.ts';
import { createProject, isEmpty } from '../src/lib/server/projects.ts';

/** The demo projects in their groups, in the order of the shelf. */
const GROUPS: readonly (readonly [group: string, files: readonly string[]])[] = [
  [
    DEMO_GROUPS.first,
    ['back-to-the-mark', 'square-bed', 'wake-the-bell', 'the-dark-board', 'an-arm-short', 'to-the-bench']
  ],
  [
    DEMO_GROUPS.moving,
    [
      'round-the-fern-bed',
      'square-by-heading',
      'corners-as-routines',
      'the-snail',
      'four-keys',
      'past-the-hoop',
      'into-the-bend',
      'eighty-centimetres',
      'square-without-a-turn',
      'square-on-and-on',
      'from-bench-to-bench',
      'two-sticks',
      'from-heap-to-bed'
    ]
  ],
  [
    DEMO_GROUPS.sensing,
    [
      'path-by-table',
      'lantern-signals',
      'outline-of-a-leaf',
      'frost-flicker',
      'bell-changes',
      'two-warnings',
      'the-short-errand'
    ]
  ],
  [DEMO_GROUPS.hand, ['catch-the-trowel', 'rolling-drop', 'frost-alarm', 'signal-post']],
  [
    DEMO_GROUPS.mistakes,
    [
      'three-mistakes',
      'blind-on-the-path',
      'silent-striker',
      'both-motors-forward',
      'left-at-the-fern',
      'past-the-seedlings',
      'four-sides',
      'the-patient-gate',
      'half-a-vent',
      'the-forgotten-song',
      'corner-lamp',
      'five-drips',
      'the-lost-half',
      'bright-bean',
      'stiff-stick'
    ]
  ]
];
const ORDER = GROUPS.flatMap(([, files]) => files);
const groupOf = (file: string): string => GROUPS.find(([, files]) => files.includes(file))?.[0] ?? '';
const folder = new URL('./projects/', import.meta.url);

/** The demo projects, by the name of their file. */
export function demoProjects(): [string, Project][] {
  const files = readdirSync(folder).filter((f) => f.endsWith('.mossbell.json'));
  const stem = (file: string): string => file.replace('.mossbell.json', '');
  return files
    .sort((a, b) => ORDER.indexOf(stem(a)) - ORDER.indexOf(stem(b)))
    .map((file) => {
      const read = readProject(readFileSync(new URL(file, folder), 'utf8'), file);
      if (!read.ok) throw new Error(read.problem);
      return [stem(file), read.project];
    });
}

/** The errands that ship. */
export function demoErrands(): Errand[] {
  const folder = new URL('errands/', import.meta.url);
  return readdirSync(folder)
    .sort()
    .map((file) => {
      const read = readErrand(readFileSync(new URL(file, folder), 'utf8'), file);
      if (!read.ok) throw new Error(read.problem);
      return read.errand;
    });
}
/** The errands and lessons that ship: on every shelf, also on one that had others before. */
export function ship(store: Store): void {
  shipErrands(store, demoErrands());
  shipLessons(store, demoLessons());
}
/** The lessons that ship, in the order in which they are taught. */
export function demoLessons(): Lesson[] {
  const folder = new URL('lessons/', import.meta.url);
  return readdirSync(folder)
    .sort()
    .map((name) => {
      const files: Files = {};
      for (const path of readdirSync(new URL(name, folder), { recursive: true, encoding: 'utf8' }))
        if (/\.(md|json)$/.test(path))
          files[path.replaceAll('\\', '/')] = readFileSync(new URL(`${name}/${path}`, folder));
      const read = fromFiles(files, name);
      if (!read.ok) throw new Error(read.problem);
      return read.lesson;
    });
}
/** @returns how many were laid out; 0 when the shelf was not empty */
export function seed(store: Store): number {
  if (!isEmpty(store)) {
    // laid out by a Moss Bell that knew no groups yet
    for (const file of ORDER)
      store
        .update(projects)
        .set({ label: groupOf(file) })
        .where(eq(projects.id, `demo-${file}`))
        .run();
    return 0;
  }
  const list = demoProjects();
  list.forEach(([id, project], i) =>
    createProject(store, project, { id: `demo-${id}`, demo: true, at: Date.now() - i * 1000, label: groupOf(id) })
  );
  return list.length;
}
