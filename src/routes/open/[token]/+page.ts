import { error } from '@sveltejs/kit';
import type { Linked } from '$lib/class/class.ts';
import type { Project } from '../../../../core/project.ts';

// blocks are drawn in the browser
export const ssr = false;
export async function load({ params, fetch }) {
  const answer = await fetch(`/api/open/${params.token}`);
  const value = (await answer.json()) as Linked & { project: Project; message?: string };
  if (!answer.ok) error(answer.status, value.message);
  return { linked: value, token: params.token };
}
