/** Mats and machines of one's own: those of one's projects that neither ship nor stand in a demo project. */
import { and, eq, isNull, max } from 'drizzle-orm';
import { kits, type Kit } from '../../../core/kit/kit.ts';
import { mats } from '../../../core/yard/mats.ts';
import type { Mat } from '../../../core/yard/mat.ts';
import type { Made } from '../shelf/made.ts';
import { openProject } from './projects.ts';
import { projects, versions, type Store } from './schema.ts';

/** What it is, in whatever order its fields were written. */
const same = (value: unknown): string =>
  JSON.stringify(value, (_, v: unknown) =>
    typeof v === 'object' && v !== null && !Array.isArray(v)
      ? Object.fromEntries(Object.entries(v).sort(([a], [b]) => (a < b ? -1 : 1)))
      : v
  );
/** So many of each are shown. */
const MOST = 40;
/** Looked up anew when something was saved since, or taken off. */
let known: { store: Store; of: string; made: Made[] } | undefined;

export function listMade(store: Store): Made[] {
  const newest = store
    .select({ id: max(versions.id), at: max(versions.at) })
    .from(versions)
    .get();
  const there = store.select({ id: projects.id }).from(projects).where(isNull(projects.deletedAt)).all();
  const of = `${newest?.id} ${newest?.at} ${there.length}`;
  if (known?.store === store && known.of === of) return known.made;
  const idsOf = (demo: boolean): string[] =>
    store
      .select({ id: projects.id })
      .from(projects)
      .where(and(eq(projects.demo, demo), isNull(projects.deletedAt)))
      .orderBy(projects.changedAt)
      .all()
      .map((p) => p.id);
  const open = (id: string) => {
    try {
      return openProject(store, id)?.project;
    } catch {
      // one that this Moss Bell cannot read is told where it is opened
      return undefined;
    }
  };
  const seen = new Set<string>([...mats, ...Object.values(kits)].map(same));
  for (const id of idsOf(true)) {
    const project = open(id);
    if (project) seen.add(same(project.mat)).add(same(project.kit));
  }
  const made: Made[] = [];
  const put = (one: Made, what: Mat | Kit): void => {
    const key = same(what);
    if (seen.has(key) || made.filter((m) => m.kind === one.kind).length >= MOST) return;
    seen.add(key);
    made.push(one);
  };
  // the newest first
  for (const id of idsOf(false).reverse()) {
    const project = open(id);
    if (!project) continue;
    const from = { id, project: project.name };
    // the picture on its floor may be large: the shelf draws it without
    const { floor: _, ...mat } = project.mat;
    put({ kind: 'mat', ...from, name: mat.name, mat }, project.mat);
    put({ kind: 'kit', ...from, name: project.kit.name, kit: project.kit }, project.kit);
  }
  known = { store, of, made };
  return made;
}
