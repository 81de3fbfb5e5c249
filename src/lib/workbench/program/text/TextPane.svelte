<!-- A text project: its Python is the program. -->
<script lang="ts">
  import Remark from '../../../ui/Remark.svelte';
  import Button from '../../../ui/Button.svelte';
  import { eventsOf } from '../../../../../core/trace/apart.ts';
  import { retell, say } from '../../../../../core/words.ts';
  import { EditorState } from '@codemirror/state';
  import { EditorView } from '@codemirror/view';
  import { onMount } from 'svelte';
  import { placed } from '../../../../../core/language/edit.ts';
  import { fitted } from '../../../../../core/language/python/fit.ts';
  import { readPython, type ReadProblem } from '../../../../../core/language/python/read.ts';
  import { wordOf } from '../../../../../core/language/python/words.ts';
  import { show } from '../../../../../core/language/values.ts';
  import { useWorkbench } from '../../workbench.svelte.ts';
  import { extensions, setRunning } from './setup.ts';

  const w = useWorkbench();
  const { runs, session } = w;
  let host: HTMLDivElement;
  let view: EditorView | undefined;
  let problems = $state.raw<ReadProblem[]>();
  let due: ReturnType<typeof setTimeout> | undefined;
  function settle() {
    clearTimeout(due);
    const text = view?.state.doc.toString();
    if (text === undefined || session.project.text === undefined || text === session.project.text) return;
    session.change(say('write text'), { ...session.project, text });
  }
  function toggle(line: number) {
    runs.toggleStop(`line ${line + 1}`);
  }
  const lines = (): ReadonlySet<number> =>
    new Set(
      runs.stops.flatMap((s) => (s.on === 'block' && s.block.startsWith('line ') ? [Number(s.block.slice(5)) - 1] : []))
    );
  $effect(() => {
    void runs.stops;
    view?.dispatch({});
  });
  onMount(() => {
    view = new EditorView({
      parent: host,
      state: EditorState.create({
        doc: session.project.text ?? '',
        extensions: [
          extensions(lines, toggle),
          EditorView.updateListener.of((u) => {
            if (u.selectionSet) w.selected = `line ${u.state.doc.lineAt(u.state.selection.main.head).number}`;
          }),
          EditorView.updateListener.of((u) => {
            if (!u.docChanged) return;
            problems = undefined;
            w.notice = '';
            clearTimeout(due);
            due = setTimeout(settle, 400);
          })
        ]
      })
    });
    w.beforeRun = settle;
    return () => {
      w.beforeRun = undefined;
      settle();
      view?.destroy();
    };
  });
  // undo on another page, or another tab
  $effect(() => {
    const text = session.project.text ?? '';
    if (view && !view.hasFocus && view.state.doc.toString() !== text)
      view.dispatch({ changes: { from: 0, to: view.state.doc.length, insert: text } });
  });
  $effect(() => {
    const lines = runs.lit.flatMap((id) => (id.startsWith('line ') ? [Number(id.slice(5))] : []));
    view?.dispatch({ effects: setRunning.of(lines.slice(-1)) });
  });
  const values = $derived(Object.entries(runs.values).sort(([a], [b]) => (a < b ? -1 : 1)));
  const error = $derived(runs.run && runs.run.version >= 0 ? eventsOf(runs.run.trace, 'error')[0] : undefined);
  const place = $derived(error?.block ? `${say('Line {x}', { x: error.block.slice(5) })}: ` : '');
  let lost = $state.raw<ReadProblem[]>([]);
  function toBlocks(allTheSame = false) {
    settle();
    const read = readPython(session.project.text ?? '', session.project.kit);
    const fit = fitted(session.project.text ?? '', session.project.kit);
    // what the text says of the parts comes along: the kit sheet is brought in line
    lost = read.ok ? [...read.lost, ...fit.lost] : [];
    if (!read.ok || (lost.length && !allTheSame)) {
      problems = read.ok ? lost : read.problems;
      return;
    }
    const { text: _, ...rest } = session.project;
    session.change(say('to blocks'), { ...rest, program: placed(read.program), kit: fit.kit });
  }
  function goTo(line: number) {
    if (!view) return;
    const at = view.state.doc.line(Math.min(view.state.doc.lines, line + 1));
    view.dispatch({ selection: { anchor: at.from }, scrollIntoView: true });
    view.focus();
  }
  /** A card of the tray: its line of Python where the cursor stands. */
  export function insert(kind: string) {
    const word = wordOf(kind);
    if (!view || !word) return;
    const { from, to } = view.state.selection.main;
    const indent = /^ */.exec(view.state.doc.lineAt(from).text)![0];
    const text = word.replaceAll('\n', `\n${indent}`);
    view.dispatch({ changes: { from, to, insert: text }, selection: { anchor: from + text.length } });
    view.focus();
  }
</script>

<div class="flex h-full min-h-0 flex-col">
  <div bind:this={host} class="min-h-0 flex-1 overflow-hidden" data-testid="text"></div>
  {#if error?.type === 'error'}<Remark look="bar" tone="ink">{place}{retell(error.message)}</Remark>
  {:else if runs.textTrouble}<Remark look="bar" tone="ink">{retell(runs.textTrouble)}</Remark>{/if}
  {#if runs.state === 'paused' && values.length}
    <div
      class="flex flex-wrap gap-x-4 gap-y-1 border-t border-rule bg-linen px-3 py-1.5 font-mono text-[13px]"
      data-testid="values"
    >
      {#each values as [name, value] (name)}<span
          ><b>{name}</b> = {typeof value === 'string' ? JSON.stringify(value) : show(value)}</span
        >{/each}
    </div>
  {/if}
  {#if problems}
    <div
      class="max-h-44 overflow-auto border-t border-rule bg-card p-3"
      role="region"
      aria-label={say('What blocks cannot say')}
    >
      <p class="mb-1 font-semibold">{say('Blocks cannot say all of this text yet. It stays as it is.')}</p>
      {#if lost.length}<Button size="sm" onclick={() => toBlocks(true)}>{say('To blocks without these')}</Button>{/if}
      {#each problems as p (p.line + p.message)}<Button
          look="bare"
          class="block text-left underline"
          onclick={() => goTo(p.line)}>{say('Line {x}: {message}', { x: p.line + 1, message: p.message })}</Button
        >{/each}
    </div>
  {/if}
  <div class="flex items-center gap-2 border-t border-rule px-3 py-1.5">
    <Button size="sm" onclick={() => toBlocks()}>{say('To blocks')}</Button>
    <span class="text-[13px] text-soft">{say('Click beside a line number to stop there. Step goes line by line.')}</span
    >
  </div>
</div>
