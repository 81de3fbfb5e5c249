import { browser } from '$app/environment';
import { isCode, language } from '$lib/language.svelte.ts';

export async function load({ data }) {
  // the words are there before the first page is drawn
  if (browser && isCode(data.language)) await language.choose(data.language);
  return data;
}
