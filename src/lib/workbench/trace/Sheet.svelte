<!-- One of the tools of the trace: a column at its right, beside the lanes; where there is no room, over them. -->
<script lang="ts">
  import Button from '../../ui/Button.svelte';
  import X from '@lucide/svelte/icons/x';
  import type { Snippet } from 'svelte';
  import { say } from '../../../../core/words.ts';
  import { useWorkbench } from '../workbench.svelte.ts';
  let {
    title,
    wide = false,
    head,
    children
  }: { title: string; wide?: boolean; head?: Snippet; children: Snippet } = $props();
  const w = useWorkbench();
</script>

<svelte:window onkeydown={(e) => e.key === 'Escape' && (w.trace.tool = undefined)} />
<div
  class="flex min-h-0 shrink-0 flex-col border-l border-rule bg-card max-[760px]:absolute max-[760px]:inset-0 max-[760px]:z-20 max-[760px]:w-auto {wide
    ? 'w-[600px]'
    : 'w-[430px]'}"
  role="region"
  aria-label={title}
>
  <div class="flex items-center gap-2 border-b border-rule py-0.5 pr-1.5 pl-3">
    <h3 class="truncate text-[14px]">{title}</h3>
    <span class="flex-1"></span>
    {@render head?.()}
    <Button look="quiet" class="px-1" aria-label={say('Close')} onclick={() => (w.trace.tool = undefined)}
      ><X size={15} /></Button
    >
  </div>
  <!-- svelte-ignore a11y_no_noninteractive_tabindex -->
  <div class="min-h-0 overflow-auto p-2" tabindex="0" role="group" aria-label={title}>{@render children()}</div>
</div>
