<!-- A program of a lesson: its blocks as they are, what it does when it is rehearsed here, and the way to the workbench. -->
<script lang="ts">
  import { goto } from '$app/navigation';
  import { say } from '../../../core/words.ts';
  import type { Project } from '../../../core/project.ts';
  import Button from '../ui/Button.svelte';
  import { drawnOf } from './drawn.ts';
  import Went from './Went.svelte';
  import { useRoom, type Ran } from './room.svelte.ts';
  let {
    project,
    printed = false,
    runs = !printed,
    takes = true
  }: {
    project: Project;
    printed?: boolean;
    /** it can be rehearsed */ runs?: boolean;
    /** a copy of it can be taken from here */ takes?: boolean;
  } = $props();
  const room = useRoom();
  let ran = $state.raw<Ran>();
  let busy = $state(false);
  async function rehearse() {
    busy = true;
    ran = await room.run(project);
    busy = false;
  }
  async function take() {
    const to = await room.take(project);
    if (to) await goto(to);
  }
</script>

<figure class="min-w-0" data-testid="program">
  <figcaption class="mb-1 font-semibold">{project.name}</figcaption>
  {#if project.text !== undefined}<pre
      class="overflow-x-auto rounded-md border border-rule bg-paper p-3 font-mono text-[13.5px]">{project.text}</pre>
  {:else}
    {#await drawnOf(project)}<p class="text-soft">{say('Drawing the blocks ...')}</p>{:then { svg, width }}<div
        class="mb-drawn overflow-x-auto rounded-md border border-rule bg-[#fbfaf5]"
        role="img"
        aria-label={say('The program {name}', { name: project.name })}
        style="--wide: {Math.round(width)}px"
      >
        {@html svg}
      </div>{/await}
    {#if runs}
      <div class="mt-2 flex flex-wrap gap-2">
        <Button look="go" disabled={busy} onclick={rehearse}
          >{busy ? say('Rehearsing ...') : ran ? say('Rehearse again') : say('Rehearse')}</Button
        >
        {#if takes}<Button onclick={take}>{say('Take it to my workbench')}</Button>{/if}
      </div>
    {/if}
    {#if ran}<div class="mt-2"><Went {project} {ran} /></div>{/if}
  {/if}
</figure>

<style>
  .mb-drawn :global(svg) {
    display: block;
    width: var(--wide);
    max-width: 100%;
    height: auto;
  }
</style>
