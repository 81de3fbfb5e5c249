/** Opening and saving project files in the browser. */
import type { Project } from '../../../core/project.ts';
import { say } from '../../../core/words.ts';
import { LARGEST_FILE, writeProject } from '../../../core/write.ts';

export type Opened = { ok: true; id: string } | { ok: false; problem: string };

export async function createOnServer(project: Project): Promise<Opened> {
  try {
    const response = await fetch('/api/projects', {
      method: 'POST',
      headers: { 'content-type': 'application/json' },
      body: JSON.stringify(project)
    });
    const answer = await response.json();
    return response.ok ? { ok: true, id: answer.id } : { ok: false, problem: answer.message };
  } catch {
    return { ok: false, problem: say('The school computer does not answer. Is Moss Bell still running there?') };
  }
}

export async function openFile(file: File): Promise<Opened> {
  if (file.size > LARGEST_FILE)
    return {
      ok: false,
      problem: say('{name} is {round} MB long. A project is at most 8 MB. Is it another kind of file?', {
        name: file.name,
        round: Math.round(file.size / 1e6)
      })
    };
  const { readProject } = await import('../../../core/project.ts');
  const read = readProject(await file.text(), file.name);
  return read.ok ? createOnServer(read.project) : read;
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
