/**
 * Serves the built application. Cross-origin isolation goes on every response, static files and workers too, since
 * workers with SharedArrayBuffer are refused without it.
 */
import { existsSync, mkdirSync, readFileSync, writeFileSync } from 'node:fs';
import { createServer, type RequestListener } from 'node:http';
import { createServer as createSecureServer } from 'node:https';
import { networkInterfaces } from 'node:os';
import { join } from 'node:path';
import { generate } from 'selfsigned';
import { beginServing, endServing, Refused } from './src/lib/server/backup.ts';
import { database, notOpened } from './src/lib/server/database.ts';
import { seedClass } from './demo/class.ts';
import { seed, ship } from './demo/seed.ts';
import { DEMO_TEACHER, demoOf } from './src/lib/server/demo.ts';
import { firstWords } from './src/lib/server/first.ts';
import { hasTeacher } from './src/lib/server/people.ts';

process.env.PROTOCOL_HEADER ??= 'x-forwarded-proto';
process.env.HOST_HEADER ??= 'host';
process.env.BODY_SIZE_LIMIT ??= '64M';
const { handler } = (await import('./build/handler.js' as string)) as { handler: (req: unknown, res: unknown) => void };

const FOLDER = process.env.MOSSBELL_DATA ?? 'data';
const isDemo = process.argv.includes('--demo');
/** Says what keeps it from starting, and ends. */
function stop(why: string): never {
  console.error(`Moss Bell: ${why}`);
  process.exit(1);
}
try {
  beginServing(FOLDER);
  process.on('exit', () => endServing(FOLDER));
  const count = seed(database());
  ship(database());
  if (count) console.log(`Moss Bell: ${count} demo projects laid on the shelf.`);
  if (isDemo && (await seedClass(database())))
    console.log(
      `Moss Bell: the class "Tuesday workshop" is there. Its teacher is ${DEMO_TEACHER.nickname}, the passphrase "${DEMO_TEACHER.passphrase}".`
    );
} catch (error) {
  stop(error instanceof Refused ? error.message : notOpened(error, FOLDER));
}
if (!isDemo && demoOf(database()))
  stop(
    `The data in "${FOLDER}" are those of the demo: everybody can read its teacher's passphrase. Choose another folder: MOSSBELL_DATA=FOLDER ./mossbell serve`
  );
const serve =
  (protocol: 'http' | 'https'): RequestListener =>
  (request, response) => {
    response.setHeader('Cross-Origin-Opener-Policy', 'same-origin');
    response.setHeader('Cross-Origin-Embedder-Policy', 'require-corp');
    response.setHeader('Cross-Origin-Resource-Policy', 'same-origin');
    response.setHeader('X-Content-Type-Options', 'nosniff');
    response.setHeader('X-Frame-Options', 'DENY');
    response.setHeader('Referrer-Policy', 'same-origin');
    request.headers['x-forwarded-proto'] = protocol;
    handler(request, response);
  };
const server = createServer(serve('http'));
// a browser that is quiet for a minute finds its line open
server.keepAliveTimeout = 65_000;

/** The certificate of this computer, made at the first start and kept with the data: phones tell their sensors to https alone. */
async function certificate(): Promise<{ key: string; cert: string }> {
  const file = join(FOLDER, 'certificate.json');
  if (existsSync(file)) return JSON.parse(readFileSync(file, 'utf8')) as { key: string; cert: string };
  const made = await generate([{ name: 'commonName', value: 'Moss Bell' }], {
    notAfterDate: new Date(Date.now() + 10 * 365 * 86_400_000)
  });
  const kept = { key: made.private, cert: made.cert };
  mkdirSync(FOLDER, { recursive: true });
  writeFileSync(file, JSON.stringify(kept), { mode: 0o600 });
  return kept;
}

const wanted = Number(process.env.PORT ?? 4680);
let tries = 0;
server.on('error', (error: NodeJS.ErrnoException) => {
  if (error.code === 'EADDRINUSE' && !process.env.PORT && tries++ < 50) server.listen(wanted + tries);
  else {
    console.error(
      error.code === 'EADDRINUSE'
        ? `Moss Bell: port ${wanted} is taken. Choose another: PORT=5000 ./mossbell ${isDemo ? 'demo' : 'serve'}`
        : `Moss Bell: ${error.message}`
    );
    process.exit(1);
  }
});
server.on('listening', async () => {
  const address = server.address();
  const port = typeof address === 'object' && address ? address.port : wanted;
  console.log(`Moss Bell is ready. Open http://localhost:${port} in a browser on this computer. Ctrl-C ends it.`);
  const secure = createSecureServer(await certificate(), serve('https'));
  secure.on('error', (error) => console.error(`Moss Bell: no secure address for phones: ${error.message}`));
  secure.listen(port + 1, () => (process.env.MOSSBELL_SECURE_PORT = String(port + 1)));
  const lan = Object.values(networkInterfaces())
    .flat()
    .find((i) => i && i.family === 'IPv4' && !i.internal);
  if (!hasTeacher(database()))
    console.log(
      `Nobody teaches here yet. The first teacher is made at http://localhost:${port}/sign-in on this computer, or at http://${lan?.address ?? 'ADDRESS'}:${port}/sign-in from another one with these words: ${firstWords()}`
    );
  if (lan && process.env.MOSSBELL_QUIET !== '1')
    console.log(
      `(Elsewhere in the room: https://${lan.address}:${port + 1}, once the browser's warning about this computer's own certificate is passed.)`
    );
});
server.listen(wanted);
for (const signal of ['SIGINT', 'SIGTERM'] as const) process.on(signal, () => process.exit(0));
