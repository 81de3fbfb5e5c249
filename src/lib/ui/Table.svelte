<!-- Rows and columns: the component library's, as plain as a ruled page. -->
<script lang="ts">
  import type { Snippet } from 'svelte';
  import type { HTMLTableAttributes } from 'svelte/elements';
  import Table from 'flowbite-svelte/Table.svelte';
  let {
    class: own = '',
    children,
    ...rest
  }: { class?: string; children: Snippet } & Omit<HTMLTableAttributes, 'class' | 'border' | 'color'> = $props();
</script>

<Table
  {...rest as object}
  class="w-full text-left text-[length:inherit] text-inherit tabular-nums dark:text-inherit {own}"
  classes={{ div: 'overflow-x-visible' }}>{@render children()}</Table
>
