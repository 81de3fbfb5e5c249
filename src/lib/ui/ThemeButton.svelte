<script lang="ts">
  import Button from './Button.svelte';
  import { say } from '../../../core/words.ts';
  import { browser } from '$app/environment';
  import Moon from '@lucide/svelte/icons/moon';
  import Sun from '@lucide/svelte/icons/sun';
  let dark = $state(browser && document.documentElement.classList.contains('dark'));
  function change() {
    dark = !dark;
    document.documentElement.classList.toggle('dark', dark);
    localStorage.setItem('mossbell.theme', dark ? 'dark' : 'light');
    window.dispatchEvent(new Event('mossbell:theme'));
  }
</script>

<Button
  look="ghost"
  class="px-2"
  onclick={change}
  aria-label={dark ? say('Light theme') : say('Dark theme')}
  title={dark ? say('Light theme') : say('Dark theme')}
>
  {#if dark}<Sun size={17} />{:else}<Moon size={17} />{/if}
</Button>
