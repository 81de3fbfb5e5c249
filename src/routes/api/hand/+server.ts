import { json } from '@sveltejs/kit';
import { networkInterfaces } from 'node:os';
import { openRoom } from '$lib/server/hands.ts';

/** A code for a phone, and the addresses under which the room's network has this computer; secure ones first. */
export function POST({ url }) {
  const code = openRoom();
  const hosts = Object.values(networkInterfaces())
    .flat()
    .flatMap((i) => (i && i.family === 'IPv4' && !i.internal ? [i.address] : []));
  const secure = process.env.MOSSBELL_SECURE_PORT;
  const addresses = [
    ...(secure ? hosts.map((h) => `https://${h}:${secure}`) : []),
    ...hosts.map((h) => `http://${h}:${url.port || '80'}`),
    url.origin
  ];
  return json({ code, addresses: addresses.map((a) => `${a}/hand?code=${code}`) }, { status: 201 });
}
