/**
 * A lesson: a teacher's text, and the programs that it shows. Its file ends in .mossbell-lesson.zip and holds `lesson.json`,
 * the text as Markdown, the programs as project files (each with its kit and mat), and the errands that the text names.
 * Everything from outside comes in through `readLesson` or `checkLesson`, which say what is wrong, where, and what to do.
 */
import { strFromU8, strToU8, unzipSync, zipSync } from 'fflate';
import * as z from 'zod';
import { checkErrand, readErrand, writeErrand, type Errand } from '../errand/errand.ts';
import { slug, type Told } from '../errand/task.ts';
import { checkProject, readProject, writeProject, type Project } from '../project.ts';
import { jsonOf, whatIsWrong } from '../read.ts';
import { say } from '../words.ts';
import { forPupils, namedIn } from './page.ts';

export const LESSON_VERSION = 1;
export const LESSON_ENDING = '.mossbell-lesson.zip';
const MOST_TEXT = 200_000;
const MOST_PROGRAMS = 60;
/** So much a file may hold once it is unpacked, bytes. */
const MOST_BYTES = 20_000_000;

/** Its blanks and line ends stay as they were written. */
const written = z.string().min(1).max(MOST_TEXT);
const head = { format: z.literal('mossbell.lesson'), version: z.literal(LESSON_VERSION), id: slug };
export const lessonSchema = z.strictObject({
  ...head,
  /** Markdown with pieces, by the codes of languages where there are several */
  text: z.union([written, z.record(z.string().regex(/^[a-z]{2}$/), written)]),
  /** what the text shows, by the names that it has there; each is read by itself */
  programs: z.record(slug, z.unknown())
});
const headSchema = z.strictObject(head);
export type Lesson = {
  format: 'mossbell.lesson';
  version: typeof LESSON_VERSION;
  id: string;
  text: Told;
  programs: Record<string, Project>;
};
/** A lesson, and the errands that it names. */
export type LessonFile = { lesson: Lesson; errands: Errand[] };
type Read<T> = ({ ok: true } & T) | { ok: false; problem: string };
const no = (problem: string): { ok: false; problem: string } => ({ ok: false, problem });

export const newLesson = (id: string, text: string): Lesson => ({
  format: 'mossbell.lesson',
  version: LESSON_VERSION,
  id,
  text,
  programs: {}
});
/** In each of its languages. */
export const eachText = (text: Told, change: (text: string) => string): Told =>
  typeof text === 'string' ? change(text) : Object.fromEntries(Object.entries(text).map(([k, v]) => [k, change(v)]));
const texts = (text: Told): string[] => (typeof text === 'string' ? [text] : Object.values(text));
/** What its texts name. */
export const namesIn = ({ text }: Pick<Lesson, 'text'>, of: 'program' | 'errand'): string[] => [
  ...new Set(texts(text).flatMap((t) => namedIn(t, of)))
];
/** As a pupil may have it. */
export const pupilsCopy = (lesson: Lesson): Lesson => ({ ...lesson, text: eachText(lesson.text, forPupils) });

function newerThan(value: unknown, name: string): string | undefined {
  const { version } = (value ?? {}) as { version?: unknown };
  return typeof version === 'number' && version > LESSON_VERSION
    ? say(
        '{name} was written by a newer Moss Bell (lessons of version {version}; this one reads up to {last}). Update Moss Bell to open it.',
        { name, version, last: LESSON_VERSION }
      )
    : undefined;
}
export function checkLesson(value: unknown, name = 'This lesson'): Read<{ lesson: Lesson }> {
  if ((value as { format?: unknown } | null)?.format !== 'mossbell.lesson')
    return no(
      say('{name} is not a lesson of Moss Bell. Choose a file that ends in {ending}.', { name, ending: LESSON_ENDING })
    );
  const newer = newerThan(value, name);
  if (newer) return no(newer);
  const parsed = lessonSchema.safeParse(value);
  if (!parsed.success) return no(whatIsWrong(parsed.error, name));
  const programs: Record<string, Project> = {};
  const entries = Object.entries(parsed.data.programs);
  if (entries.length > MOST_PROGRAMS)
    return no(say('{name} has more than {most} programs.', { name, most: MOST_PROGRAMS }));
  for (const [key, program] of entries) {
    const read = checkProject(program, say('The program {key} of {name}', { key, name }));
    if (!read.ok) return read;
    programs[key] = read.project;
  }
  return { ok: true, lesson: { ...(parsed.data as Omit<Lesson, 'programs'>), programs } };
}
/** A lesson and its errands, as one value. */
export function checkLessonFile(value: unknown, name?: string): Read<LessonFile> {
  const { lesson, errands = [] } = (value ?? {}) as { lesson?: unknown; errands?: unknown[] };
  const read = checkLesson(lesson, name);
  if (!read.ok) return read;
  const list: Errand[] = [];
  for (const one of Array.isArray(errands) ? errands.slice(0, MOST_PROGRAMS) : []) {
    const errand = checkErrand(one, say('An errand of {name}', { name: name ?? 'This lesson' }));
    if (!errand.ok) return errand;
    list.push(errand.errand);
  }
  return { ok: true, lesson: read.lesson, errands: list };
}

/** The files that a lesson is kept in, by their paths. */
export type Files = Record<string, Uint8Array>;
const TEXT = /^lesson(?:\.([a-z]{2}))?\.md$/;
export function filesOf({ lesson, errands }: LessonFile): Files {
  const { text, programs, ...head } = lesson;
  const files: Record<string, string> = { 'lesson.json': `${JSON.stringify(head, null, 1)}\n` };
  if (typeof text === 'string') files['lesson.md'] = text;
  else for (const [code, one] of Object.entries(text)) files[`lesson.${code}.md`] = one;
  for (const [name, project] of Object.entries(programs))
    files[`programs/${name}.mossbell.json`] = writeProject(project);
  for (const errand of errands) files[`errands/${errand.id}.mossbell-errand.json`] = writeErrand(errand);
  return Object.fromEntries(Object.entries(files).map(([path, content]) => [path, strToU8(content)]));
}
export function fromFiles(files: Files, name: string): Read<LessonFile> {
  if (!files['lesson.json']) return no(say('{name} has no lesson.json: it is not a lesson of Moss Bell.', { name }));
  const json = jsonOf(strFromU8(files['lesson.json']), `${name}: lesson.json`, LESSON_ENDING);
  if ('problem' in json) return no(json.problem);
  const newer = newerThan(json.json, name);
  if (newer) return no(newer);
  const head = headSchema.safeParse(json.json);
  if (!head.success) return no(whatIsWrong(head.error, `${name}: lesson.json`));
  const text: Record<string, string> = {};
  const programs: Record<string, Project> = {};
  const errands: Errand[] = [];
  for (const [path, bytes] of Object.entries(files)) {
    const file = `${name}: ${path}`;
    const [, code = ''] = TEXT.exec(path) ?? [];
    if (TEXT.test(path)) text[code] = strFromU8(bytes);
    else if (path.startsWith('programs/') && path.endsWith('.mossbell.json')) {
      const read = readProject(strFromU8(bytes), file);
      if (!read.ok) return read;
      programs[path.slice('programs/'.length, -'.mossbell.json'.length)] = read.project;
    } else if (path.startsWith('errands/') && path.endsWith('.mossbell-errand.json')) {
      const read = readErrand(strFromU8(bytes), file);
      if (!read.ok) return read;
      errands.push(read.errand);
    }
  }
  if (!Object.keys(text).length) return no(say('{name} has no text: it wants a file lesson.md.', { name }));
  const lesson = { ...head.data, text: '' in text ? text[''] : text, programs };
  const checked = checkLesson(lesson, name);
  return checked.ok ? { ok: true, lesson: checked.lesson, errands } : checked;
}
export const zipLesson = (file: LessonFile): Uint8Array => zipSync(filesOf(file), { level: 6 });
/** @param name how to call the file in a message */
export function readLesson(bytes: Uint8Array, name: string): Read<LessonFile> {
  let files: Files;
  let total = 0;
  try {
    files = unzipSync(bytes, {
      filter: ({ name: path, originalSize }) => !path.endsWith('/') && (total += originalSize) <= MOST_BYTES
    });
  } catch {
    return no(
      say('{name} is not a zip file, or only a part of one. Choose a file that ends in {ending}.', {
        name,
        ending: LESSON_ENDING
      })
    );
  }
  if (total > MOST_BYTES)
    return no(say('{name} unpacks to more than {mb} MB. Is it another kind of file?', { name, mb: MOST_BYTES / 1e6 }));
  return fromFiles(files, name);
}
