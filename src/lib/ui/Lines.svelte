<!-- Several lines of text. -->
<script lang="ts">
  import type { HTMLTextareaAttributes } from 'svelte/elements';
  import Textarea from 'flowbite-svelte/Textarea.svelte';
  let {
    value = $bindable(),
    class: own = '',
    ...rest
  }: { value: string; class?: string } & Omit<HTMLTextareaAttributes, 'value' | 'class'> = $props();
</script>

<Textarea
  {...rest as object}
  bind:value
  class="w-full rounded-md border-rule bg-card px-[9px] py-[5px] text-[length:inherit] text-ink focus:border-brass dark:border-rule dark:bg-card dark:text-ink {own}"
/>
