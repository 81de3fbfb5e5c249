<!-- How far something has come: words and a bar. -->
<script lang="ts">
  import Progressbar from 'flowbite-svelte/Progressbar.svelte';
  let { says, share }: { /** what is going on */ says: string; /** 0 to 1 */ share: number } = $props();
  const percent = $derived(Math.round(share * 100));
</script>

<Progressbar
  progress={percent}
  size="h-2"
  class="overflow-hidden bg-linen dark:bg-linen"
  classes={{ label: 'bg-brass' }}
  role="progressbar"
  aria-label={says}
  aria-valuenow={percent}
  aria-valuemin={0}
  aria-valuemax={100}
/>
