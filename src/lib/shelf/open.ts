/** A file that is dropped on the shelf, or chosen: a project is opened, an errand or a lesson is put among the others. */
import { LARGEST_FILE } from '../../../core/write.ts';
import type { Errand } from '../../../core/errand/errand.ts';
import { say, tongue, type Tongue } from '../../../core/words.ts';
import type { ProofApi } from '../../workers/proof.worker.ts';
import { createOnServer, send, type Opened } from './files.ts';

/** @property unsound: what is wrong with it, once its programs were tried */
type Taken = { ok: true; errand: string; unsound: Promise<string[]> } | { ok: true; lesson: string };
export async function openFile(file: File): Promise<Opened | Taken> {
  if (file.size > LARGEST_FILE)
    return {
      ok: false,
      problem: say('{name} is {round} MB long. A project is at most 8 MB. Is it another kind of file?', {
        name: file.name,
        round: Math.round(file.size / 1e6)
      })
    };
  if (file.name.endsWith('.zip')) return takeLesson(new Uint8Array(await file.arrayBuffer()), file.name);
  const text = await file.text();
  if (file.name.endsWith('-errand.json')) return takeErrand(text, file.name);
  const { readProject } = await import('../../../core/project.ts');
  const read = readProject(text, file.name);
  return read.ok ? createOnServer(read.project) : read;
}

/** An errand goes onto the shelf; what is wrong with it is said under the file's name. */
async function takeErrand(
  text: string,
  name: string
): Promise<{ ok: false; problem: string } | { ok: true; errand: string; unsound: Promise<string[]> }> {
  const { readErrand } = await import('../../../core/errand/errand.ts');
  const read = readErrand(text, name);
  if (!read.ok) return read;
  const made = await send('/api/errands', read.errand);
  return made.ok ? { ok: true, errand: made.id, unsound: proven(read.errand) } : made;
}
/** A lesson and its errands, from a zip file. */
async function takeLesson(
  bytes: Uint8Array,
  name: string
): Promise<{ ok: false; problem: string } | { ok: true; lesson: string }> {
  const { readLesson } = await import('../../../core/lesson/lesson.ts');
  const read = readLesson(bytes, name);
  if (!read.ok) return read;
  const made = await send('/api/lessons', { lesson: read.lesson, errands: read.errands });
  return made.ok ? { ok: true, lesson: made.id } : made;
}
/** Its model is to meet its goals, and its wrong programs are not: they are run. */
async function proven(errand: Errand): Promise<string[]> {
  const Comlink = await import('comlink');
  const worker = new Worker(new URL('../../workers/proof.worker.ts', import.meta.url), { type: 'module' });
  try {
    return await Comlink.wrap<ProofApi>(worker).unsound(errand, JSON.parse(JSON.stringify(tongue())) as Tongue);
  } finally {
    worker.terminate();
  }
}
