import { GUEST } from '$lib/server/cookies.ts';
import { database } from '$lib/server/database.ts';
import { madeBefore } from '$lib/server/people.ts';
import { listLabels, listProjects } from '$lib/server/projects.ts';
import { PAGE_OF_SHELF } from '$lib/shelf/cards.ts';

/**
 * The first page of the shelf; one card more tells that there is another page. The demo projects come with it where there is
 * nothing else yet; otherwise the page asks for them when they are unfolded.
 */
export function load({ cookies, locals }) {
  const owner = locals.who.id;
  const own = listProjects(database(), { owner, paired: locals.who.role === 'pupil', most: PAGE_OF_SHELF + 1 });
  const browser = cookies.get(GUEST);
  return {
    /** names of what was made here before who is signed in did so */
    before: locals.who.role !== 'guest' && browser ? madeBefore(database(), browser) : [],
    own: own.slice(0, PAGE_OF_SHELF),
    more: own.length > PAGE_OF_SHELF,
    labels: listLabels(database(), owner),
    demo: own.length ? undefined : listProjects(database(), { demo: true, most: 200 })
  };
}
