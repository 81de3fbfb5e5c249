<!-- One of several that are all seen, with its words. -->
<script lang="ts" generics="T">
  import type { Snippet } from 'svelte';
  import Radio from 'flowbite-svelte/Radio.svelte';
  let {
    group = $bindable(),
    value,
    name,
    class: own = '',
    children
  }: { group: T; value: T; name?: string; class?: string; children: Snippet } = $props();
</script>

<Radio
  bind:group
  {value}
  {name}
  class="me-0 h-[15px] w-[15px] pointer-coarse:h-6 pointer-coarse:w-6 shrink-0 accent-brass"
  classes={{
    label: `flex cursor-pointer items-center gap-2 pointer-coarse:min-h-10 text-[length:inherit] text-inherit dark:text-inherit ${own}`
  }}>{@render children()}</Radio
>
