<!-- A dialog in our colours: Escape and a click beside it leave it. -->
<script lang="ts">
  import type Library from 'flowbite-svelte/Modal.svelte';
  import type { Snippet } from 'svelte';
  let {
    open = $bindable(),
    title,
    size = 'sm',
    children
  }: { open: boolean; title: string; size?: 'xs' | 'sm' | 'md' | 'lg'; children: Snippet } = $props();
  /** fetched when the first dialog opens */
  let Modal = $state.raw<typeof Library>();
  $effect(() => {
    if (open && !Modal) void import('flowbite-svelte/Modal.svelte').then((m) => (Modal = m.default));
  });
  /** closed before it is taken away, so that the focus goes back to what opened it */
  const leaves: object = { onoutroend: (e: Event & { currentTarget: HTMLDialogElement }) => e.currentTarget.close() };
</script>

{#if Modal}<Modal
    bind:open
    {title}
    aria-label={title}
    {...leaves}
    {size}
    dismissable={false}
    class="bg-card whitespace-normal text-ink"
    classes={{ header: 'text-ink', body: 'text-ink' }}>{@render children()}</Modal
  >{/if}
