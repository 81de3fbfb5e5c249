<!-- Every button and every link that looks like one: the component library's, in our looks. -->
<script lang="ts" module>
  const LOOKS = {
    /** the one action that matters on a screen */
    go: 'gap-1.5 px-3 py-1.5 bg-brass font-semibold whitespace-nowrap text-[#1e1706] hover:bg-[#c4933a]',
    plain: 'gap-1.5 px-3 py-1.5 border border-rule bg-card font-semibold whitespace-nowrap text-ink hover:bg-linen',
    /** on the dark bar at the top */
    ghost:
      'gap-1.5 px-2.5 py-1.5 border border-[#51665a] font-semibold whitespace-nowrap text-[#eef2e4] hover:bg-[#33463b]',
    /** among others in a bar; a pressed or chosen one lies on a card */
    quiet:
      'inline-block px-2 py-[3px] whitespace-nowrap text-soft hover:text-ink aria-pressed:bg-card aria-pressed:text-ink ' +
      'aria-pressed:shadow-[0_0_0_1px_var(--rule)] aria-selected:bg-card aria-selected:text-ink ' +
      'aria-selected:shadow-[0_0_0_1px_var(--rule)]',
    /** a drawn thing that can be pressed: all of its looks are its own */
    bare: 'inline-block text-left'
  };
  /** under a finger: 40 px (what is drawn has a size of its own) */
  const TOUCH = 'pointer-coarse:min-h-10 pointer-coarse:min-w-10';
  const SIZES = { md: '', sm: 'px-2 py-1', xs: 'px-2 py-0.5' };
</script>

<script lang="ts">
  import type { HTMLAnchorAttributes, HTMLButtonAttributes } from 'svelte/elements';
  import type { ButtonProps } from 'flowbite-svelte';
  import Button from 'flowbite-svelte/Button.svelte';
  type Link = Pick<HTMLAnchorAttributes, 'href' | 'target' | 'download' | 'data-sveltekit-reload'>;
  let {
    look = 'plain',
    size = 'md',
    class: own = '',
    tip,
    ...rest
  }: {
    /** a sentence on what it means, on hover and focus */ tip?: string;
    look?: keyof typeof LOOKS;
    size?: keyof typeof SIZES;
    class?: string;
  } & HTMLButtonAttributes &
    Link = $props();
  /** none of the library's colours and sizes: those here are all there are */
  const none = { color: 'none', size: 'none' };
  const explained = $derived(tip ? { 'data-tip': tip, 'aria-description': tip } : {});
  const all = $derived({ ...rest, ...explained, ...none } as object as ButtonProps);
</script>

<Button
  {...all}
  class="cursor-pointer rounded-md focus-within:ring-0 disabled:cursor-default {LOOKS[look]} {SIZES[size]} {look ===
  'bare'
    ? ''
    : TOUCH} {own}"
/>
