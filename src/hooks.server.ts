import { redirect, type Handle, type HandleServerError, type RequestEvent } from '@sveltejs/kit';
import { mayNot } from './lib/server/access.ts';
import { cookieOf, GUEST, SESSION } from './lib/server/cookies.ts';
import { database } from './lib/server/database.ts';
import { takesTheLast } from './lib/server/disk.ts';
import { refuses } from './lib/server/guard.ts';
import { languageOf, speaks } from './lib/server/language.ts';
import { guestOf, whoHas, type Who } from './lib/server/people.ts';
import { drawToken } from './lib/server/secrets.ts';
import { say } from '../core/words.ts';

const YEAR_S = 365 * 86_400;
/** Whom a request comes from: who signed in with its session, or else its browser as a guest. */
function whoAsks({ cookies, url }: RequestEvent): Who {
  const token = cookies.get(SESSION);
  const signedIn =
    token &&
    whoHas(database(), token, (endsAt) => cookies.set(SESSION, token, cookieOf(url, (endsAt - Date.now()) / 1000)));
  if (signedIn) return signedIn;
  let guest = cookies.get(GUEST);
  if (!guest) cookies.set(GUEST, (guest = drawToken()), cookieOf(url, YEAR_S));
  return guestOf(guest);
}

/** Whether somebody may still do what was asked: not once signed out, or with another card, or when it is shown no more. */
function stillMay({ cookies, route, request, params, locals }: RequestEvent): boolean {
  const token = cookies.get(SESSION);
  const { who } = locals;
  const is = who.role === 'guest' || (token !== undefined && whoHas(database(), token, () => {})?.id === who.id);
  return is && !mayNot(database(), who, route.id, request.method, params);
}

export const handle: Handle = async ({ event, resolve }) => {
  const code = languageOf(event.cookies.get('mossbell.language'), event.request.headers.get('accept-language'));
  event.locals.language = code;
  // who asks the API wants JSON, also of what went wrong and of what is not there
  const isApi = event.url.pathname.startsWith('/api/');
  let response = await speaks(code, async () => {
    const refusal = refuses(event.request, event.url);
    if (refusal) return Response.json({ message: refusal.message }, { status: refusal.status });
    if (takesTheLast(event.request.method, event.url.pathname))
      return Response.json({ message: diskFull() }, { status: 507 });
    const who = (event.locals.who = whoAsks(event));
    const no = mayNot(database(), who, event.route.id, event.request.method, event.params);
    if (no && isApi) return Response.json({ message: no.message }, { status: no.status });
    // what goes on after it was answered asks again and again
    event.locals.still = () => stillMay(event);
    // a page that is somebody else's: the way to it is to sign in
    if (no) redirect(303, `/sign-in?to=${encodeURIComponent(event.url.pathname)}`);
    return resolve(event, { transformPageChunk: ({ html }) => html.replace('%language%', code) });
  });
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

const diskFull = (): string =>
  say('The disk of the school computer is full. Your work stays in this browser until it can be saved.');
/** A database that is locked or full is told as such, so that the page can say so and keep the work. */
export const handleError: HandleServerError = ({ error, status }) => {
  if (status === 404) return { message: say('There is nothing here.') };
  const code = (error as { code?: string }).code ?? '';
  if (code.startsWith('SQLITE_BUSY'))
    return { message: say('The database is busy. Your work stays in this browser until it can be saved.') };
  if (code.startsWith('SQLITE_FULL') || code === 'ENOSPC') return { message: diskFull() };
  console.error(error);
  return {
    message: code.startsWith('SQLITE')
      ? say('The database cannot be written ({code}). Your work stays in this browser until it can be saved.', { code })
      : say('Something went wrong on the school computer.')
  };
};
