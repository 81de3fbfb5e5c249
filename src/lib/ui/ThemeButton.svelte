<script lang="ts">
  import Button from './Button.svelte';
  import { say } from '../../../core/words.ts';
  import { theme } from './theme.svelte.ts';
  import Moon from '@lucide/svelte/icons/moon';
  import Sun from '@lucide/svelte/icons/sun';
  const title = $derived(theme.dark ? say('Light theme') : say('Dark theme'));
</script>

<Button look="ghost" class="px-2" onclick={() => theme.change()} aria-label={title} {title}>
  {#if theme.dark}<Sun size={17} />{:else}<Moon size={17} />{/if}
</Button>
