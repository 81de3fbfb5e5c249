import { addressesOf } from '$lib/server/addresses.ts';
import { listPupils, openClass, renamedOf } from '$lib/server/classes.ts';
import { listGiven } from '$lib/server/given.ts';
import { database } from '$lib/server/database.ts';
import { listErrands } from '$lib/server/errands.ts';
import { collected } from '$lib/server/hand-ins.ts';
import { listLessons } from '$lib/server/lessons.ts';

export function load({ params, url, locals }) {
  const store = database();
  const { name, code } = openClass(store, params.id)!;
  return {
    class: {
      id: params.id,
      name,
      code,
      addresses: addressesOf(url),
      pupils: listPupils(store, params.id),
      renamed: renamedOf(store, params.id),
      given: listGiven(store, params.id),
      collected: collected(store, params.id)
    },
    errands: listErrands(store, locals.who).map(({ id, name }) => ({ id, name })),
    lessons: listLessons(store, locals.who.id).map(({ id, name }) => ({ id, name }))
  };
}
