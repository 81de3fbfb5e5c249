<script lang="ts">
  import { page } from '$app/state';
  import TopBar from '$lib/ui/TopBar.svelte';
</script>

<TopBar>{#snippet name()}<h1 class="text-[18px]">Moss Bell</h1>{/snippet}</TopBar>
<main class="mx-auto max-w-xl p-10">
  <h2 class="mb-2 text-2xl">{page.status === 404 ? 'Not on this shelf' : 'Something went wrong'}</h2>
  <p class="mb-5">{page.error?.message}</p>
  <a class="btn btn-go" href="/">To the shelf</a>
</main>
