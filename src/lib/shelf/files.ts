/** Opening and saving project files in the browser. */
import type { Project } from '../../../core/project.ts';
import { silent } from '../ui/silent.ts';
import { writeProject } from '../../../core/write.ts';

export type Opened = { ok: true; id: string } | { ok: false; problem: string };

export const createOnServer = (project: Project): Promise<Opened> => send('/api/projects', project);
/** @param value goes as JSON */
export async function send(to: string, value: object): Promise<Opened> {
  try {
    const response = await fetch(to, {
      method: 'POST',
      headers: { 'content-type': 'application/json' },
      body: JSON.stringify(value)
    });
    const answer = await response.json();
    return response.ok ? { ok: true, id: answer.id } : { ok: false, problem: answer.message };
  } catch {
    return { ok: false, problem: silent() };
  }
}

export function download(name: string, content: string | Blob, type = 'application/json'): void {
  const link = document.createElement('a');
  link.href = URL.createObjectURL(typeof content === 'string' ? new Blob([content], { type }) : content);
  link.download = name;
  link.click();
  setTimeout(() => URL.revokeObjectURL(link.href), 10_000);
}
export const fileName = (name: string): string =>
  name
    .trim()
    .toLowerCase()
    .replace(/[^\p{L}\p{N}]+/gu, '-')
    .replace(/^-|-$/g, '') || 'project';
export const saveFile = (project: Project): void =>
  download(`${fileName(project.name)}.mossbell.json`, writeProject(project));
