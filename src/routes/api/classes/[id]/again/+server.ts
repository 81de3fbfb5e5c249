import { error, json } from '@sveltejs/kit';
import { againCsv, runAllAgain } from '$lib/server/again.ts';
import { database } from '$lib/server/database.ts';
import { say } from '../../../../../../core/words.ts';

const tableOf = async (id: string, url: URL) =>
  (await runAllAgain(database(), id, url.searchParams.get('given') ?? '')) ??
  error(404, say('This class was not given such an errand.'));

/** Runs all that was handed in of one errand again. */
export const POST = async ({ params, url }) => json(await tableOf(params.id, url));
/** The same as a table. */
export const GET = async ({ params, url }) =>
  new Response(againCsv(await tableOf(params.id, url)), {
    headers: {
      'content-type': 'text/csv; charset=utf-8',
      'content-disposition': 'attachment; filename="handed-in.csv"'
    }
  });
