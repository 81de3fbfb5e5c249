import { database } from '$lib/server/database.ts';
import { listAudit } from '$lib/server/classes.ts';
import { listTeachers } from '$lib/server/people.ts';

export const load = ({ locals }) => ({
  lines: listAudit(database(), locals.who.id),
  teachers: listTeachers(database())
});
