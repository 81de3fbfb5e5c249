<!-- What else can be done with the yard. Its dialogs are loaded when they are asked for. -->
<script lang="ts">
  import type { Component } from 'svelte';
  import { say } from '../../../../core/words.ts';
  import Dots from '@lucide/svelte/icons/ellipsis';
  import { useWorkbench } from '../workbench.svelte.ts';
  let { onpicture }: { onpicture: () => void } = $props();
  const w = useWorkbench();
  let open = $state(false);
  type Dialog = Component<{ open: boolean }, object, 'open'>;
  let Asked = $state.raw<Dialog>();
  let asking = $state(false);
  const others = $derived(w.session.project.others ?? []);
  async function ask(load: () => Promise<{ default: Dialog }>) {
    Asked = (await load()).default;
    asking = true;
  }
  function takeOut(name: string) {
    const { others: _, ...rest } = w.session.project;
    const left = others.filter((o) => o.name !== name);
    w.session.change(say('take {name} out of the yard', { name }), left.length ? { ...rest, others: left } : rest);
    w.runs.clear();
  }
</script>

<svelte:window onkeydown={(e) => e.key === 'Escape' && (open = false)} />
<div class="relative">
  <button
    class="chip min-h-6 !px-1.5"
    aria-label={say('More about the yard')}
    title={say('More about the yard')}
    aria-expanded={open}
    onclick={() => (open = !open)}><Dots size={15} /></button
  >
  {#if open}
    <div
      class="absolute top-full right-0 z-40 mt-1 flex w-56 flex-col rounded-xl border border-rule bg-card p-1 shadow-lg"
      onclickcapture={() => setTimeout(() => (open = false), 0)}
    >
      <a class="mb-item" href="/project/{w.session.id}/mat">{say('Edit the mat')}</a>
      <button class="mb-item" onclick={() => ask(() => import('./Another.svelte'))}
        >{say('Put another device in')}</button
      >
      {#each others as o (o.name)}<button class="mb-item" onclick={() => takeOut(o.name)}
          >{say('Take {name} out of the yard', { name: o.name })}</button
        >{/each}
      <button class="mb-item" onclick={() => (w.stage = w.stage ? undefined : 'yard')}
        >{w.stage ? say('Back to the workbench') : say('Fill the screen')}</button
      >
      <button class="mb-item" onclick={onpicture}>{say('Save a picture (PNG)')}</button>
      <button class="mb-item" onclick={() => ask(() => import('./Clip.svelte'))}>{say('Record a clip')}</button>
    </div>
  {/if}
</div>
{#if Asked && asking}<Asked bind:open={asking} />{/if}
