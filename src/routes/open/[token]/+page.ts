import { error } from '@sveltejs/kit';
import type { Linked } from '$lib/class/class.ts';

// blocks are drawn in the browser
export const ssr = false;
export async function load({ params, fetch }) {
  const answer = await fetch(`/api/open/${params.token}`);
  const value = (await answer.json()) as Linked & { message?: string };
  if (!answer.ok) error(answer.status, value.message);
  return { linked: value as Linked, token: params.token };
}
