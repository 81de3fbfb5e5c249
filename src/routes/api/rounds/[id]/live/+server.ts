import { stream } from '$lib/server/live.ts';

/** Somebody guessed, or it was decided. */
export const GET = ({ params, locals, getClientAddress }) =>
  stream({ who: locals.who.id, address: getClientAddress() }, [`round ${params.id}`], locals.still, () => ({
    guessed: true
  }));
