/** What the browser keeps for the server: who signed in, and of who did not, that it is the same browser. No script sees it. */
import type { Cookies } from '@sveltejs/kit';

export const SESSION = 'mossbell.session';
export const GUEST = 'mossbell.guest';
/** who signed in last in this browser, signed: guesses from elsewhere do not keep them out */
export const KNOWN = 'mossbell.known';
export const cookieOf = (url: URL, maxAge: number): Parameters<Cookies['set']>[2] => ({
  path: '/',
  httpOnly: true,
  sameSite: 'lax',
  secure: url.protocol === 'https:',
  maxAge: Math.max(0, Math.round(maxAge))
});
