import type { Handle, HandleServerError } from '@sveltejs/kit';
import { refuses } from './lib/server/guard.ts';
import { languageOf, speaks } from './lib/server/language.ts';
import { say } from '../core/words.ts';

export const handle: Handle = async ({ event, resolve }) => {
  const code = languageOf(event.cookies.get('mossbell.language'), event.request.headers.get('accept-language'));
  event.locals.language = code;
  let response = await speaks(code, async () => {
    const refusal = refuses(event.request, event.url);
    if (refusal) return Response.json({ message: refusal.message }, { status: refusal.status });
    return resolve(event, { transformPageChunk: ({ html }) => html.replace('%language%', code) });
  });
  // who asks the API wants JSON, also of what went wrong and of what is not there
  const isApi = event.url.pathname.startsWith('/api/');
  if (isApi && response.status >= 400 && !response.headers.get('content-type')?.includes('json'))
    response = Response.json(
      { message: speaks(code, () => say(response.status === 404 ? 'There is nothing here.' : 'This cannot be done.')) },
      { status: response.status }
    );
  // the built server sets these on static files too; here they make `vite dev` the same
  response.headers.set('Cross-Origin-Opener-Policy', 'same-origin');
  response.headers.set('Cross-Origin-Embedder-Policy', 'require-corp');
  return response;
};

/** A database that is locked or full is told as such, so that the page can say so and keep the work. */
export const handleError: HandleServerError = ({ error, status }) => {
  if (status === 404) return { message: say('There is nothing here.') };
  const code = (error as { code?: string }).code ?? '';
  if (code.startsWith('SQLITE_BUSY'))
    return { message: say('The database is busy. Your work stays in this browser until it can be saved.') };
  if (code.startsWith('SQLITE_FULL') || code === 'ENOSPC')
    return {
      message: say('The disk of the school computer is full. Your work stays in this browser until it can be saved.')
    };
  console.error(error);
  return {
    message: code.startsWith('SQLITE')
      ? say('The database cannot be written ({code}). Your work stays in this browser until it can be saved.', { code })
      : say('Something went wrong on the school computer.')
  };
};
