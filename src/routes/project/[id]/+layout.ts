import { error } from '@sveltejs/kit';
import { Session } from '$lib/project/session.svelte.ts';

// the block editor and the workers live in the browser
export const ssr = false;

export async function load({ params, fetch }) {
  try {
    return { session: await Session.open(params.id, fetch) };
  } catch (problem) {
    error(404, (problem as Error).message);
  }
}
