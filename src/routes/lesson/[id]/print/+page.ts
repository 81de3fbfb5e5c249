import { fetchLesson } from '$lib/lesson/fetched.ts';
export const load = async ({ params, fetch, url }) => {
  const teacher = url.searchParams.has('teacher');
  return { ...(await fetchLesson(params.id, fetch, teacher ? '?teacher' : '')), teacher };
};
