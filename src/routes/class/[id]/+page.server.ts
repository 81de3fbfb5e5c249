import { addressesOf } from '$lib/server/addresses.ts';
import { listClasses, listPupils, openClass, renamedOf, teachersOf } from '$lib/server/classes.ts';
import { listGiven } from '$lib/server/given.ts';
import { database } from '$lib/server/database.ts';
import { listErrands } from '$lib/server/errands.ts';
import { collected } from '$lib/server/hand-ins.ts';
import { listLessons } from '$lib/server/lessons.ts';
import { linksOfClass } from '$lib/server/links.ts';
import { listProjects } from '$lib/server/projects.ts';

export function load({ params, url, locals }) {
  const store = database();
  const { name, code, teacherId } = openClass(store, params.id)!;
  const { id: me } = locals.who;
  const named = ({ id, name }: { id: string; name: string }) => ({ id, name });
  return {
    class: {
      id: params.id,
      name,
      code,
      addresses: addressesOf(url),
      pupils: listPupils(store, params.id),
      renamed: renamedOf(store, params.id),
      given: listGiven(store, params.id),
      collected: collected(store, params.id),
      links: linksOfClass(store, params.id),
      own: teacherId === me,
      teachers: teachersOf(store, params.id),
      others: listClasses(store, me)
        .filter((c) => c.id !== params.id)
        .map(named)
    },
    errands: listErrands(store, locals.who).map(({ id, name }) => ({ id, name })),
    lessons: listLessons(store, me).map(({ id, name }) => ({ id, name })),
    // a teacher's own first, then those to copy
    projects: [...listProjects(store, { owner: me, most: 200 }), ...listProjects(store, { demo: true, most: 200 })].map(
      named
    )
  };
}
