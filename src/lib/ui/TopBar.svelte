<script lang="ts">
  import { page } from '$app/state';
  import { say } from '../../../core/words.ts';
  import type { Snippet } from 'svelte';
  let { name, home = true, children }: { name: Snippet; home?: boolean; children?: Snippet } = $props();
</script>

<header
  class="relative flex h-[52px] pointer-coarse:h-16 shrink-0 items-center gap-3 bg-header max-[1200px]:gap-2 px-3.5 text-[#eef2e4]"
>
  <svelte:element
    this={home ? 'a' : 'span'}
    href={home ? '/' : undefined}
    aria-label={home ? say('To the shelf') : undefined}
    title={home ? say('To the shelf') : undefined}
    class="grid h-10 shrink-0 place-items-center pointer-coarse:w-10"
  >
    <svg
      width="26"
      height="26"
      viewBox="0 0 24 24"
      fill="none"
      stroke="#e0b65a"
      stroke-width="2"
      stroke-linecap="round"
      aria-hidden="true"
      ><path
        d="M10.3 21a2 2 0 0 0 3.4 0M3.3 15.3A1 1 0 0 0 4 17h16a1 1 0 0 0 .7-1.7C19.4 14 18 12.5 18 8A6 6 0 0 0 6 8c0 4.5-1.4 6-2.7 7.3"
      /></svg
    >
  </svelte:element>
  {@render name()}
  {#if page.data.isDemo}<span
      data-testid="is-demo"
      title={say(
        'Everybody can read the passphrase of this teacher, and what is made here may go. How a school starts stands in the handbook.'
      )}
      class="shrink-0 rounded-full border border-[#e0b65a] px-2 py-px text-[12px] text-[#e0b65a] max-[900px]:absolute max-[900px]:bottom-1 max-[900px]:left-3 max-[900px]:border-0 max-[900px]:p-0 max-[900px]:text-[11px] max-[900px]:leading-none"
      >{say('demo')}</span
    >{/if}
  {@render children?.()}
</header>
