/** ./mossbell backup FILE | restore FILE | teacher NAME: what is done to the data beside the server. */
import { stdin, stdout } from 'node:process';
import { createInterface } from 'node:readline/promises';
import { nickname } from './src/lib/class/class.ts';
import { backUp, Refused, restore } from './src/lib/server/backup.ts';
import { openDatabase } from './src/lib/server/database.ts';
import { changePassphrase, makeTeacher, teacherCalled } from './src/lib/server/people.ts';

const FOLDER = process.env.MOSSBELL_DATA ?? 'data';
const LEAST = 10;
/** A teacher is made, or one who forgot the passphrase gets another. Whoever may do this may read the data anyway. */
async function teacher(name: string): Promise<string> {
  if (!nickname.safeParse(name).success)
    throw new Refused('A name has up to 24 letters, digits, spaces, points, hyphens.');
  const asks = createInterface({ input: stdin, output: stdout });
  const passphrase = (await asks.question(`Passphrase for ${name} (${LEAST} letters or more): `)).trim();
  asks.close();
  if (passphrase.length < LEAST) throw new Refused(`A passphrase has ${LEAST} letters or more. Nothing was changed.`);
  const store = openDatabase(FOLDER);
  const known = teacherCalled(store, name);
  if (known) {
    await changePassphrase(store, known.id, passphrase);
    return `${known.nickname} has another passphrase, and is signed out everywhere.`;
  }
  await makeTeacher(store, name, passphrase);
  return `${name} can sign in as a teacher.`;
}

const [verb, what] = process.argv.slice(2);
try {
  if (!what) throw new Refused(`Usage: ./mossbell ${verb} ${verb === 'teacher' ? 'NAME' : 'FILE'}`);
  if (verb === 'backup') {
    const { bytes } = await backUp(FOLDER, what);
    console.log(
      `Backed up to ${what} (${(bytes / 1e6).toFixed(1)} MB). It holds pupils' work: keep it as you keep that.`
    );
  } else if (verb === 'restore') {
    const aside = restore(FOLDER, what);
    console.log(`Restored from ${what}.${aside ? ` What was here before lies in ${aside}.` : ''}`);
  } else console.log(await teacher(what));
  process.exit(0);
} catch (error) {
  console.error(`Moss Bell: ${error instanceof Error ? error.message : String(error)}`);
  process.exit(error instanceof Refused ? 2 : 1);
}
