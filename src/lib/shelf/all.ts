/** Every project of the shelf by its name, own ones and demo projects: for choosing one. */
import { PAGE_OF_SHELF } from './cards.ts';

export type Named = { id: string; name: string; device: string };
/** So many pages of one's own are asked for at the most. */
const PAGES = 20;
export async function allProjects(): Promise<Named[]> {
  const list = async (query: string): Promise<Named[]> => {
    const answer = await fetch(`/api/projects?${query}`).catch(() => undefined);
    return answer?.ok ? ((await answer.json()) as Named[]) : [];
  };
  const own: Named[] = [];
  for (let page = 0; page < PAGES; page++) {
    // one card more tells that there is another page
    const cards = await list(`order=name&from=${page * PAGE_OF_SHELF}`);
    own.push(...cards.slice(0, PAGE_OF_SHELF));
    if (cards.length <= PAGE_OF_SHELF) break;
  }
  return [...own, ...(await list('demo'))];
}
