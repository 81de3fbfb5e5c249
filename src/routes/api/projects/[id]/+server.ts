import { error, json } from '@sveltejs/kit';
import * as z from 'zod';
import { readProject } from '../../../../../core/project.ts';
import { database } from '$lib/server/database.ts';
import {
  deleteProject,
  labelProject,
  openProject,
  rawProject,
  renameProject,
  restoreProject,
  saveProject
} from '$lib/server/projects.ts';
import { ofClass } from '$lib/server/reach.ts';
import { projectChanged } from '$lib/server/wall.ts';
import { say } from '../../../../../core/words.ts';

const none = (): never => error(404, say('There is no such project on this computer.'));

/** The project; with `?raw` its newest version as it was saved, as a file, even where it cannot be opened. */
export function GET({ params, url, locals }) {
  if (url.searchParams.has('raw')) {
    const raw = rawProject(database(), params.id) ?? none();
    return new Response(raw, {
      headers: {
        'content-type': 'application/json',
        'content-disposition': `attachment; filename="${params.id.replace(/[^\w-]/g, '')}.mossbell.json"`
      }
    });
  }
  let opened: ReturnType<typeof openProject>;
  try {
    opened = openProject(database(), params.id);
  } catch (problem) {
    error(422, (problem as Error).message);
  }
  return json({ ...(opened ?? none()), of: ofClass(database(), locals.who, params.id) });
}

/**
 * Saves the body, a project's file, on top of version `?base`; 409 with the newest version if somebody else saved in between:
 * another `?tab`, by its own name.
 */
export async function PUT({ params, request, url, locals }) {
  const base = Number(url.searchParams.get('base'));
  if (!Number.isSafeInteger(base) || base < 1) error(400, say('A save needs the version that it is based on.'));
  const read = readProject(await request.text(), say('This project'));
  if (!read.ok)
    error(
      400,
      read.wrong
        ? say('What was done last cannot be saved: {wrong} Undo it, or change it.', { wrong: read.wrong })
        : read.problem
    );
  const saved =
    saveProject(database(), params.id, base, read.project, Date.now(), url.searchParams.get('tab')) ?? none();
  if (saved.ok) projectChanged(database(), params.id, { version: saved.version, by: locals.who.id });
  return saved.ok ? json({ version: saved.version }) : json(saved.newest, { status: 409 });
}

const change = z.union([
  z.strictObject({ name: z.string().trim().min(1).max(80) }),
  z.strictObject({ label: z.string().trim().max(40) })
]);
/** Another name, or another label. */
export async function PATCH({ params, request }) {
  const { data } = change.safeParse(await request.json().catch(() => undefined));
  if (!data) error(400, say('A project can get another name (1 to 80 letters) or another label (up to 40).'));
  const done =
    'name' in data ? renameProject(database(), params.id, data.name) : labelProject(database(), params.id, data.label);
  if (!done) error(404, say('There is no such project, or it is a demo project.'));
  return new Response(null, { status: 204 });
}

/** Takes it off the shelf, or with `?back` back onto it. */
export function DELETE({ params }) {
  if (!deleteProject(database(), params.id)) error(404, say('There is no such project, or it is a demo project.'));
  return new Response(null, { status: 204 });
}
export function POST({ params, url }) {
  if (!url.searchParams.has('back')) error(400, say('This cannot be done.'));
  if (!restoreProject(database(), params.id)) none();
  return new Response(null, { status: 204 });
}
