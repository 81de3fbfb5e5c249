/** What a text may write for each block, with its help: for completion and for hovering. */
import { barrow } from '../../kit/kit.ts';
import { catalogue, newStep } from '../catalogue.ts';
import { emptyProgram, type Program, type Step } from '../program.ts';
import { printPython } from './print.ts';

export type Word = {
  kind: string;
  /** what it begins with, such as `wheels.drive` */
  label: string;
  title: string;
  help: string;
  /** the whole of it, as the block prints it */
  text: string;
};

let found: Word[] | undefined;
export function libraryWords(): readonly Word[] {
  if (found) return found;
  found = [];
  for (const def of catalogue.values()) {
    if (def.shape === 'starter' || def.grows) continue;
    const base: Program = {
      ...emptyProgram(),
      variables: [
        { id: 'v', name: 'count' },
        { id: 'l', name: 'things', list: true }
      ]
    };
    const it = newStep(def.kind, 'it', base);
    const step: Step = def.shape === 'value' ? { id: 'log', kind: 'log.line', slots: { value: it } } : it;
    const start = newStep('begin.start', 'start');
    const { text, blocks } = printPython({ ...base, stacks: [{ id: 's', x: 0, y: 0, steps: [start, step] }] }, barrow);
    const lines = text.split('\n').filter((_, i) => blocks[i] === step.id);
    let line = lines.map((l) => l.slice(4)).join('\n');
    if (def.shape === 'value') line = line.slice(4, -1);
    const label = /^(?:for .* in |while |if )?([a-z_][\w.]*)\(/.exec(line)?.[1] ?? line.split(/[\s(]/)[0];
    if (/^[a-z_][\w.]*$/.test(label) && label !== 'count' && label !== 'things')
      found.push({ kind: def.kind, label, title: `${def.label[0]}: ${def.label[1]}`, help: def.help, text: line });
  }
  return found;
}
/** The line that a block prints as it comes out of the tray. */
export const wordOf = (kind: string): string | undefined => libraryWords().find((w) => w.kind === kind)?.text;
