/** What the server tells a page as it happens: server-sent events. The browser asks again by itself when the line was cut. */
export type Told = {
  /** of a project: its newest version, a run that was kept */
  version?: number;
  by?: string;
  run?: string;
  handIn?: boolean;
  comment?: boolean;
  /** the block that the teacher points at */
  point?: string | null;
  shown?: boolean | string;
  drives?: string;
  handUp?: boolean;
  given?: string | true;
  /** where will it stop? */
  round?: string;
};
/** The server says something at least every ten seconds. */
const SILENT_MS = 25_000;
const WATCH_MS = 5000;
/** @param cut told when the line is cut, and when it is there again; @returns how to leave */
export function listen<T = Told>(
  path: string,
  hear: (told: T) => void,
  cut: (cut: boolean) => void = () => {}
): () => void {
  let source: EventSource;
  let heardAt = Date.now();
  const open = (): void => {
    heardAt = Date.now();
    source = new EventSource(path);
    source.onopen = () => cut(false);
    source.onmessage = ({ data }) => {
      heardAt = Date.now();
      if (data !== '{}') hear(JSON.parse(data as string) as T);
    };
    source.onerror = () => cut(true);
  };
  // a line that is dead without a word (asleep for an hour, out of the room) is opened anew, and so is one that the browser gave
  // up since the answer was no stream: the computer was starting, or one is signed out
  const watch = setInterval(() => {
    const silent = Date.now() - heardAt > SILENT_MS;
    if (!silent && source.readyState !== EventSource.CLOSED) return;
    source.close();
    cut(true);
    open();
  }, WATCH_MS);
  open();
  return () => {
    clearInterval(watch);
    source.close();
  };
}
