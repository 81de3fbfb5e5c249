<script lang="ts">
  import Button from '../lib/ui/Button.svelte';
  import { say } from '../../core/words.ts';
  import { page } from '$app/state';
  import TopBar from '$lib/ui/TopBar.svelte';
  const title = $derived(
    page.route.id === null
      ? say('There is no such page')
      : page.status === 404
        ? say('Not on this shelf')
        : say('Something went wrong')
  );
</script>

<svelte:head><title>{title} · {say('Moss Bell')}</title></svelte:head>
<TopBar>{#snippet name()}<h1 class="text-[18px]">{say('Moss Bell')}</h1>{/snippet}</TopBar>
<main class="mx-auto max-w-xl p-10">
  {#if page.route.id === null}
    <h2 class="mb-2 text-2xl">{title}</h2>
    <p class="mb-5">
      {say('Moss Bell has nothing at {address}. Look for it on the shelf.', { address: page.url.pathname })}
    </p>
  {:else}
    <h2 class="mb-2 text-2xl">{title}</h2>
    <p class="mb-5">{page.error?.message}</p>
  {/if}
  <Button look="go" href="/">{say('To the shelf')}</Button>
</main>
