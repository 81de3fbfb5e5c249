import { error } from '@sveltejs/kit';
import type { Round } from '$lib/class/class.ts';

// programs run and are drawn in the browser
export const ssr = false;
export async function load({ params, fetch }) {
  const answer = await fetch(`/api/rounds/${params.id}`);
  const value = (await answer.json()) as Round & { message?: string };
  if (!answer.ok) error(answer.status, value.message);
  return { round: value };
}
