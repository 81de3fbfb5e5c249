/** What happens in the room, told at once to the pages that show it: server-sent events. In memory alone; one process. */
import { EventEmitter } from 'node:events';
import { say } from '../../../core/words.ts';

const room = new EventEmitter().setMaxListeners(0);
export const isFollowed = (topic: string): boolean => room.listenerCount(topic) > 0;
/** @param topic such as `wall ID`, `person ID`, `class ID`, `project ID` */
export function tell(topic: string, what: object): void {
  if (isFollowed(topic)) room.emit(topic, JSON.stringify(what));
}

/** So many streams one person, or one browser, may have open; one address (a whole room may be one); all. */
const MOST = { who: 24, address: 400, all: 2000 };
const opened = new Map<string, number>();
let all = 0;
const count = (keys: readonly string[], by: 1 | -1): void => {
  all += by;
  for (const key of keys) {
    const n = (opened.get(key) ?? 0) + by;
    if (n > 0) opened.set(key, n);
    else opened.delete(key);
  }
};
/** Who asks for a stream, and from where. */
export type Asker = { who: string; address: string };

/** so often something is said, so that a page knows that the line holds (live.ts of the class) */
const BEAT_MS = 10_000;
/** So many messages wait for a page at the most. */
const UNTAKEN = 60;
/**
 * A stream of what is told on some topics, for as long as `still` allows. @param begin what is told first; @param left when the
 * page has left; who has too many open already is refused
 */
export function stream(
  { who, address }: Asker,
  topics: readonly string[],
  still: () => boolean,
  begin: () => object | undefined,
  left?: () => void
): Response {
  const keys = [`who ${who}`, `address ${address}`];
  const n = keys.map((key) => opened.get(key) ?? 0);
  if (n[0] >= MOST.who || n[1] >= MOST.address || all >= MOST.all)
    return Response.json({ message: say('Too many pages are open here. Close some of them.') }, { status: 429 });
  count(keys, 1);
  let listener: ((message: string) => void) | undefined;
  let beat: ReturnType<typeof setInterval>;
  const leave = (): void => {
    clearInterval(beat);
    if (!listener) return;
    for (const topic of topics) room.off(topic, listener);
    listener = undefined;
    count(keys, -1);
    left?.();
  };
  const body = new ReadableStream({
    start(controller) {
      const encoder = new TextEncoder();
      const end = (): void => {
        leave();
        controller.close();
      };
      const send = (text: string): void => {
        // nobody takes it: a page that is gone without a word, or never was one
        if ((controller.desiredSize ?? 0) < -UNTAKEN) return end();
        try {
          controller.enqueue(encoder.encode(text));
        } catch {
          leave();
        }
      };
      // who may not see it any more is told nothing more
      listener = (message) => (still() ? send(`data: ${message}\n\n`) : end());
      for (const topic of topics) room.on(topic, listener);
      // a page that was asleep asks again by itself, soon
      send('retry: 2000\n\n');
      const first = begin();
      if (first) send(`data: ${JSON.stringify(first)}\n\n`);
      beat = setInterval(() => {
        if (still()) send('data: {}\n\n');
        else end();
      }, BEAT_MS);
    },
    cancel: leave
  });
  return new Response(body, {
    headers: { 'content-type': 'text/event-stream', 'cache-control': 'no-store', 'x-accel-buffering': 'no' }
  });
}
