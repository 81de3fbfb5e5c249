<!-- A file dragged over the page may be let go anywhere on it: the component library's drop zone, laid over the page. -->
<script lang="ts">
  import type { Snippet } from 'svelte';
  import Dropzone from 'flowbite-svelte/Dropzone.svelte';
  let { take, children }: { take: (file: File | undefined) => unknown; children: Snippet } = $props();
  let over = $state(false);
</script>

<svelte:window
  ondragenter={(e) => {
    if (e.dataTransfer?.types.includes('Files')) over = true;
  }}
  ondragleave={(e) => {
    if (!e.relatedTarget) over = false;
  }}
/>
{#if over}<div class="fixed inset-3 z-50 grid">
    <Dropzone
      class="h-full rounded-2xl border-brass bg-[#26352ccc] text-xl font-semibold text-white hover:bg-[#26352ccc] dark:border-brass dark:bg-[#26352ccc] dark:hover:bg-[#26352ccc]"
      tabindex={-1}
      onDrop={(e) => {
        over = false;
        void take(e.dataTransfer?.files[0]);
      }}>{@render children()}</Dropzone
    >
  </div>{/if}
