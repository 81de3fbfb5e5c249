import { error, json } from '@sveltejs/kit';
import * as z from 'zod';
import { tooMany } from '$lib/server/guard.ts';
import { answer, hasRoom, listen, nameOf, tell } from '$lib/server/hands.ts';
import { say } from '../../../../../core/words.ts';

const deg = z.number().min(-180).max(180);
const message = z.strictObject({
  /** which phone it is: a number of its own that it made */
  phone: z.string().regex(/^[0-9a-z]{8,32}$/),
  lean: z.strictObject({ sideways: deg, forwards: deg, turned: deg }).optional(),
  shake: z.number().min(0).max(5).optional(),
  press: z.enum(['Dot', 'Bar']).optional(),
  release: z.enum(['Dot', 'Bar']).optional(),
  edge: z.enum(['left', 'right']).optional(),
  touched: z.boolean().optional(),
  delayMs: z.number().min(0).max(60_000).optional(),
  bye: z.literal(true).optional()
});
const decision = z.strictObject({ phone: z.string(), yes: z.boolean() });
/** what the workbench hears: what a hand does, or that another phone asks to be it */
export type HandMessage = Partial<z.infer<typeof message>> & { asks?: string };
const gone = () => say('No workbench waits under this code. Look at the code beside the yard and type it again.');

/** What the phone's hand does. */
export async function POST({ params, request, getClientAddress }) {
  const who = getClientAddress();
  const slow = () => error(429, say('That was too often in a minute. Wait a little.'));
  // who guesses codes is stopped before it is told whether one is right
  if (await tooMany('wrong code', who, true)) slow();
  if (!hasRoom(params.code)) {
    await tooMany('wrong code', who);
    error(404, gone());
  }
  if (await tooMany('hand', `${who} ${params.code}`)) slow();
  const parsed = message.safeParse(await request.json().catch(() => null));
  if (!parsed.success) error(400, say('This is not something a hand can do.'));
  const { phone, ...told } = parsed.data;
  switch (tell(params.code, phone, JSON.stringify(told), told.bye)) {
    case 'nobody':
      return error(404, gone());
    case 'refused':
      return error(403, say('Another phone is the hand of this workbench.'));
    case 'waiting':
      return json({ waiting: true }, { status: 202 });
    default:
      return json({ ok: true, name: nameOf(params.code) });
  }
}
/** The workbench lets another phone be the hand, or does not. */
export async function PUT({ params, request, url }) {
  const parsed = decision.safeParse(await request.json().catch(() => null));
  if (!parsed.success) error(400, say('This cannot be done.'));
  if (!answer(params.code, url.searchParams.get('key'), parsed.data.phone, parsed.data.yes)) error(404, gone());
  return new Response(null, { status: 204 });
}

/** The workbench listens: server-sent events. */
export function GET({ params, url }) {
  const key = url.searchParams.get('key');
  const probe = listen(params.code, key, () => {});
  if (!probe) error(404, gone());
  probe();
  let off: (() => void) | undefined;
  let beat: ReturnType<typeof setInterval>;
  const stream = new ReadableStream({
    start(controller) {
      const encoder = new TextEncoder();
      const send = (text: string): void => controller.enqueue(encoder.encode(text));
      send(': here\n\n');
      beat = setInterval(() => send(': still here\n\n'), 15_000);
      off = listen(params.code, key, (m) => send(`data: ${m}\n\n`));
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
