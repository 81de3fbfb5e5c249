<!-- What the class shows at an errand: for talking it over together. -->
<script lang="ts">
  import { goto } from '$app/navigation';
  import { toldIn } from '../../../../../core/errand/task.ts';
  import { say } from '../../../../../core/words.ts';
  import type { ClassShows } from '$lib/class/class.ts';
  import Beside from '$lib/class/Beside.svelte';
  import { markOf } from '$lib/class/marks.ts';
  import Me from '$lib/class/Me.svelte';
  import Missed from '$lib/class/Missed.svelte';
  import Tried from '$lib/class/Tried.svelte';
  import Button from '$lib/ui/Button.svelte';
  import Choice from '$lib/ui/Choice.svelte';
  import Path from '$lib/ui/Path.svelte';
  import ThemeButton from '$lib/ui/ThemeButton.svelte';
  import TopBar from '$lib/ui/TopBar.svelte';
  import MatShape from '$lib/workbench/yard/MatShape.svelte';
  let { data } = $props();
  const shows = $derived(data.shows);
  let hidden = $state(false);
  let which = $state(0);
  const slot = $derived(shows?.slots[Math.min(which, shows.slots.length - 1)]);
  /** only where each came to its rest last, or every try */
  let lastOnly = $state(false);
  const stops = $derived((shows?.stops ?? []).filter((s) => s.last || !lastOnly));
</script>

{#snippet came(list: ClassShows['found'])}{#each list as f (f.rule)}<li class="flex items-baseline gap-2">
      <b class="w-20 shrink-0 tabular-nums">{say('{n, plural, one {# pupil} other {# pupils}}', { n: f.pupils })}</b>
      <span class="min-w-0 flex-1"
        >{say('for example:')}
        {f.says}
        <a class="underline" href="/project/{f.projectId}">{hidden ? say('open') : f.nickname}</a></span
      >
    </li>{/each}{/snippet}
<svelte:head><title>{say('{name} · What the class shows', { name: data.name })}</title></svelte:head>
<div class="flex h-full flex-col">
  <TopBar>
    {#snippet name()}<Path
        steps={[
          { name: say('Classes'), href: '/class' },
          { name: data.name, href: `/class/${data.id}` },
          { name: say('What the class shows') }
        ]}
      />{/snippet}
    <span class="flex-1"></span>
    {#if shows && shows.others.length > 1}<Choice
        look="ghost"
        aria-label={say('At which errand')}
        value={shows.given.id}
        onchange={(e) => goto(`?given=${e.currentTarget.value}`)}
        >{#each shows.others as one (one.id)}<option value={one.id}>{toldIn(one.name)}</option>{/each}</Choice
      >{/if}
    <Button look="ghost" aria-pressed={hidden} onclick={() => (hidden = !hidden)}
      >{hidden ? say('Show names') : say('Hide names')}</Button
    >
    <Me />
    <ThemeButton />
  </TopBar>
  <main class="min-h-0 flex-1 overflow-auto px-[22px] py-[18px]">
    {#if !shows}<p class="max-w-[56ch] text-soft">
        {say('Nothing to show yet: give out an errand, and come back when it was tried.')}
        <a class="underline" href="/class/{data.id}">{say('To the class')}</a>
      </p>
    {:else}
      <h2 class="pb-3 font-display text-[22px]">{toldIn(shows.given.name)}</h2>
      <div class="grid grid-cols-2 gap-x-8 gap-y-7 max-[900px]:grid-cols-1">
        <section>
          <h3 class="pb-2 text-[17px]">{say('Goals that are missed')}</h3>
          <Missed goals={shows.goals} {hidden} />
        </section>
        <section>
          <h3 class="pb-2 text-[17px]">{say('What came up')}</h3>
          {#if !shows.found.length && !shows.remarks.length}<p class="text-soft">{say('No findings yet.')}</p>{/if}
          <ul class="flex flex-col gap-1.5" data-testid="found">
            {@render came(shows.found.slice(0, 6))}
          </ul>
          {#if shows.remarks.length}<h4 class="pt-3 pb-1.5 font-semibold">
              {say('What the look-over says of it now')}
            </h4>
            <ul class="flex flex-col gap-1.5" data-testid="remarks">{@render came(shows.remarks.slice(0, 4))}</ul>{/if}
        </section>
        <section>
          <div class="mb-2 flex items-baseline gap-3">
            <h3 class="text-[17px]">{say('Where it stopped')}</h3>
            <Button look="quiet" aria-pressed={lastOnly} onclick={() => (lastOnly = !lastOnly)}
              >{say('last tries only')}</Button
            >
          </div>
          <svg
            viewBox="-1 -1 {shows.mat.width * 100 + 2} {shows.mat.height * 100 + 2}"
            class="max-h-[300px] w-full rounded-md border border-rule"
            role="img"
            aria-label={say('{n} stopping places on the mat', { n: stops.length })}
            data-testid="stops"
          >
            <MatShape mat={shows.mat} />
            {#each stops as s, i (i)}<path
                d={markOf(s.met, s.last ? 1.6 : 1)}
                transform="translate({s.x * 100} {(shows.mat.height - s.y) * 100})"
                data-met={s.met}
                fill={s.met ? '#48702f' : 'none'}
                stroke={s.met ? '#fff' : '#a63c22'}
                stroke-width={s.met ? 0.3 : 0.7}
                opacity={s.last ? 0.95 : 0.5}><title>{hidden ? '' : s.nickname}</title></path
              >{/each}
          </svg>
          <p class="text-[12.5px] text-soft">
            {say('a dot: all goals met; a cross: not yet; large: the last try of each')}
          </p>
        </section>
        <section>
          <div class="mb-2 flex flex-wrap items-baseline gap-3">
            <h3 class="text-[17px]">{say('Numbers that were tried')}</h3>
            {#if shows.slots.length > 1}<Choice size="sm" aria-label={say('Which number')} bind:value={which}
                >{#each shows.slots as s, i (i)}<option value={i}>{s.says}</option>{/each}</Choice
              >{/if}
          </div>
          {#if slot}<Tried {slot} {hidden} />{:else}<p class="text-soft">
              {say('Everybody tried the same numbers.')}
            </p>{/if}
        </section>
        {#if shows.works.length > 1}<section class="col-span-full">
            <h3 class="pb-2 text-[17px]">{say('Two beside one another')}</h3>
            <Beside works={shows.works} {hidden} />
          </section>{/if}
      </div>
    {/if}
  </main>
</div>
