import { stream } from '$lib/server/live.ts';

/** What happens to a project that is looked at: a new version, a run, a comment, who drives, where the teacher points. */
export const GET = ({ params }) => stream([`project ${params.id}`], () => undefined);
