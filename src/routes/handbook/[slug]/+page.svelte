<script lang="ts">
  import { say } from '../../../../core/words.ts';
  import { articles, html } from '$lib/handbook/articles.ts';
  let { data } = $props();
  const article = $derived(articles().find((a) => a.slug === data.slug)!);
</script>

<svelte:head><title>{say('{title} · Handbook', { title: article.title })}</title></svelte:head>
<article class="mb-article max-w-prose">
  <h1 class="font-display text-[26px]">{article.title}</h1>
  {@html html(article)}
</article>

<style>
  .mb-article :global(:is(p, li)) {
    margin: 0.7em 0;
    line-height: 1.55;
    font-size: 16px;
  }
  .mb-article :global(:is(ul, ol)) {
    padding-left: 1.5em;
  }
  .mb-article :global(ul) {
    list-style: disc;
  }
  .mb-article :global(ol) {
    list-style: decimal;
  }
  .mb-article :global(h2) {
    margin-top: 1.2em;
    font-size: 19px;
  }
</style>
