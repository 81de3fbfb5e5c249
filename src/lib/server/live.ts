/** What happens in the room, told at once to the pages that show it: server-sent events. In memory alone; one process. */
import { EventEmitter } from 'node:events';

const room = new EventEmitter().setMaxListeners(0);
export const isFollowed = (topic: string): boolean => room.listenerCount(topic) > 0;
/** @param topic such as `wall ID`, `person ID`, `class ID`, `project ID` */
export function tell(topic: string, what: object): void {
  if (isFollowed(topic)) room.emit(topic, JSON.stringify(what));
}

/** so often something is said, so that a page knows that the line holds (live.ts of the class) */
const BEAT_MS = 10_000;
/**
 * A stream of what is told on some topics, for as long as `still` allows. @param begin what is told first; @param left when the
 * page has left
 */
export function stream(
  topics: readonly string[],
  still: () => boolean,
  begin: () => object | undefined,
  left?: () => void
): Response {
  let listener: ((message: string) => void) | undefined;
  let beat: ReturnType<typeof setInterval>;
  const leave = (): void => {
    clearInterval(beat);
    if (!listener) return;
    for (const topic of topics) room.off(topic, listener);
    listener = undefined;
    left?.();
  };
  const body = new ReadableStream({
    start(controller) {
      const encoder = new TextEncoder();
      const send = (text: string): void => {
        try {
          controller.enqueue(encoder.encode(text));
        } catch {
          leave();
        }
      };
      // who may not see it any more is told nothing more
      const end = (): void => {
        leave();
        controller.close();
      };
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
