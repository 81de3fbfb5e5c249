<!-- One line of a menu: a deed, or a link. -->
<script lang="ts">
  import DropdownItem from 'flowbite-svelte/DropdownItem.svelte';
  import type { Snippet } from 'svelte';
  let rest: { children: Snippet; disabled?: boolean } & (
    { onclick: () => unknown } | { href: string; target?: string; download?: string }
  ) = $props();
</script>

<DropdownItem
  {...rest}
  class="min-h-7 pointer-coarse:min-h-10 cursor-pointer rounded-md px-2.5 py-1 hover:bg-linen focus-visible:bg-linen disabled:cursor-default disabled:opacity-50 dark:hover:bg-linen dark:hover:text-ink"
/>
