<!-- A box to tick; its words stand beside it, in a label. -->
<script lang="ts">
  import type { HTMLInputAttributes } from 'svelte/elements';
  import Checkbox from 'flowbite-svelte/Checkbox.svelte';
  let {
    checked = $bindable(false),
    class: own = '',
    ...rest
  }: { checked?: boolean; class?: string } & Omit<
    HTMLInputAttributes,
    'class' | 'checked' | 'type' | 'value'
  > = $props();
</script>

<Checkbox
  {...rest as object}
  bind:checked
  class="me-0 h-[15px] w-[15px] pointer-coarse:h-6 pointer-coarse:w-6 shrink-0 cursor-pointer accent-brass {own}"
/>
