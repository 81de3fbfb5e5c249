import { error, json } from '@sveltejs/kit';
import * as z from 'zod';
import { checkProject } from '../../../../../core/project.ts';
import { database } from '$lib/server/database.ts';
import { deleteProject, openProject, saveProject } from '$lib/server/projects.ts';
import { say } from '../../../../../core/words.ts';

const body = z.object({ base: z.number().int(), project: z.unknown() });

export function GET({ params }) {
  const opened = openProject(database(), params.id);
  if (!opened) error(404, say('There is no such project on this computer.'));
  return json(opened);
}

/** Saves on top of version `base`; 409 with the newest version if somebody else saved in between. */
export async function PUT({ params, request }) {
  const parsed = body.safeParse(await request.json().catch(() => null));
  if (!parsed.success) error(400, say('A save needs "base" and "project".'));
  const read = checkProject(parsed.data.project, say('This project'));
  if (!read.ok) error(400, read.problem);
  const saved = saveProject(database(), params.id, parsed.data.base, read.project);
  if (!saved) error(404, say('There is no such project on this computer.'));
  return saved.ok ? json({ version: saved.version }) : json(saved.newest, { status: 409 });
}

export function DELETE({ params }) {
  if (!deleteProject(database(), params.id)) error(404, say('There is no such project, or it is a demo project.'));
  return new Response(null, { status: 204 });
}
