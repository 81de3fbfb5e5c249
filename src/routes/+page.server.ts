import { database } from '$lib/server/database.ts';
import { listProjects } from '$lib/server/projects.ts';

export function load() {
  const cards = listProjects(database());
  return { own: cards.filter((c) => !c.demo), demo: cards.filter((c) => c.demo) };
}
