<!-- A sheet that lies over the right end of the trace: one of its tools. -->
<script lang="ts">
  import Button from '../../ui/Button.svelte';
  import X from '@lucide/svelte/icons/x';
  import { onMount, type Snippet } from 'svelte';
  import { say } from '../../../../core/words.ts';
  import { useWorkbench } from '../workbench.svelte.ts';
  let {
    title,
    wide = false,
    head,
    children
  }: { title: string; wide?: boolean; head?: Snippet; children: Snippet } = $props();
  const w = useWorkbench();
  let sheet: HTMLElement;
  /** above the trace, which stays in sight; where there is no room, over its foot */
  let bottom = $state(20);
  let most = $state(400);
  function place() {
    const top = sheet.closest('section')!.getBoundingClientRect().top;
    bottom = top > 260 ? window.innerHeight - top + 4 : 24;
    most = top > 260 ? top - 64 : window.innerHeight * 0.6;
  }
  onMount(place);
</script>

<svelte:window onresize={place} onkeydown={(e) => e.key === 'Escape' && (w.trace.tool = undefined)} />
<div
  bind:this={sheet}
  style="bottom: {bottom}px; max-height: {most}px"
  class="fixed right-2 z-30 flex {wide
    ? 'w-[640px]'
    : 'w-[460px]'} max-w-[calc(100%-1rem)] flex-col rounded-xl border border-rule bg-card shadow-lg"
  role="region"
  aria-label={title}
>
  <div class="flex items-center gap-2 border-b border-rule py-1 pr-1.5 pl-3">
    <h3 class="text-[14px]">{title}</h3>
    <span class="flex-1"></span>
    {@render head?.()}
    <Button look="quiet" class="px-1" aria-label={say('Close')} onclick={() => (w.trace.tool = undefined)}
      ><X size={15} /></Button
    >
  </div>
  <!-- svelte-ignore a11y_no_noninteractive_tabindex -->
  <div class="min-h-0 overflow-auto p-2" tabindex="0" role="group" aria-label={title}>{@render children()}</div>
</div>
