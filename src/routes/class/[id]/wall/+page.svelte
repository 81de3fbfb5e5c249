<!-- The wall: a card for each pupil, live, for the projector or the teacher's tablet. -->
<script lang="ts">
  import Hand from '@lucide/svelte/icons/hand';
  import { onMount, untrack } from 'svelte';
  import { flip } from 'svelte/animate';
  import { stuckFor } from '../../../../../core/class/stuck.ts';
  import { toldIn } from '../../../../../core/errand/task.ts';
  import { later, say, word } from '../../../../../core/words.ts';
  import { ask } from '$lib/class/ask.ts';
  import type { WallCard } from '$lib/class/class.ts';
  import { listen } from '$lib/class/live.ts';
  import Me from '$lib/class/Me.svelte';
  import Thumb from '$lib/shelf/Thumb.svelte';
  import Button from '$lib/ui/Button.svelte';
  import Card from '$lib/ui/Card.svelte';
  import { inOrder } from '$lib/class/folded.ts';
  import Choice from '$lib/ui/Choice.svelte';
  import Path from '$lib/ui/Path.svelte';
  import Remark from '$lib/ui/Remark.svelte';
  import ThemeButton from '$lib/ui/ThemeButton.svelte';
  import TopBar from '$lib/ui/TopBar.svelte';
  let { data } = $props();
  let cards = $state.raw<readonly WallCard[]>(untrack(() => data.cards));
  let now = $state(Date.now());
  let sort = $state<'stuck' | 'name' | 'group'>('stuck');
  /** for the projector: who is who is not told */
  let hidden = $state(false);
  let cut = $state(false);
  onMount(() => {
    const timer = setInterval(() => (now = Date.now()), 5000);
    const off = listen<{ cards: WallCard[]; all?: true }>(
      `/api/classes/${data.id}/live`,
      (told) => {
        now = Date.now();
        if (told.all) return void (cards = told.cards);
        const fresh = new Map(told.cards.map((c) => [c.id, c]));
        cards = [...cards.filter((c) => !fresh.has(c.id)), ...told.cards];
      },
      (is) => (cut = is)
    );
    return () => {
      clearInterval(timer);
      off();
    };
  });
  const byName = (a: WallCard, b: WallCard) => inOrder(a.nickname, b.nickname);
  const standing = (c: WallCard) => stuckFor({ ...c, met: c.errand?.met }, now);
  const sorted = $derived(
    [...cards].sort((a, b) =>
      sort === 'stuck'
        ? Math.round(standing(b)) - Math.round(standing(a)) || byName(a, b)
        : sort === 'group'
          ? inOrder(a.group, b.group) || byName(a, b)
          : byName(a, b)
    )
  );
  const up = $derived(cards.filter((c) => c.handUpAt !== undefined).length);
  const inside = $derived(cards.filter((c) => c.here).length);
  const done = $derived(cards.filter((c) => c.handedInAt !== undefined).length);
  const DOING = {
    'nothing yet': later('has not begun'),
    building: later('building'),
    trying: later('trying'),
    met: later('all goals met'),
    'handed in': later('handed in')
  } as const;
  const minutes = (at?: number): string => {
    if (at === undefined) return '';
    const m = Math.max(0, Math.floor((now - at) / 60_000));
    return m >= 90 ? say('a while ago') : m ? say('{n} min', { n: m }) : say('just now');
  };
  /** of each card, whether it is where the teacher should go */
  const waits = (c: WallCard) => standing(c) >= 8 && standing(c) < 1000;
</script>

<svelte:head><title>{say('{name} · Wall', { name: data.name })}</title></svelte:head>
<div class="flex h-full flex-col">
  <TopBar>
    {#snippet name()}<Path
        steps={[
          { name: say('Classes'), href: '/class' },
          { name: data.name, href: `/class/${data.id}` },
          { name: say('Wall') }
        ]}
      />{/snippet}
    <span class="flex-1"></span>
    <span class="text-[14px] text-[#c9d2c4] tabular-nums max-[1000px]:hidden" data-testid="counts"
      >{say('{n} of {of} here', { n: inside, of: cards.length })} · {say('{n} handed in', { n: done })}{up
        ? ` · ${say('{n, plural, one {# hand up} other {# hands up}}', { n: up })}`
        : ''}</span
    >
    <Choice look="ghost" aria-label={say('In which order')} bind:value={sort}
      ><option value="stuck">{say('stuck first')}</option><option value="name">{say('by name')}</option><option
        value="group">{say('by group')}</option
      ></Choice
    >
    <Button look="ghost" aria-pressed={hidden} onclick={() => (hidden = !hidden)}
      >{hidden ? say('Show names') : say('Hide names')}</Button
    >
    <Me />
    <ThemeButton />
  </TopBar>
  <main class="min-h-0 flex-1 overflow-auto px-[22px] py-[18px]">
    {#if cut}<Remark class="mb-3" tone="ink" role="status"
        >{say(
          'The school computer does not answer. What stands here is what was last told; it catches up by itself.'
        )}</Remark
      >{/if}
    {#if !cards.length}<p class="text-soft">{say('Nobody is in this class yet.')}</p>{/if}
    <ul class="grid grid-cols-[repeat(auto-fill,minmax(226px,1fr))] gap-3.5" data-testid="wall">
      {#each sorted as c, i (c.id)}
        <li animate:flip={{ duration: 250 }} data-pupil={c.nickname}>
          <Card class="flex h-full flex-col {c.handUpAt !== undefined ? 'border-brass ring-2 ring-brass' : ''}">
            <a class="block" href={c.project ? `/project/${c.project.id}` : undefined}>
              <span class="flex items-center gap-1.5 px-3 pt-2 pb-1"
                ><span
                  class="h-2.5 w-2.5 shrink-0 rounded-full {c.here ? 'bg-moss' : 'border border-soft'}"
                  title={c.here ? say('is here') : say('is not here')}
                ></span><b class="min-w-0 flex-1 truncate font-display text-[17px]"
                  >{hidden ? say('Pupil {n}', { n: i + 1 }) : c.nickname}</b
                >{#if c.handUpAt !== undefined}<span class="flex items-center gap-1 text-[13px] font-semibold"
                    ><Hand size={16} class="text-brass" />{say('Hand up')}</span
                  >{:else if c.group && !hidden}<small class="text-soft">{c.group}</small>{/if}</span
              >
              <span class="block [&>svg]:h-[62px]"><Thumb bars={c.project?.bars ?? []} /></span>
              <span class="block px-3 pt-1.5 pb-2 text-[13.5px] leading-snug">
                <span class="flex items-baseline gap-1.5"
                  ><span class="min-w-0 flex-1 truncate"
                    >{c.errand ? toldIn(c.errand.name) : (c.project?.name ?? say('nothing open'))}</span
                  >{#if c.errand}<b class={c.errand.met ? 'text-moss' : ''}>{c.errand.got}/{c.errand.of}</b>{/if}</span
                >
                {#if c.errand}<span class="mt-1 flex gap-[3px]" aria-hidden="true"
                    >{#each { length: c.errand.of } as _, g (g)}<span
                        class="h-1.5 flex-1 rounded-full {g < c.errand.got ? 'bg-moss' : 'bg-rule'}"
                      ></span>{/each}</span
                  >{/if}
                <span class="mt-1 block text-soft"
                  >{word(DOING[c.doing])} · {say('{n, plural, one {# try} other {# tries}}', {
                    n: c.tries
                  })}{c.changedAt ? ` · ${minutes(c.changedAt)}` : ''}</span
                >
                {#if c.told && c.doing !== 'handed in'}<span class="mt-1 line-clamp-2 {waits(c) ? 'text-clay' : ''}"
                    >{c.told.says}</span
                  >{/if}
              </span>
            </a>
            {#if c.handUpAt !== undefined}<div class="mt-auto flex px-3 pb-2.5">
                <Button
                  size="sm"
                  onclick={() => ask(`/api/classes/${data.id}/pupils/${c.id}`, 'PATCH', { handUp: false })}
                  >{say('Seen')} · {minutes(c.handUpAt)}</Button
                >
              </div>{/if}
          </Card>
        </li>
      {/each}
    </ul>
  </main>
</div>
