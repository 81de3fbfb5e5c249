<script lang="ts">
  import Field from '../../lib/ui/Field.svelte';
  import { say } from '../../../core/words.ts';
  import { page } from '$app/state';
  import { found } from '$lib/handbook/search.ts';
  import TopBar from '$lib/ui/TopBar.svelte';
  import ThemeButton from '$lib/ui/ThemeButton.svelte';
  import LanguageChoice from '$lib/ui/LanguageChoice.svelte';
  let { children } = $props();
  let text = $state('');
  const groups = $derived.by(() => {
    const all = new Map<string, ReturnType<typeof found>>();
    for (const p of found(text)) all.set(p.group, [...(all.get(p.group) ?? []), p]);
    return [...all];
  });
</script>

<div class="flex h-full flex-col">
  <TopBar>
    {#snippet name()}<span class="font-display text-[17px] font-semibold">{say('Handbook')}</span>{/snippet}
    <span class="flex-1"></span>
    <LanguageChoice />
    <ThemeButton />
  </TopBar>
  <div class="grid min-h-0 flex-1 grid-cols-[minmax(200px,290px)_1fr] max-[760px]:grid-cols-[210px_1fr]">
    <nav
      class="flex min-h-0 flex-col gap-2 overflow-auto border-r border-rule bg-linen p-3"
      aria-label={say('Pages of the handbook')}
    >
      <Field
        type="search"
        placeholder={say('Find in the handbook')}
        aria-label={say('Find in the handbook')}
        bind:value={text}
      />
      {#each groups as [group, pages] (group)}
        <section>
          <h2 class="mt-1 mb-0.5 text-[13px] font-semibold text-soft">{group}</h2>
          {#each pages as p (p.href)}<a
              href={p.href}
              title={p.title}
              class="flex min-h-7 items-center rounded-md px-2 py-0.5 leading-tight pointer-coarse:min-h-10 hover:bg-card {page
                .url.pathname === p.href
                ? 'bg-card font-semibold'
                : ''}"
              aria-current={page.url.pathname === p.href ? 'page' : undefined}>{p.title}</a
            >{/each}
        </section>
      {:else}<p class="text-soft">{say('No page says that. Try one word of what it should do.')}</p>{/each}
    </nav>
    <main class="min-h-0 overflow-auto p-6">{@render children()}</main>
  </div>
</div>
