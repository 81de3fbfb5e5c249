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
  given?: string;
};
/** @param cut told when the line is cut, and when it is there again; @returns how to leave */
export function listen<T = Told>(
  path: string,
  hear: (told: T) => void,
  cut: (cut: boolean) => void = () => {}
): () => void {
  let source: EventSource;
  let again: ReturnType<typeof setTimeout> | undefined;
  const open = (): void => {
    source = new EventSource(path);
    source.onopen = () => cut(false);
    source.onmessage = ({ data }) => hear(JSON.parse(data as string) as T);
    source.onerror = () => {
      cut(true);
      // an answer that was no stream ends the browser's own tries: the computer was starting, or one is signed out
      if (source.readyState === EventSource.CLOSED) again = setTimeout(open, 5000);
    };
  };
  open();
  return () => {
    clearTimeout(again);
    source.close();
  };
}
