<!-- Several lines of text. With `onchange` or `oninput` the value that is given stands, as in Field; else bind it. -->
<script lang="ts">
  import type { HTMLTextareaAttributes } from 'svelte/elements';
  import Textarea from 'flowbite-svelte/Textarea.svelte';
  const LOOKS = {
    box: 'border border-rule bg-card px-[9px] py-[5px] focus:border-brass dark:border-rule dark:bg-card',
    /** as high as what is written in it */
    bare: 'resize-none field-sizing-content border-0 bg-transparent focus:border-rule dark:bg-transparent'
  };
  let {
    value = $bindable(),
    look = 'box',
    class: own = '',
    around = '',
    ...rest
  }: {
    value: string;
    look?: keyof typeof LOOKS;
    class?: string;
    /** of the box that it stands in */ around?: string;
  } & Omit<HTMLTextareaAttributes, 'value' | 'class'> = $props();
  let typed = $derived(value);
</script>

<Textarea
  {...rest as object}
  bind:value={
    () => typed,
    (v) => {
      typed = v;
      if (!rest.onchange && !rest.oninput) value = typed;
    }
  }
  classes={{ div: around }}
  class="w-full rounded-md pointer-coarse:min-h-10 text-[length:inherit] text-ink dark:text-ink {LOOKS[look]} {own}"
/>
