import { error, json } from '@sveltejs/kit';
import * as z from 'zod';
import { hasRoom, listen, tell } from '$lib/server/hands.ts';
import { say } from '../../../../../core/words.ts';

const deg = z.number().min(-180).max(180);
const message = z.strictObject({
  lean: z.strictObject({ sideways: deg, forwards: deg, turned: deg }).optional(),
  shake: z.number().min(0).max(5).optional(),
  press: z.enum(['Dot', 'Bar']).optional(),
  release: z.enum(['Dot', 'Bar']).optional(),
  edge: z.enum(['left', 'right']).optional(),
  touched: z.boolean().optional(),
  delayMs: z.number().min(0).max(60_000).optional(),
  bye: z.literal(true).optional()
});
export type HandMessage = z.infer<typeof message>;
const gone = () => say('No workbench waits under this code. Look at the code beside the yard and type it again.');

/** What the phone's hand does. */
export async function POST({ params, request }) {
  if (!hasRoom(params.code)) error(404, gone());
  const parsed = message.safeParse(await request.json().catch(() => null));
  if (!parsed.success) error(400, say('This is not something a hand can do.'));
  if (!tell(params.code, JSON.stringify(parsed.data))) error(404, gone());
  return json({ ok: true });
}

/** The workbench listens: server-sent events. */
export function GET({ params }) {
  if (!hasRoom(params.code)) error(404, gone());
  let off: (() => void) | undefined;
  let beat: ReturnType<typeof setInterval>;
  const stream = new ReadableStream({
    start(controller) {
      const encoder = new TextEncoder();
      const send = (text: string): void => controller.enqueue(encoder.encode(text));
      send(': here\n\n');
      beat = setInterval(() => send(': still here\n\n'), 15_000);
      off = listen(params.code, (m) => send(`data: ${m}\n\n`));
    },
    cancel() {
      clearInterval(beat);
      off?.();
    }
  });
  return new Response(stream, {
    headers: { 'content-type': 'text/event-stream', 'cache-control': 'no-store', 'x-accel-buffering': 'no' }
  });
}
