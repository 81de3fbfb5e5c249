<!-- The idea in plain words, line by line: indented, ticked off, tied to a stack or a routine. -->
<script lang="ts">
  import ArrowRight from '@lucide/svelte/icons/arrow-right';
  import Tick from '../../ui/Tick.svelte';
  import Lines from '../../ui/Lines.svelte';
  import Choice from '../../ui/Choice.svelte';
  import Button from '../../ui/Button.svelte';
  import { flushSync, untrack } from 'svelte';
  import Columns from '@lucide/svelte/icons/columns-2';
  import { walkSteps } from '../../../../core/language/program.ts';
  import { say } from '../../../../core/words.ts';
  import { sentence } from '../../../../core/language/catalogue.ts';
  import { notebookLines, notebookText, type NotebookLine } from '../../../../core/notebook.ts';
  import { useWorkbench } from '../workbench.svelte.ts';
  let { show }: { /** leads to a block */ show: (block: string) => void } = $props();
  const w = useWorkbench();
  /** as Markdown has it */
  const isHeading = (text: string): boolean => /^#+ /.test(text);
  const lines = $derived(notebookLines(w.session.project.notebook));
  const program = $derived(w.session.project.program);
  const ties = $derived([
    ...program.stacks
      .filter((s) => s.steps.length)
      .map((s) => ({ id: s.steps[0].id, name: sentence(s.steps[0], program) })),
    ...program.routines.map((r) => ({ id: r.id, name: say('routine {name}', { name: r.name }) }))
  ]);
  let list: HTMLElement;
  const beside = $derived(w.mode === 'beside');
  /** the stack or the routine that the chosen block stands in */
  const root = $derived.by(() => {
    const id = w.selected;
    if (!id) return undefined;
    const stack = program.stacks.find((s) => [...walkSteps(s.steps)].some((step) => step.id === id));
    return (
      stack?.steps[0].id ??
      program.routines.find((r) => r.id === id || [...walkSteps(r.steps)].some((s) => s.id === id))?.id
    );
  });
  $effect(() => {
    const at = lines.findIndex((l) => l.tie !== undefined && l.tie === w.line);
    if (at < 0) return;
    w.line = undefined;
    untrack(() => setTimeout(() => focus(at)));
  });
  function put(next: NotebookLine[], label = say('write in the notebook')) {
    w.session.change(label, { ...w.session.project, notebook: notebookText(next) });
  }
  const change = (i: number, part: Partial<NotebookLine>, label?: string) =>
    put(
      lines.map((l, k) => (k === i ? { ...l, ...part } : l)),
      label
    );
  /** A line is kept while it is written, not only when it is left: after a short rest, all of one visit as one change. */
  const REST_MS = 800;
  let resting: ReturnType<typeof setTimeout> | undefined;
  let visit: { line: number; before: number } | undefined;
  /** a line stays one line, whatever is pasted into it */
  const one = (text: string): string => text.replace(/\s*\n\s*/g, ' ');
  function soon(i: number, text: string) {
    clearTimeout(resting);
    resting = setTimeout(() => keep(i, text), REST_MS);
  }
  function keep(i: number, typed: string) {
    clearTimeout(resting);
    const text = one(typed);
    if (lines[i]?.text === text) return;
    const { session } = w;
    // what was kept of this line since it was entered is one step back, not many
    const going = visit?.line === i && session.past.length === visit.before + 1 && !session.future.length;
    const first = going ? session.past.at(-1)! : undefined;
    visit = { line: i, before: first ? visit!.before : session.past.length };
    change(i, { text });
    if (first) session.past = [...session.past.slice(0, -2), first];
  }
  function written(i: number, text: string) {
    keep(i, text);
    visit = undefined;
  }
  function focus(i: number) {
    // the line is there before the next key comes
    flushSync();
    list.querySelectorAll<HTMLTextAreaElement>('textarea')[i]?.focus();
  }
  function keys(event: KeyboardEvent, i: number) {
    if (['Enter', 'Tab', 'Backspace', 'ArrowUp', 'ArrowDown'].includes(event.key)) clearTimeout(resting);
    const input = event.currentTarget as HTMLTextAreaElement;
    const line = { ...lines[i], text: one(input.value) };
    if (event.key === 'Enter') {
      event.preventDefault();
      put([...lines.slice(0, i), line, { text: '', indent: line.indent, done: false }, ...lines.slice(i + 1)]);
      focus(i + 1);
    } else if (event.key === 'Tab' && (event.shiftKey ? line.indent > 0 : line.indent < 6) && input.value) {
      event.preventDefault();
      change(i, { text: input.value, indent: line.indent + (event.shiftKey ? -1 : 1) });
      focus(i);
    } else if (event.key === 'Backspace' && !input.value && lines.length > 1) {
      event.preventDefault();
      put(lines.filter((_, k) => k !== i));
      focus(Math.max(0, i - 1));
    } else if (event.key === 'ArrowUp') focus(i - 1);
    else if (event.key === 'ArrowDown') focus(i + 1);
  }
</script>

<div
  class="flex h-full min-h-0 flex-col gap-2 overflow-auto bg-paper p-4 {beside ? 'border-l border-rule' : ''}"
  data-testid="notebook"
>
  <div class="flex items-start gap-3">
    <p class="flex-1 text-soft {beside ? 'sr-only' : ''}">
      {say(
        'The idea in plain words: what happens at the start, what happens when ... Enter begins a line, Tab moves it in, "# " makes a heading.'
      )}
    </p>
    <Button
      look="quiet"
      class="whitespace-nowrap"
      aria-pressed={beside}
      onclick={() => (w.mode = beside ? 'notebook' : 'beside')}
      ><span class="inline-flex items-center gap-1.5"><Columns size={15} />{say('Beside the program')}</span></Button
    >
  </div>
  <ol bind:this={list} class="flex flex-col gap-1">
    {#each lines as line, i (i)}
      {@const tie = ties.find((t) => t.id === line.tie)}
      <li
        class="flex items-center gap-2 rounded-md {line.tie && (line.tie === w.pointed || line.tie === root)
          ? 'bg-linen'
          : ''} {beside ? 'flex-wrap' : ''}"
        style="padding-left: {line.indent * 22}px"
        onpointerenter={() => (w.pointed = line.tie)}
        onpointerleave={() => (w.pointed = undefined)}
      >
        {#if !isHeading(line.text)}<Tick
            class="pointer-coarse:h-10 pointer-coarse:w-10"
            checked={line.done}
            aria-label={say('Done: {x}', { x: line.text || say('this line') })}
            onchange={(e) => change(i, { done: e.currentTarget.checked }, say('tick a line'))}
          />{/if}
        <Lines
          look="bare"
          rows={1}
          around="min-w-0 flex-1 {beside ? 'basis-[calc(100%-34px)]' : ''}"
          class="block border-b border-transparent px-1 py-1 focus:border-rule {isHeading(line.text)
            ? 'mt-2 font-display text-[19px] font-semibold'
            : 'text-[15px]'} {line.done ? 'text-soft line-through' : ''}"
          value={line.text}
          aria-label={say('Line {x}', { x: i + 1 })}
          placeholder={lines.length === 1 ? say('When the robot sets off, it ...') : ''}
          maxlength={400}
          oninput={(e) => soon(i, e.currentTarget.value)}
          onchange={(e) => written(i, e.currentTarget.value)}
          onkeydown={(e) => keys(e, i)}
        />
        <Choice
          size="sm"
          class="max-w-[150px] text-[12.5px] {beside ? 'ml-8' : ''} {tie ? 'text-ink' : 'text-soft'}"
          aria-label={say('What line {x} belongs to', { x: i + 1 })}
          value={tie?.id ?? ''}
          onchange={(e) => change(i, { tie: e.currentTarget.value || undefined }, say('tie a line to a stack'))}
        >
          <option value="">{say('belongs to ...')}</option>
          {#each ties as t (t.id)}<option value={t.id}>{t.name}</option>{/each}
        </Choice>
        <Button
          look="quiet"
          class="px-1.5 {tie ? '' : 'invisible'}"
          aria-label={say('To the blocks of line {x}', { x: i + 1 })}
          title={say('To its blocks')}
          onclick={() => tie && show(tie.id)}><ArrowRight size={15} /></Button
        >
      </li>
    {/each}
  </ol>
  <Button
    class="self-start"
    onclick={() => {
      put([...lines, { text: '', indent: 0, done: false }]);
      focus(lines.length - 1);
    }}>{say('Another line')}</Button
  >
</div>
