<!-- One of several. With `onchange` the value that is given stands, as it does on a plain element; else bind it. -->
<script lang="ts">
  import type { Snippet } from 'svelte';
  import type { HTMLSelectAttributes } from 'svelte/elements';
  import Select from 'flowbite-svelte/Select.svelte';
  const LOOKS = {
    box: 'border-rule bg-card text-inherit dark:border-rule dark:bg-card dark:text-inherit',
    /** on the dark bar at the top */
    ghost: 'border-[#51665a] bg-header text-[#eef2e4] dark:border-[#51665a] dark:bg-header dark:text-[#eef2e4]'
  };
  const SIZES = { md: 'px-[9px] py-[5px]', sm: 'px-1.5 py-0.5' };
  let {
    value = $bindable(),
    look = 'box',
    size = 'md',
    class: own = '',
    children,
    ...rest
  }: { value: unknown; look?: keyof typeof LOOKS; size?: keyof typeof SIZES; class?: string; children: Snippet } & Omit<
    HTMLSelectAttributes,
    'size' | 'class' | 'value'
  > = $props();
  /** none of the library's sizes: those here are all there are */
  const none = { size: 'none', placeholder: '' } as object;
</script>

<Select
  {...rest as object}
  {...none}
  bind:value={() => value, (chosen) => rest.onchange || (value = chosen)}
  class="inline-block w-auto min-w-0 {own}"
  classes={{
    select: `pointer-coarse:min-h-10 rounded-md border focus:border-brass ${LOOKS[look]} ${SIZES[size]}`
  }}>{@render children()}</Select
>
