<!-- A word or a count that belongs to a thing: the component library's badge in our tones. -->
<script lang="ts">
  import type { Snippet } from 'svelte';
  import Badge from 'flowbite-svelte/Badge.svelte';
  const TONES = {
    moss: 'bg-[var(--mosswash)] text-moss',
    clay: 'bg-[var(--claywash)] text-clay',
    calm: 'bg-linen text-soft'
  };
  let {
    tone = 'moss',
    class: own = '',
    children
  }: { tone?: keyof typeof TONES; class?: string; children: Snippet } = $props();
</script>

<Badge class="mt-1 max-w-full truncate rounded-md px-2 py-px text-[13px] leading-[1.4] font-normal {TONES[tone]} {own}"
  >{@render children()}</Badge
>
