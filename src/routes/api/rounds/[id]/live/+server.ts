import { stream } from '$lib/server/live.ts';

/** Somebody guessed, or it was decided. */
export const GET = ({ params, locals }) => stream([`round ${params.id}`], locals.still, () => ({ guessed: true }));
