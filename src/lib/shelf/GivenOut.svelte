<!-- What the teacher gave out: first on a pupil's shelf. -->
<script lang="ts">
  import { goto } from '$app/navigation';
  import { onMount } from 'svelte';
  import BellIcon from '@lucide/svelte/icons/bell';
  import { toldIn } from '../../../core/errand/task.ts';
  import { clockIn, say } from '../../../core/words.ts';
  import { ask } from '../class/ask.ts';
  import type { GivenToMe } from '../class/class.ts';
  import { listen } from '../class/live.ts';
  import Button from '../ui/Button.svelte';
  import Card from '../ui/Card.svelte';
  import Remark from '../ui/Remark.svelte';
  let { problem }: { problem: (says: string) => void } = $props();
  let list = $state.raw<readonly GivenToMe[]>([]);
  /** shown to the room by one of the class */
  let shown = $state.raw<{ project: string; by: string }>();
  /** the class guesses where a program will stop */
  let round = $state<string>();
  async function load() {
    const answer = await ask<GivenToMe[]>('/api/given');
    if (answer.ok) list = answer.value;
  }
  onMount(() => {
    void load();
    return listen('/api/live', (told) => {
      if (told.given) void load();
      if (told.round) round = told.round;
      if (typeof told.shown === 'string') shown = { project: told.shown, by: told.by ?? '' };
    });
  });
  async function open(one: GivenToMe) {
    if (one.kind === 'lesson') return goto(`/lesson/${one.target}`);
    const answer = await ask<{ id: string }>(`/api/given/${one.id}`, 'POST');
    if (answer.ok) await goto(`/project/${answer.value.id}`);
    else problem(answer.problem);
  }
  const clock = $derived(new Intl.DateTimeFormat(clockIn(), { dateStyle: 'short', timeStyle: 'short' }));
  const told = (one: GivenToMe): string =>
    [
      one.backAt
        ? say('it came back: look at what your teacher says')
        : one.handedInAt
          ? [say('handed in {time}', { time: clock.format(one.handedInAt) }), ...(one.late ? [say('late')] : [])].join(
              ', '
            )
          : one.of !== undefined
            ? say('{n} of {of} goals', { n: one.got ?? 0, of: one.of })
            : one.projectId
              ? say('begun')
              : one.kind === 'lesson'
                ? say('lesson')
                : say('not begun yet'),
      one.untilAt === null ? '' : say('until {time}', { time: clock.format(one.untilAt) })
    ]
      .filter(Boolean)
      .join(' · ');
</script>

{#if round}<Remark tone="moss" role="status" class="mb-3 flex items-center gap-3"
    ><span class="flex-1">{say('Your class guesses where a program will stop.')}</span><Button
      size="sm"
      look="go"
      href="/predict/{round}">{say('Guess with them')}</Button
    ></Remark
  >{/if}
{#if shown}<Remark tone="moss" role="status" class="mb-3 flex items-center gap-3"
    ><span class="flex-1">{say('{name} shows a program to the room.', { name: shown.by })}</span><Button
      size="sm"
      href="/project/{shown.project}">{say('Look at it')}</Button
    ></Remark
  >{/if}
<div class="mb-2.5 flex items-baseline gap-3.5">
  <h2 class="text-[19px]">{say('Given out')}</h2>
  <span class="text-soft">{say('by your teacher')}</span>
</div>
{#if !list.length}<p class="mb-5 text-soft">{say('Nothing at the moment. What comes appears here by itself.')}</p>{/if}
<ul class="mb-5 grid grid-cols-[repeat(auto-fill,minmax(255px,1fr))] gap-3.5" data-testid="given-to-me">
  {#each list as one (one.id)}
    <li>
      <Card class="h-full">
        <Button
          look="bare"
          class="flex h-full w-full flex-col items-stretch justify-start px-3 py-2.5 text-left"
          onclick={() => open(one)}
        >
          <span class="flex items-center gap-1.5"
            ><BellIcon size={15} class={one.met ? 'text-brass' : 'text-rule'} /><b class="truncate"
              >{toldIn(one.name)}</b
            ></span
          >
          {#if one.story}<span class="mt-1 block text-[13.5px] leading-snug">{toldIn(one.story)}</span>{/if}
          <small class="mt-1.5 block text-soft">{told(one)}</small>
        </Button>
      </Card>
    </li>
  {/each}
</ul>
