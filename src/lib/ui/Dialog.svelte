<!-- A dialog in our colours: Escape and a click beside it leave it. -->
<script lang="ts">
  import Modal from 'flowbite-svelte/Modal.svelte';
  import type { Snippet } from 'svelte';
  let {
    open = $bindable(),
    title,
    size = 'sm',
    children
  }: { open: boolean; title: string; size?: 'xs' | 'sm' | 'md' | 'lg'; children: Snippet } = $props();
</script>

<Modal
  bind:open
  {title}
  aria-label={title}
  {size}
  dismissable={false}
  class="bg-card whitespace-normal text-ink"
  classes={{ header: 'text-ink', body: 'text-ink' }}>{@render children()}</Modal
>
