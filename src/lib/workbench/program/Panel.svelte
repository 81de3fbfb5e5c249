<!-- A page beside the program: a title, what belongs to it, and a way to close it. -->
<script lang="ts">
  import Button from '../../ui/Button.svelte';
  import { say } from '../../../../core/words.ts';
  import type { Snippet } from 'svelte';
  let { title, close, children }: { title: string; close: () => void; children: Snippet } = $props();
  let box: HTMLElement;
  $effect(() => box.querySelector<HTMLElement>('[data-first], input, button')?.focus());
</script>

<div
  bind:this={box}
  class="absolute top-2 right-2 z-30 flex max-h-[calc(100%-1rem)] w-[400px] max-w-[calc(100%-1rem)] flex-col rounded-xl border border-rule bg-card shadow-lg"
  role="dialog"
  aria-label={title}
  tabindex="-1"
  onkeydown={(e) => {
    if (e.key === 'Escape') close();
  }}
>
  <div class="flex items-center justify-between gap-2 border-b border-rule px-3 py-2">
    <h3 class="min-w-0 truncate text-[16px]">{title}</h3>
    <Button look="quiet" onclick={close}>{say('Close')}</Button>
  </div>
  <div class="flex min-h-0 flex-col gap-2.5 overflow-auto p-3">{@render children()}</div>
</div>
