import { error } from '@sveltejs/kit';
import { articles } from '$lib/handbook/articles.ts';
import type { PageLoad } from './$types';
import { say } from '../../../../core/words.ts';

export const load: PageLoad = ({ params }) => {
  if (!articles().some((a) => a.slug === params.slug)) error(404, say('The handbook has no such page.'));
  return { slug: params.slug };
};
