<!-- A part of a page that can be folded away. -->
<script lang="ts">
  import AccordionItem from 'flowbite-svelte/AccordionItem.svelte';
  import type { Snippet } from 'svelte';
  let {
    title,
    open,
    onopen,
    children
  }: { title: string; open: boolean; onopen: (open: boolean) => void; children: Snippet } = $props();
</script>

<AccordionItem
  bind:open={() => open, (now) => now !== open && onopen(now)}
  headingTag="h3"
  transitionType="none"
  classes={{
    button:
      'w-auto! gap-2 flex-row-reverse justify-end border-0 p-1! text-[15px] font-semibold text-ink! bg-transparent! rounded-md hover:bg-card! focus:ring-0 pointer-coarse:min-h-10',
    content: 'border-0 p-0! pt-1.5! pb-3! text-inherit dark:border-0'
  }}
  >{#snippet header()}{title}{/snippet}{#if open}{@render children()}{/if}</AccordionItem
>
