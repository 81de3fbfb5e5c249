<script lang="ts">
  import { say } from '../../../core/words.ts';
  import { articles, html } from '$lib/handbook/articles.ts';
</script>

<svelte:head><title>{say('Handbook · Moss Bell')}</title></svelte:head>
<h1 class="font-display text-[26px]">{say('Handbook')}</h1>
<p class="mb-4 max-w-prose text-soft">
  {say('Every block has a page on the left. These short articles say how things hang together.')}
</p>
<div class="grid max-w-5xl grid-cols-2 gap-x-8 gap-y-5 max-[1050px]:grid-cols-1">
  {#each articles() as article (article.slug)}
    <section>
      <h2 class="text-[17px]">
        <a class="inline-flex items-center underline pointer-coarse:min-h-10" href="/handbook/{article.slug}"
          >{article.title}</a
        >
      </h2>
      <div class="line-clamp-3 text-[14px] text-soft">{@html html(article).split('</p>')[0]}</div>
    </section>
  {/each}
</div>
