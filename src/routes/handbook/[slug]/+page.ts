import { error } from '@sveltejs/kit';
import { articles } from '$lib/handbook/articles.ts';
import type { PageLoad } from './$types';
import { say } from '../../../../core/words.ts';

export const load: PageLoad = ({ params }) => {
  const article = articles.find((a) => a.slug === params.slug);
  if (!article) error(404, say('The handbook has no such page.'));
  return { article };
};
