<script lang="ts">
  import Button from '../../ui/Button.svelte';
  import Menu from '../../ui/Menu.svelte';
  import MenuItem from '../../ui/MenuItem.svelte';
  import { language } from '../../language.svelte.ts';
  import { say, word } from '../../../../core/words.ts';
  import { loadPython } from '../../python/python.ts';
  import { download, fileName } from '../../shelf/files.ts';
  import Maximize from '@lucide/svelte/icons/maximize';
  import Redo from '@lucide/svelte/icons/redo-2';
  import Undo from '@lucide/svelte/icons/undo-2';
  import ZoomIn from '@lucide/svelte/icons/zoom-in';
  import ZoomOut from '@lucide/svelte/icons/zoom-out';
  import Calculator from '@lucide/svelte/icons/calculator';
  import BlockEditor from './BlockEditor.svelte';
  import { definition } from '../../../../core/language/catalogue.ts';
  import Panel from './Panel.svelte';
  import type TextPane from './text/TextPane.svelte';
  import { useWorkbench } from '../workbench.svelte.ts';

  const w = useWorkbench();
  let editor = $state<BlockEditor>();
  let looking = $state(false);
  let reckoning = $state(false);
  export const dragIn = (kind: string, event: PointerEvent, slots?: Record<string, string>) =>
    editor?.dragIn(kind, event, slots);
  export const add = (kind: string, slots?: Record<string, string>) => {
    if (isText) text?.insert(kind);
    else editor?.add(kind, slots);
  };
  export const dropNumber = (x: number, y: number, value: number): boolean => editor?.dropNumber(x, y, value) ?? false;
  export const fit = () => editor?.zoom(0);
  export const focusChosen = () => w.selected && editor?.focusOn(w.selected);
  let area: (() => DOMRect) | undefined;
  export const trayArea = (of: () => DOMRect) => (area = of);
  /** the blocks as a picture, for a worksheet or a slide */
  async function savePicture(kind: 'svg' | 'png') {
    const { programPicture, pngOf } = await import('./picture.ts');
    const { program, kit } = w.session.project;
    const picture = await programPicture(program, kit);
    const blob = kind === 'svg' ? new Blob([picture.svg], { type: 'image/svg+xml' }) : await pngOf(picture);
    download(`${fileName(w.session.project.name)}.${kind}`, blob);
  }
  /** the program fills the screen, as large as it goes */
  function stage() {
    w.stage = w.stage ? undefined : 'program';
    setTimeout(() => editor?.zoom(0), 150);
  }
  let versions = $state(false);
  function show(id: string) {
    if (w.mode !== 'beside') w.mode = 'blocks';
    requestAnimationFrame(() => editor?.focusOn(id));
  }
  const isText = $derived(w.session.project.text !== undefined);
  const modes = $derived<[typeof w.mode, string][]>(
    isText
      ? [
          ['blocks', say('Text')],
          ['notebook', say('Notebook')]
        ]
      : [
          ['blocks', say('Blocks')],
          ['both', say('Blocks + text')],
          ['flow', say('Flow')],
          ['notebook', say('Notebook')]
        ]
  );
  const shown = $derived(isText && w.mode !== 'notebook' && w.mode !== 'beside' ? 'blocks' : w.mode);
  const halved = $derived(shown === 'both' || shown === 'beside');
  let text = $state<TextPane>();
  async function toText() {
    const { printPython } = await loadPython();
    const { project } = w.session;
    w.session.change(say('to text'), { ...project, text: printPython(project.program, project.kit).text });
  }
  const undoable = $derived(w.session.past.at(-1)?.label);
  const redoable = $derived(w.session.future.at(-1)?.label);
</script>

<section class="flex h-full min-h-0 flex-col border-r border-rule" aria-label={say('Program')}>
  <div class="bar">
    <h2
      class="mr-1 font-sans text-[14px] font-bold {language.code === 'en'
        ? 'max-[1100px]:sr-only'
        : 'max-[1400px]:sr-only'}"
    >
      {say('Program')}
    </h2>
    <div role="group" aria-label={say('How to show the program')} class="flex gap-1">
      {#each modes as [key, title] (key)}
        <Button
          look="quiet"
          aria-pressed={shown === key || (shown === 'beside' && key === 'notebook')}
          onclick={() => (w.mode = key)}>{title}</Button
        >
      {/each}
    </div>
    <span class="flex-1"></span>
    <Button
      look="quiet"
      class="px-1.5"
      aria-label={undoable ? say('Undo: {undoable}', { undoable }) : say('Undo')}
      title={undoable ? say('Undo: {undoable} (Ctrl Z)', { undoable }) : say('Nothing to undo')}
      disabled={!undoable}
      onclick={() => w.session.undo()}><Undo size={16} class={undoable ? '' : 'opacity-40'} /></Button
    >
    <Button
      look="quiet"
      class="px-1.5"
      aria-label={redoable ? say('Redo: {redoable}', { redoable }) : say('Redo')}
      title={redoable ? say('Redo: {redoable} (Ctrl Y)', { redoable }) : say('Nothing to redo')}
      disabled={!redoable}
      onclick={() => w.session.redo()}><Redo size={16} class={redoable ? '' : 'opacity-40'} /></Button
    >
    <Button
      look="quiet"
      class="px-1.5"
      aria-label={say('Reckoner')}
      tip={say('The reckoner works out wheels, turns, times and resistors, and writes the number into a block.')}
      aria-pressed={reckoning}
      onclick={() => (reckoning = !reckoning)}><Calculator size={16} /></Button
    >
    <Menu label={say('More')} title={say('Find, names, tidy, picture, worksheet')}>
      <MenuItem onclick={() => (w.panel = { kind: 'find', id: '' })}>{say('Find in the program')}</MenuItem>
      <MenuItem onclick={() => (w.panel = { kind: 'names', id: '' })}>{say('Names of the program')}</MenuItem>
      <MenuItem onclick={() => editor?.tidy()}>{say('Tidy the program')}</MenuItem>
      <MenuItem onclick={() => (w.panel = { kind: 'compare', id: '' })}>{say('Compare, still the same?')}</MenuItem>
      <MenuItem onclick={() => savePicture('svg')}>{say('Picture as SVG')}</MenuItem>
      <MenuItem onclick={() => savePicture('png')}>{say('Picture as PNG')}</MenuItem>
      <MenuItem onclick={stage}>{w.stage ? say('Back to the workbench') : say('Fill the screen')}</MenuItem>
      <MenuItem onclick={() => (versions = true)}>{say('Versions of this project')}</MenuItem>
      <MenuItem onclick={toText}>{say('Make it a text project')}</MenuItem>
      <MenuItem href="/project/{w.session.id}/worksheet">{say('Worksheet to print')}</MenuItem>
    </Menu>
    {#if w.toCheck.length}
      <Button
        look="quiet"
        tip={say('Reads the program before it runs, and says what will not work or is probably not meant.')}
        class="border border-solid border-[var(--clayrule)] bg-[var(--claywash)] text-clay"
        aria-expanded={looking}
        onclick={() => (looking = !looking)}>{say('{n} to check', { n: w.toCheck.length })}</Button
      >
    {:else}
      <Button
        look="quiet"
        class="text-moss"
        tip={say('Reads the program before it runs, and says what will not work or is probably not meant.')}
        aria-expanded={looking}
        onclick={() => (looking = !looking)}>{say('Look-over')}</Button
      >
    {/if}
  </div>
  {#if w.notice}{#await import('../../ui/Remark.svelte') then { default: Remark }}<Remark look="bar">
        <span class="flex-1">{w.notice}</span>
        <Button look="quiet" class="underline" onclick={() => (w.notice = '')}>{say('Close')}</Button>
      </Remark>{/await}{/if}
  <div class="relative grid min-h-0 flex-1" style="grid-template-columns: {halved ? '1fr 1fr' : '1fr'}">
    <div class="relative min-h-0 min-w-0 {shown === 'notebook' || shown === 'flow' ? 'hidden' : ''}">
      {#if isText}
        {#await import('./text/TextPane.svelte')}<p class="p-4 text-soft">
            {say('Opening the text ...')}
          </p>{:then { default: Text }}<Text bind:this={text} />{/await}
      {:else}
        <!-- the blocks are drawn anew in another language; the program is the session's -->
        {#key language.code}<BlockEditor bind:this={editor} area={() => area?.() ?? new DOMRect()} />{/key}
        {#if w.session.project.program.stacks.length === 0 && w.session.project.program.routines.length === 0}
          <div
            class="pointer-events-none absolute inset-x-6 top-8 max-w-sm rounded-xl border border-dashed border-rule bg-paper/90 p-4 text-soft"
          >
            {say(
              'Drag "At the start" from the tray on the right to here, then hang a block from "Move" below it. Press "Rehearse" after nearly every change.'
            )}
          </div>
        {/if}
        <div class="absolute right-5 bottom-5 flex gap-1 rounded-lg border border-rule bg-card p-0.5">
          <Button
            look="quiet"
            class="px-1.5"
            aria-label={say('Smaller')}
            title={say('Smaller')}
            onclick={() => editor?.zoom(-1)}><ZoomOut size={16} /></Button
          >
          <Button
            look="quiet"
            class="px-1.5"
            aria-label={say('Larger')}
            title={say('Larger')}
            onclick={() => editor?.zoom(1)}><ZoomIn size={16} /></Button
          >
          <Button
            look="quiet"
            class="px-1.5"
            aria-label={say('Fit the program')}
            title={say('Fit the program')}
            onclick={() => editor?.zoom(0)}><Maximize size={16} /></Button
          >
        </div>
      {/if}
    </div>
    {#if shown === 'both'}
      <div class="min-h-0 min-w-0 border-l border-rule">
        {#await import('./PythonPane.svelte')}<p class="p-4 text-soft">
            {say('Printing the text ...')}
          </p>{:then { default: PythonPane }}<PythonPane />{/await}
      </div>
    {:else if shown === 'flow'}
      {#await import('./flow/FlowPane.svelte')}<p class="p-4 text-soft">
          {say('Drawing the flow ...')}
        </p>{:then { default: FlowPane }}<FlowPane {show} />{/await}
    {:else if shown === 'notebook' || shown === 'beside'}
      {#await import('./Notebook.svelte') then { default: Notebook }}<Notebook {show} />{/await}
    {/if}
    {#if w.panel}
      {@const close = () => (w.panel = undefined)}
      {#if w.panel.kind === 'compare'}{#await import('./Compare.svelte') then { default: Compare }}<Compare
            id={w.panel!.id}
            {close}
          />{/await}
      {:else if w.panel.kind === 'names'}{#await import('./Names.svelte') then { default: Names }}<Names
            id={w.panel!.id}
            {close}
          />{/await}
      {:else if w.panel.kind === 'find'}{#await import('./Find.svelte') then { default: Find }}<Find {close} />{/await}
      {:else if w.panel.kind === 'help'}
        <Panel title={word(definition(w.panel.id).label[0])} {close}>
          {#await import('../../handbook/BlockPage.svelte') then { default: BlockPage }}<BlockPage
              kind={w.panel!.id}
              heading={false}
            />{/await}
        </Panel>
      {/if}
    {/if}
    {#if looking}{#await import('./LookOver.svelte') then { default: LookOver }}<LookOver
          close={() => (looking = false)}
        />{/await}{/if}
    {#if reckoning}{#await import('./Reckoner.svelte') then { default: Reckoner }}<Reckoner
          close={() => (reckoning = false)}
        />{/await}{/if}
  </div>
  <p class="sr-only" role="status" aria-live="polite" data-testid="spoken">{w.spoken}</p>
</section>
{#if versions}{#await import('../../project/Versions.svelte') then { default: Versions }}<Versions
      bind:open={versions}
      session={w.session}
    />{/await}{/if}
