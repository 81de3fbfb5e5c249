import type { Handle, HandleServerError } from '@sveltejs/kit';

export const handle: Handle = async ({ event, resolve }) => {
  const response = await resolve(event);
  // the built server sets these on static files too; here they make `vite dev` the same
  response.headers.set('Cross-Origin-Opener-Policy', 'same-origin');
  response.headers.set('Cross-Origin-Embedder-Policy', 'require-corp');
  return response;
};

/** A database that is locked or full is told as such, so that the page can say so and keep the work. */
export const handleError: HandleServerError = ({ error }) => {
  const code = (error as { code?: string }).code ?? '';
  if (code.startsWith('SQLITE_BUSY'))
    return { message: 'The database is busy. Your work stays in this browser until it can be saved.' };
  if (code.startsWith('SQLITE_FULL') || code === 'ENOSPC')
    return {
      message: 'The disk of the school computer is full. Your work stays in this browser until it can be saved.'
    };
  console.error(error);
  return {
    message: code.startsWith('SQLITE')
      ? `The database cannot be written (${code}). Your work stays in this browser until it can be saved.`
      : 'Something went wrong on the school computer.'
  };
};
