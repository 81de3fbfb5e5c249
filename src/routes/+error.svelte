<script lang="ts">
  import Button from '../lib/ui/Button.svelte';
  import { say } from '../../core/words.ts';
  import { page } from '$app/state';
  import TopBar from '$lib/ui/TopBar.svelte';
</script>

<TopBar>{#snippet name()}<h1 class="text-[18px]">{say('Moss Bell')}</h1>{/snippet}</TopBar>
<main class="mx-auto max-w-xl p-10">
  <h2 class="mb-2 text-2xl">{page.status === 404 ? say('Not on this shelf') : say('Something went wrong')}</h2>
  <p class="mb-5">{page.error?.message}</p>
  <Button look="go" href="/">{say('To the shelf')}</Button>
</main>
