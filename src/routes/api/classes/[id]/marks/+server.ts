import { json } from '@sveltejs/kit';
import { database } from '$lib/server/database.ts';
import { marksCsv, marksOf } from '$lib/server/marks.ts';

/** Marks as JSON; with `?as=csv` as a table for a spreadsheet. */
export function GET({ params, url }) {
  const marks = marksOf(database(), params.id);
  const as = url.searchParams.get('as') === 'csv' ? 'csv' : 'json';
  const headers = { 'content-disposition': `attachment; filename="marks.${as}"`, 'cache-control': 'no-store' };
  return as === 'json'
    ? json(marks, { headers })
    : new Response(marksCsv(marks), { headers: { ...headers, 'content-type': 'text/csv; charset=utf-8' } });
}
