<!-- Marks: each pupil a line, each thing that was given out a column; as a file for a spreadsheet too. -->
<script lang="ts">
  import BellIcon from '@lucide/svelte/icons/bell';
  import { toldIn } from '../../../../../core/errand/task.ts';
  import { clockIn, say } from '../../../../../core/words.ts';
  import type { Mark } from '$lib/class/class.ts';
  import Me from '$lib/class/Me.svelte';
  import Button from '$lib/ui/Button.svelte';
  import Path from '$lib/ui/Path.svelte';
  import Table from '$lib/ui/Table.svelte';
  import TopBar from '$lib/ui/TopBar.svelte';
  let { data } = $props();
  const { given, rows } = $derived(data.marks);
  const clock = $derived(
    new Intl.DateTimeFormat(clockIn(), { day: 'numeric', month: 'numeric', hour: '2-digit', minute: '2-digit' })
  );
  const came = (m: Mark): string =>
    m.steps !== undefined
      ? [
          say('step {n} of {of}', { n: m.steps, of: m.ofSteps ?? 0 }),
          ...(m.ofQuestions ? [say('{n} of {of} right', { n: m.right ?? 0, of: m.ofQuestions })] : [])
        ].join(' · ')
      : m.got !== undefined
        ? say('{n} of {of} goals', { n: m.got, of: m.of ?? 0 })
        : m.projectId
          ? say('begun')
          : '';
  const more = (m: Mark): string =>
    [
      ...(m.tries ? [say('{n, plural, one {# try} other {# tries}}', { n: m.tries })] : []),
      ...(m.claimed ? [say('as the browser said')] : []),
      ...(m.handedInAt ? [say('handed in {time}', { time: clock.format(m.handedInAt) })] : []),
      ...(m.late ? [say('late')] : []),
      ...(m.backAt ? [say('given back')] : m.handedInAt && !m.seenAt ? [say('not seen yet')] : [])
    ].join(' · ');
</script>

<svelte:head><title>{say('{name} · Marks', { name: data.name })}</title></svelte:head>
<div class="flex h-full flex-col">
  <TopBar>
    {#snippet name()}<Path
        steps={[
          { name: say('Classes'), href: '/class' },
          { name: data.name, href: `/class/${data.id}` },
          { name: say('Marks') }
        ]}
      />{/snippet}
    <span class="flex-1"></span>
    <Button look="ghost" href="/api/classes/{data.id}/marks?as=csv" download="">{say('Save as CSV')}</Button>
    <Button look="ghost" href="/api/classes/{data.id}/marks?as=json" download="">{say('Save as JSON')}</Button>
    <Me />
  </TopBar>
  <main class="min-h-0 flex-1 overflow-auto px-[22px] py-[18px]">
    {#if !given.length || !rows.length}<p class="max-w-[56ch] text-soft">
        {say(
          'Here stands what came of everything that was given out, once there are pupils and something is given out.'
        )}
      </p>
    {:else}
      <p class="mb-3 max-w-[80ch] text-soft">
        {say(
          'What was handed in counts, as the school computer ran it; where nothing was, the best try. Open a hand-in by its goals.'
        )}
      </p>
      <Table class="w-auto! text-[13.5px]" data-testid="marks">
        <thead class="text-left align-bottom"
          ><tr
            ><th class="sticky left-0 bg-linen py-1 pr-4 font-semibold">{say('Pupils')}</th
            >{#each given as one (one.id)}<th class="min-w-36 max-w-56 px-3 py-1 font-semibold">{toldIn(one.name)}</th
              >{/each}</tr
          ></thead
        >
        <tbody
          >{#each rows as row (row.id)}<tr class="border-t border-rule align-top">
              <th class="sticky left-0 bg-linen py-1.5 pr-4 font-semibold">{row.nickname}</th>
              {#each row.marks as m, i (given[i].id)}<td class="px-3 py-1.5"
                  ><span class="flex items-center gap-1.5"
                    >{#if m.of !== undefined}<BellIcon
                        size={14}
                        class={m.met ? 'text-brass' : 'text-rule'}
                      />{/if}{#if m.handIn}<a class="font-semibold underline" href="/class/{data.id}/hand-in/{m.handIn}"
                        >{came(m)}</a
                      >{:else if m.projectId}<a class="underline" href="/project/{m.projectId}">{came(m)}</a
                      >{:else if m.steps !== undefined}<a
                        class="underline"
                        href="/class/{data.id}/lesson/{given[i].target}">{came(m)}</a
                      >{:else}<span class="text-soft">–</span>{/if}</span
                  ><small class="block text-soft">{more(m)}</small></td
                >{/each}
            </tr>{/each}</tbody
        >
      </Table>
    {/if}
  </main>
</div>
