/**
 * Serves the built application. Cross-origin isolation goes on every response, static files and workers too, since
 * workers with SharedArrayBuffer are refused without it.
 */
import { createServer } from 'node:http';
import { networkInterfaces } from 'node:os';
import { database } from './src/lib/server/database.ts';
import { seed } from './demo/seed.ts';

process.env.PROTOCOL_HEADER ??= 'x-forwarded-proto';
process.env.HOST_HEADER ??= 'host';
process.env.BODY_SIZE_LIMIT ??= '64M';
const { handler } = (await import('./build/handler.js' as string)) as { handler: (req: unknown, res: unknown) => void };

if (process.argv.includes('--demo')) {
  const count = seed(database());
  if (count) console.log(`Moss Bell: ${count} demo projects laid on the shelf.`);
}
const server = createServer((request, response) => {
  response.setHeader('Cross-Origin-Opener-Policy', 'same-origin');
  response.setHeader('Cross-Origin-Embedder-Policy', 'require-corp');
  response.setHeader('Cross-Origin-Resource-Policy', 'same-origin');
  request.headers['x-forwarded-proto'] = 'http';
  handler(request, response);
});

const wanted = Number(process.env.PORT ?? 4680);
let tries = 0;
server.on('error', (error: NodeJS.ErrnoException) => {
  if (error.code === 'EADDRINUSE' && !process.env.PORT && tries++ < 50) server.listen(wanted + tries);
  else {
    console.error(
      error.code === 'EADDRINUSE'
        ? `Moss Bell: port ${wanted} is taken. Choose another: PORT=5000 ./mossbell demo`
        : `Moss Bell: ${error.message}`
    );
    process.exit(1);
  }
});
server.on('listening', () => {
  const address = server.address();
  const port = typeof address === 'object' && address ? address.port : wanted;
  console.log(`Moss Bell is ready. Open http://localhost:${port} in a browser on this computer. Ctrl-C ends it.`);
  const lan = Object.values(networkInterfaces())
    .flat()
    .find((i) => i && i.family === 'IPv4' && !i.internal);
  if (lan && process.env.MOSSBELL_QUIET !== '1')
    console.log(
      `(Elsewhere in the room http://${lan.address}:${port} opens it too, but there browsers withhold what a plugged-in device needs.)`
    );
});
server.listen(wanted);
for (const signal of ['SIGINT', 'SIGTERM'] as const) process.on(signal, () => process.exit(0));
