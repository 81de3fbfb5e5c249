/**
 * The notebook of a project as it is kept: plain text, a line each, that reads well anywhere: two spaces for each step in,
 * `[ ]` or `[x]`, the words, and `{id}` at the end for the stack or routine that the line belongs to.
 */
export type NotebookLine = { text: string; indent: number; done: boolean; tie?: string };

export function notebookLines(text: string): NotebookLine[] {
  const lines = text.split('\n').map((line): NotebookLine => {
    const found = /^( *)(?:\[([ x])\] ?)?(.*?)(?: \{([\w-]{1,64})\})?$/.exec(line.replace(/\t/g, '  '))!;
    return {
      text: found[3],
      indent: Math.min(6, Math.floor(found[1].length / 2)),
      done: found[2] === 'x',
      ...(found[4] ? { tie: found[4] } : {})
    };
  });
  return lines.length ? lines : [{ text: '', indent: 0, done: false }];
}
export const notebookText = (lines: readonly NotebookLine[]): string =>
  lines
    .map(
      ({ text, indent, done, tie }) => `${'  '.repeat(indent)}[${done ? 'x' : ' '}] ${text}${tie ? ` {${tie}}` : ''}`
    )
    .join('\n');
