/** Under which addresses the room's network has this computer: secure ones first, then plain ones, then the one that was asked. */
import { networkInterfaces } from 'node:os';

export function addressesOf(url: URL): string[] {
  const hosts = Object.values(networkInterfaces())
    .flat()
    .flatMap((i) => (i && i.family === 'IPv4' && !i.internal ? [i.address] : []));
  const secure = process.env.MOSSBELL_SECURE_PORT;
  return [
    ...(secure ? hosts.map((h) => `https://${h}:${secure}`) : []),
    ...hosts.map((h) => `http://${h}:${url.port || '80'}`),
    url.origin
  ];
}
