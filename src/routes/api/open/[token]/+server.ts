import { error, json } from '@sveltejs/kit';
import { database } from '$lib/server/database.ts';
import { copyOfLink, openLink } from '$lib/server/links.ts';
import { say } from '../../../../../core/words.ts';

const none = () => error(404, say('This link opens nothing any more. Ask whoever gave it to you.'));
export const GET = ({ params }) => json(openLink(database(), params.token) ?? none());
export const POST = ({ params, locals }) =>
  json(copyOfLink(database(), params.token, locals.who.id) ?? none(), { status: 201 });
