import { fetchLesson } from '$lib/lesson/fetched.ts';
export const load = ({ params, fetch }) => fetchLesson(params.id, fetch, '?teacher');
