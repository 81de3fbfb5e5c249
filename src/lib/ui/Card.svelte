<!-- A thing among others that can be opened: the component library's card, cut as ours are (round at the top). -->
<script lang="ts">
  import type { Snippet } from 'svelte';
  import Card from 'flowbite-svelte/Card.svelte';
  let { class: own = '', children }: { class?: string; children: Snippet } = $props();
</script>

<Card
  size="xl"
  class="relative block shadow-none max-w-none overflow-hidden rounded-t-xl rounded-b border-rule bg-card text-ink hover:border-brass dark:border-rule dark:bg-card {own}"
  >{@render children()}</Card
>
