<!-- A number that is slid. With `onchange` or `oninput` the value that is given stands; else bind it. -->
<script lang="ts">
  import type { HTMLInputAttributes } from 'svelte/elements';
  import Range from 'flowbite-svelte/Range.svelte';
  let {
    value = $bindable(),
    class: own = '',
    ...rest
  }: { value: number; class?: string } & Omit<HTMLInputAttributes, 'class' | 'value' | 'type' | 'size'> = $props();
  let slid = $derived(value);
</script>

<Range
  {...rest as object}
  bind:value={
    () => slid,
    (v) => {
      slid = Number(v);
      if (!rest.onchange && !rest.oninput) value = slid;
    }
  }
  appearance="auto"
  class="h-6 pointer-coarse:h-10 w-auto min-w-0 bg-transparent accent-brass dark:bg-transparent {own}"
/>
