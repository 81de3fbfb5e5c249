/** What the menu and the keys do with blocks: each is one edit of the program, one gesture under Undo. */
import { clipOf, type Clip } from '../../../../core/language/clip.ts';
import {
  copySteps,
  addStack,
  listAround,
  mapSteps,
  noteOn,
  parkStack,
  pullOut,
  removeRoutine,
  removeStep,
  reshape,
  switchBelow,
  switchStep,
  type Reshape
} from '../../../../core/language/edit.ts';
import { allIds, allSteps, freshId, type Program, type Step } from '../../../../core/language/program.ts';
import type { Kit } from '../../../../core/kit/kit.ts';
import { loadPython, pythonNow } from '../../python/python.ts';
import type { Workbench } from '../workbench.svelte.ts';
import { say } from '../../../../core/words.ts';

/** Chosen steps as stretches that hang together, in the order of the program; what is inside another is left to it. */
export function stretches(program: Program, ids: ReadonlySet<string>): Step[][] {
  const out: Step[][] = [];
  const look = (list: readonly Step[]): void => {
    let run: Step[] = [];
    for (const step of list) {
      if (ids.has(step.id)) {
        run.push(step);
        continue;
      }
      if (run.length) out.push(run);
      run = [];
      for (const slot of Object.values(step.slots)) if (typeof slot === 'object' && 'kind' in slot) look([slot]);
      for (const body of Object.values(step.bodies ?? {})) look(body);
    }
    if (run.length) out.push(run);
  };
  for (const holder of [...program.stacks, ...program.routines]) look(holder.steps);
  look(program.loose.map((l) => l.value));
  return out;
}

/** What takes in blocks that were copied: fetched once all else is there. */
export const pasting = () => import('../../../../core/language/paste.ts');
/** The plain text of copied blocks: their lines of Python, or in the first moment of a page our JSON. */
export function clipText(clip: Clip, w: Workbench): string {
  const program: Program = {
    stacks: clip.stacks.map((steps, i) => ({ id: `clip${i}`, x: 0, y: 0, steps })),
    routines: clip.routines,
    variables: clip.variables,
    loose: []
  };
  return pythonNow()?.printPython(program, w.session.project.kit).text ?? JSON.stringify(clip);
}
const HTML = /data-mossbell="([^"]*)"/;
const escape = (s: string): string => s.replace(/&/g, '&amp;').replace(/"/g, '&quot;').replace(/</g, '&lt;');
const unescape = (s: string): string =>
  s
    .replace(/&lt;/g, '<')
    .replace(/&quot;/g, '"')
    .replace(/&amp;/g, '&');

/** fetched when it is first asked for */
const refactoring = () => import('../../../../core/language/refactor.ts');

export function actions(w: Workbench) {
  const now = (): Program => w.session.project.program;
  const edit = (label: string, change: (p: Program) => Program): void => w.session.program(label, change(now()));
  const tell = (text: string): void => w.tell(text);
  return {
    duplicate(ids: readonly string[], below: boolean): void {
      const program = now();
      const list = listAround(program, ids[0]);
      const runs =
        below && list ? [list.slice(list.findIndex((s) => s.id === ids[0]))] : stretches(program, new Set(ids));
      const taken = allIds(program);
      let next = program;
      for (const run of runs) {
        const { x, y } = placeOf(program, run[0].id);
        const id = freshId(taken, 's');
        taken.add(id);
        const steps = copySteps(run, taken);
        next = isLoose(program, run)
          ? { ...next, loose: [...next.loose, { x: x + 28, y: y + 36, value: steps[0] }] }
          : addStack(next, { id, x: x + 28, y: y + 36, steps });
      }
      w.session.program(say('duplicate'), next);
      tell(say('Duplicated {n, plural, one {# block} other {# blocks}}', { n: runs.flat().length }));
    },
    clip: (ids: readonly string[]): Clip => clipOf(now(), stretches(now(), new Set(ids))),
    /** onto the clipboard: for Moss Bell in another window or browser, and as plain text */
    async copy(ids: readonly string[]): Promise<void> {
      const clip = clipOf(now(), stretches(now(), new Set(ids)));
      const text = clipText(clip, w);
      const html = `<pre data-mossbell="${escape(JSON.stringify(clip))}">${escape(text)}</pre>`;
      try {
        await navigator.clipboard.write([
          new ClipboardItem({
            'text/plain': new Blob([text], { type: 'text/plain' }),
            'text/html': new Blob([html], { type: 'text/html' })
          })
        ]);
        tell(say('Copied'));
      } catch {
        w.notice = say('This browser does not let a page write to the clipboard here. Use Ctrl C instead.');
      }
    },
    fill(data: DataTransfer, ids: readonly string[]): void {
      const clip = clipOf(now(), stretches(now(), new Set(ids)));
      const text = clipText(clip, w);
      data.setData('text/plain', text);
      data.setData('text/html', `<pre data-mossbell="${escape(JSON.stringify(clip))}">${escape(text)}</pre>`);
      tell(say('Copied'));
    },
    /** from the clipboard: our blocks, or lines of Python that blocks can say */
    async paste(data: { html: string; text: string }, x: number, y: number, below?: string): Promise<string[]> {
      const held = HTML.exec(data.html)?.[1];
      const json = held ? unescape(held) : data.text.trim().startsWith('{') ? data.text : undefined;
      const { paste, readClip } = await pasting();
      let clip: Clip | string;
      if (json !== undefined) clip = readClip(json);
      else clip = await clipFromText(data.text, w.session.project.kit);
      if (typeof clip === 'string') {
        w.notice = clip;
        return [];
      }
      const { program, pasted } = paste(now(), clip, x, y, below);
      w.session.program(say('paste'), program);
      tell(say('Pasted {n, plural, one {a stack} other {# stacks}}', { n: pasted.length }));
      return pasted;
    },
    remove(ids: readonly string[]): void {
      edit(ids.length > 1 ? say('take {n} blocks out', { n: ids.length }) : say('take a block out'), (p) =>
        ids.reduce((q, id) => (q.routines.some((r) => r.id === id) ? removeRoutine(q, id) : removeStep(q, id)), p)
      );
      tell(say('Taken out'));
    },
    off(ids: readonly string[], off: boolean, below: boolean): void {
      edit(off ? say('switch off') : say('switch on'), (p) =>
        below ? switchBelow(p, ids[0], off) : ids.reduce((q, id) => switchStep(q, id, off), p)
      );
    },
    pull(id: string): void {
      const { x, y } = placeOf(now(), id);
      edit(say('pull a block out'), (p) => pullOut(p, id, x + 240, y + 20));
    },
    park(root: string, parked: boolean): void {
      const stack = now().stacks.find((s) => s.steps[0]?.id === root);
      if (stack)
        edit(parked ? say('park a stack') : say('take a stack out of the park'), (p) => parkStack(p, stack.id, parked));
    },
    reshape: (id: string, change: Reshape): void => edit(say('change a block'), (p) => reshape(p, id, change)),
    note: (id: string, note: string): void => edit(say('note on a block'), (p) => noteOn(p, id, note)),
    async loop(ids: readonly string[]): Promise<void> {
      const { putIntoLoop } = await refactoring();
      const made = putIntoLoop(now(), ids);
      if (!made.ok) return void (w.notice = made.why);
      w.session.program(say('put into a loop'), made.program);
      w.selected = made.made;
      tell(say('Put into a loop'));
    },
    async routine(ids: readonly string[], name: string): Promise<void> {
      const { makeRoutine } = await refactoring();
      const made = makeRoutine(now(), ids, name);
      if (!made.ok) return void (w.notice = made.why);
      w.session.program(say('make the routine {name}', { name }), made.program);
      tell(say('Made the routine {name}', { name }));
    }
  };
}
const isLoose = (program: Program, run: readonly Step[]): boolean => {
  const inSlot = new Set<string>(program.loose.map((l) => l.value.id));
  mapSteps(program, (s) => {
    for (const slot of Object.values(s.slots)) if (typeof slot === 'object' && 'kind' in slot) inSlot.add(slot.id);
    return s;
  });
  return run.length === 1 && inSlot.has(run[0].id);
};
/** Where the stack or routine that a step is in stands. */
function placeOf(program: Program, id: string): { x: number; y: number } {
  const has = (steps: readonly Step[]): boolean =>
    [...allSteps({ stacks: [{ id: '', x: 0, y: 0, steps: [...steps] }], routines: [], variables: [], loose: [] })].some(
      (s) => s.id === id
    );
  const holder =
    [...program.stacks, ...program.routines].find((h) => h.id === id || has(h.steps)) ??
    program.loose.find((l) => has([l.value]));
  return holder ? { x: holder.x, y: holder.y } : { x: 40, y: 40 };
}
/** Lines of Python as blocks: a whole text, or a few lines of one. */
export async function clipFromText(text: string, kit: Kit): Promise<Clip | string> {
  const whole = /^\s*from mossbell import/m.test(text);
  const wrapped = whole
    ? text
    : `from mossbell import *\n\ndef main():\n${text
        .split('\n')
        .map((l) => (l.trim() ? `    ${l}` : l))
        .join('\n')}\n\nrun(main)\n`;
  const read = (await loadPython()).readPython(wrapped, kit);
  if (!read.ok) {
    const [{ line, message }] = read.problems;
    return say('This text cannot become blocks. Line {x}: {message}', {
      x: whole ? line + 1 : Math.max(1, line - 2),
      message
    });
  }
  const { stacks, variables, routines, loose } = read.program;
  return {
    format: 'mossbell.blocks',
    version: 1,
    stacks: [...stacks.map((s) => (whole ? s.steps : s.steps.slice(1))), ...loose.map((l) => [l.value])],
    variables,
    routines
  };
}
