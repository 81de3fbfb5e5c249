import { error } from '@sveltejs/kit';
import { catalogue } from '../../../../../core/language/catalogue.ts';
import type { PageLoad } from './$types';
import { say } from '../../../../../core/words.ts';

export const load: PageLoad = ({ params }) => {
  if (!catalogue.has(params.kind)) error(404, say('There is no such block.'));
  return { kind: params.kind };
};
