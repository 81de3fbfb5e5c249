<!-- A dialog in our colours: it is left by its own buttons or Escape, not by a click beside it. -->
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
  {size}
  dismissable={false}
  class="bg-card whitespace-normal text-ink"
  classes={{ header: 'text-ink', body: 'text-ink' }}>{@render children()}</Modal
>
