<!-- A line of text below what it is called. -->
<script lang="ts">
  import type { ComponentProps } from 'svelte';
  import Field from './Field.svelte';
  let {
    label,
    value = $bindable(),
    class: own = '',
    ...rest
  }: { label: string } & ComponentProps<typeof Field> = $props();
</script>

<label class="flex flex-col gap-1 font-semibold"
  >{label}<Field {...rest} bind:value class="w-full! font-normal {own}" /></label
>
