import { stream } from '$lib/server/live.ts';

/** Somebody guessed, or it was decided. */
export const GET = ({ params }) => stream([`round ${params.id}`], () => ({ guessed: true }));
