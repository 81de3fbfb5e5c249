<script lang="ts">
  import Ellipsis from '@lucide/svelte/icons/ellipsis';
  import { printPython } from '../../../../core/language/python/print.ts';
  import { download, fileName } from '../../shelf/files.ts';
  import Maximize from '@lucide/svelte/icons/maximize';
  import Redo from '@lucide/svelte/icons/redo-2';
  import Undo from '@lucide/svelte/icons/undo-2';
  import ZoomIn from '@lucide/svelte/icons/zoom-in';
  import ZoomOut from '@lucide/svelte/icons/zoom-out';
  import Calculator from '@lucide/svelte/icons/ruler';
  import BlockEditor from './BlockEditor.svelte';
  import Compare from './Compare.svelte';
  import Find from './Find.svelte';
  import { definition } from '../../../../core/language/catalogue.ts';
  import Notebook from './Notebook.svelte';
  import Panel from './Panel.svelte';
  import type TextPane from './text/TextPane.svelte';
  import LookOver from './LookOver.svelte';
  import Names from './Names.svelte';
  import Reckoner from './Reckoner.svelte';
  import { useWorkbench } from '../workbench.svelte.ts';

  const w = useWorkbench();
  let editor = $state<BlockEditor>();
  let mode = $state<'blocks' | 'both' | 'flow' | 'notebook'>('blocks');
  let looking = $state(false);
  let reckoning = $state(false);
  export const dragIn = (kind: string, event: PointerEvent, slots?: Record<string, string>) =>
    editor?.dragIn(kind, event, slots);
  export const add = (kind: string, slots?: Record<string, string>) => {
    if (isText) text?.insert(kind);
    else editor?.add(kind, slots);
  };
  export const trayArea = (area: () => DOMRect) => editor?.trayArea(area);
  /** the blocks as a picture, for a worksheet or a slide */
  async function savePicture(kind: 'svg' | 'png') {
    const { programPicture, pngOf } = await import('./picture.ts');
    const { program, kit } = w.session.project;
    const picture = await programPicture(program, kit);
    const blob = kind === 'svg' ? new Blob([picture.svg], { type: 'image/svg+xml' }) : await pngOf(picture);
    download(`${fileName(w.session.project.name)}.${kind}`, blob);
  }
  let more = $state(false);
  const isText = $derived(w.session.project.text !== undefined);
  const modes = $derived<[typeof mode, string][]>(
    isText
      ? [
          ['blocks', 'Text'],
          ['notebook', 'Notebook']
        ]
      : [
          ['blocks', 'Blocks'],
          ['both', 'Blocks + text'],
          ['flow', 'Flow'],
          ['notebook', 'Notebook']
        ]
  );
  const shown = $derived(isText && mode !== 'notebook' ? 'blocks' : mode);
  let text = $state<TextPane>();
  function toText() {
    const { project } = w.session;
    w.session.change('to text', { ...project, text: printPython(project.program, project.kit).text });
  }
  const undoable = $derived(w.session.past.at(-1)?.label);
  const redoable = $derived(w.session.future.at(-1)?.label);
</script>

<section class="flex h-full min-h-0 flex-col border-r border-rule" aria-label="Program">
  <div class="bar">
    <h2 class="mr-1 font-sans text-[14px] font-bold">Program</h2>
    <div role="group" aria-label="How to show the program" class="flex gap-1">
      {#each modes as [key, title] (key)}
        <button class="chip" aria-pressed={shown === key} onclick={() => (mode = key)}>{title}</button>
      {/each}
    </div>
    <span class="flex-1"></span>
    <button
      class="chip !px-1.5"
      aria-label={undoable ? `Undo: ${undoable}` : 'Undo'}
      title={undoable ? `Undo: ${undoable} (Ctrl Z)` : 'Nothing to undo'}
      disabled={!undoable}
      onclick={() => w.session.undo()}><Undo size={16} class={undoable ? '' : 'opacity-40'} /></button
    >
    <button
      class="chip !px-1.5"
      aria-label={redoable ? `Redo: ${redoable}` : 'Redo'}
      title={redoable ? `Redo: ${redoable} (Ctrl Y)` : 'Nothing to redo'}
      disabled={!redoable}
      onclick={() => w.session.redo()}><Redo size={16} class={redoable ? '' : 'opacity-40'} /></button
    >
    <button
      class="chip !px-1.5"
      aria-label="Reckoner"
      title="Reckoner: wheels and turns"
      aria-pressed={reckoning}
      onclick={() => (reckoning = !reckoning)}><Calculator size={16} /></button
    >
    <div class="relative">
      <button
        class="chip !px-1.5"
        aria-label="More"
        title="Find, names, tidy, picture, worksheet"
        aria-expanded={more}
        onclick={() => (more = !more)}><Ellipsis size={16} /></button
      >
      {#if more}
        <!-- svelte-ignore a11y_no_static_element_interactions -->
        <div
          class="absolute top-full right-0 z-40 mt-1 flex w-56 flex-col rounded-xl border border-rule bg-card p-1 shadow-lg"
          onclickcapture={() => setTimeout(() => (more = false), 0)}
          onkeydown={(e) => e.key === 'Escape' && (more = false)}
        >
          <button class="mb-item" onclick={() => (w.panel = { kind: 'find', id: '' })}>Find in the program</button>
          <button class="mb-item" onclick={() => (w.panel = { kind: 'names', id: '' })}>Names of the program</button>
          <button class="mb-item" onclick={() => editor?.tidy()}>Tidy the program</button>
          <button class="mb-item" onclick={() => (w.panel = { kind: 'compare', id: '' })}
            >Compare, still the same?</button
          >
          <button class="mb-item" onclick={() => savePicture('svg')}>Picture as SVG</button>
          <button class="mb-item" onclick={() => savePicture('png')}>Picture as PNG</button>
          <button class="mb-item" onclick={toText}>Make it a text project</button>
          <a class="mb-item" href="/project/{w.session.id}/worksheet">Worksheet to print</a>
        </div>
      {/if}
    </div>
    {#if w.toCheck.length}
      <button
        class="chip !border !border-solid !border-[var(--clayrule)] !bg-[var(--claywash)] !text-clay"
        aria-expanded={looking}
        onclick={() => (looking = !looking)}>{w.toCheck.length} to check</button
      >
    {:else}
      <button class="chip !text-moss" aria-expanded={looking} onclick={() => (looking = !looking)}>Look-over</button>
    {/if}
  </div>
  {#if w.notice}<div class="remark !rounded-none border-x-0 border-t-0 text-clay" role="alert">
      {w.notice} <button class="chip underline" onclick={() => (w.notice = '')}>Close</button>
    </div>{/if}
  <div class="relative grid min-h-0 flex-1" style="grid-template-columns: {shown === 'both' ? '1fr 1fr' : '1fr'}">
    <div class="relative min-h-0 min-w-0 {shown === 'notebook' || shown === 'flow' ? 'hidden' : ''}">
      {#if isText}
        {#await import('./text/TextPane.svelte')}<p class="p-4 text-soft">
            Opening the text ...
          </p>{:then { default: Text }}<Text bind:this={text} />{/await}
      {:else}
        <BlockEditor bind:this={editor} />
        {#if w.session.project.program.stacks.length === 0 && w.session.project.program.routines.length === 0}
          <div
            class="pointer-events-none absolute inset-x-6 top-8 max-w-sm rounded-xl border border-dashed border-rule bg-paper/90 p-4 text-soft"
          >
            Drag <b class="text-ink">At the start</b> from the tray on the right to here, then hang a block from
            <b class="text-ink">Move</b>
            below it. Press <b class="text-ink">Rehearse</b> after nearly every change.
          </div>
        {/if}
        <div class="absolute right-5 bottom-5 flex gap-1 rounded-lg border border-rule bg-card p-0.5">
          <button class="chip !px-1.5" aria-label="Smaller" title="Smaller" onclick={() => editor?.zoom(-1)}
            ><ZoomOut size={16} /></button
          >
          <button class="chip !px-1.5" aria-label="Larger" title="Larger" onclick={() => editor?.zoom(1)}
            ><ZoomIn size={16} /></button
          >
          <button
            class="chip !px-1.5"
            aria-label="Fit the program"
            title="Fit the program"
            onclick={() => editor?.zoom(0)}><Maximize size={16} /></button
          >
        </div>
      {/if}
    </div>
    {#if shown === 'both'}
      <div class="min-h-0 min-w-0 border-l border-rule">
        {#await import('./PythonPane.svelte')}<p class="p-4 text-soft">
            Printing the text ...
          </p>{:then { default: PythonPane }}<PythonPane />{/await}
      </div>
    {:else if shown === 'flow'}
      {#await import('./flow/FlowPane.svelte')}<p class="p-4 text-soft">
          Drawing the flow ...
        </p>{:then { default: FlowPane }}<FlowPane
          show={(id) => {
            mode = 'blocks';
            requestAnimationFrame(() => editor?.focusOn(id));
          }}
        />{/await}
    {:else if shown === 'notebook'}
      <Notebook />
    {/if}
    {#if w.panel}
      {@const close = () => (w.panel = undefined)}
      {#if w.panel.kind === 'compare'}<Compare id={w.panel.id} {close} />
      {:else if w.panel.kind === 'names'}<Names id={w.panel.id} {close} />
      {:else if w.panel.kind === 'find'}<Find {close} />
      {:else if w.panel.kind === 'help'}
        <Panel title={definition(w.panel.id).label[0]} {close}>
          {#await import('../../handbook/BlockPage.svelte') then { default: BlockPage }}<BlockPage
              kind={w.panel!.id}
              heading={false}
            />{/await}
        </Panel>
      {/if}
    {/if}
    {#if looking}<LookOver close={() => (looking = false)} />{/if}
    {#if reckoning}<Reckoner close={() => (reckoning = false)} />{/if}
  </div>
  <p class="sr-only" role="status" aria-live="polite" data-testid="spoken">{w.spoken}</p>
</section>
