import { error } from '@sveltejs/kit';
import { articles } from '$lib/handbook/articles.ts';
import type { PageLoad } from './$types';

export const load: PageLoad = ({ params }) => {
  const article = articles.find((a) => a.slug === params.slug);
  if (!article) error(404, 'The handbook has no such page.');
  return { article };
};
