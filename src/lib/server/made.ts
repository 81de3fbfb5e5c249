/** Mats and machines of one's own: those of one's projects that neither ship nor stand in a demo project. */
import { and, desc, eq, isNull, or, sql } from 'drizzle-orm';
import { kits } from '../../../core/kit/kit.ts';
import { mats } from '../../../core/yard/mats.ts';
import type { Made } from '../shelf/made.ts';
import { digest, openProject, type Opened } from './projects.ts';
import { projects, type Store } from './schema.ts';

/** So many of each are shown. */
const MOST = 20;
const shipped = new Set([...mats, ...Object.values(kits)].map(digest));

export function listMade(store: Store, owner = ''): Made[] {
  const rows = store
    .select({
      id: projects.id,
      demo: projects.demo,
      mat: sql<string | null>`json_extract(${projects.shelf}, '$.mat')`,
      kit: sql<string | null>`json_extract(${projects.shelf}, '$.kit')`
    })
    .from(projects)
    .where(and(isNull(projects.deletedAt), or(eq(projects.demo, true), eq(projects.owner, owner))))
    .orderBy(desc(projects.changedAt))
    .all();
  const seen = new Set(shipped);
  for (const { demo, mat, kit } of rows) if (demo) seen.add(mat ?? '').add(kit ?? '');
  // the newest project that has it, of each
  const found = rows.flatMap(({ id, demo, mat, kit }) =>
    (['mat', 'kit'] as const).flatMap((kind) => {
      const key = kind === 'mat' ? mat : kit;
      if (demo || !key || seen.has(key)) return [];
      seen.add(key);
      return [{ id, kind }];
    })
  );
  const opened = new Map<string, Opened | undefined>();
  const open = (id: string): Opened | undefined => {
    if (!opened.has(id)) opened.set(id, openProject(store, id));
    return opened.get(id);
  };
  return (['mat', 'kit'] as const).flatMap((kind) =>
    found
      .filter((one) => one.kind === kind)
      .slice(0, MOST)
      .flatMap(({ id }): Made[] => {
        const project = open(id)?.project;
        if (!project) return [];
        if (kind === 'kit') return [{ kind, id, project: project.name, name: project.kit.name, kit: project.kit }];
        // the picture on its floor may be large: the shelf draws it without
        const { floor: _, ...mat } = project.mat;
        return [{ kind, id, project: project.name, name: mat.name, mat }];
      })
  );
}
