<!-- Asks for a file, without a look of its own: `choose` opens the question. -->
<script lang="ts">
  import Fileupload from 'flowbite-svelte/Fileupload.svelte';
  let { label, accept, take }: { label: string; accept: string; take: (file: File) => unknown } = $props();
  let element = $state<HTMLInputElement>();
  export function choose() {
    element?.click();
  }
</script>

<Fileupload
  bind:elementRef={element}
  class="hidden"
  classes={{ wrapper: 'hidden' }}
  aria-label={label}
  {accept}
  onchange={(e) => {
    const [file] = e.currentTarget.files ?? [];
    if (file) void take(file);
    // the same file can be chosen again
    e.currentTarget.value = '';
  }}
/>
