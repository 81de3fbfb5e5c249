/** Lays the demo projects on an empty shelf. */
import { readdirSync, readFileSync } from 'node:fs';
import { readProject, type Project } from '../core/project.ts';
import type { Store } from '../src/lib/server/database.ts';
import { createProject, isEmpty } from '../src/lib/server/projects.ts';

const ORDER = [
  'there-and-back',
  'square-bed',
  'round-the-fern-bed',
  'wake-the-bell',
  'the-dark-board',
  'stop-short',
  'lantern-signals',
  'outline-of-a-leaf',
  'frost-flicker',
  'bell-changes',
  'square-by-heading',
  'corners-as-routines',
  'the-snail',
  'path-by-table',
  'three-mistakes',
  'catch-the-trowel',
  'rolling-drop',
  'frost-alarm',
  'signal-post',
  'four-keys',
  'blind-on-the-path',
  'narrow-aisle',
  'past-the-hoop',
  'eighty-centimetres',
  'silent-striker',
  'two-warnings',
  'to-the-bench',
  'the-short-errand',
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
  'bright-bean'
];
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

/** @returns how many were laid out; 0 when the shelf was not empty */
export function seed(store: Store): number {
  if (!isEmpty(store)) return 0;
  const list = demoProjects();
  list.forEach(([id, project], i) =>
    createProject(store, project, { id: `demo-${id}`, demo: true, at: Date.now() - i * 1000 })
  );
  return list.length;
}
