<!-- What was handed in of one errand or project, and how it does when all of it runs again. -->
<script lang="ts">
  import { clockIn, say } from '../../../core/words.ts';
  import Button from '../ui/Button.svelte';
  import Remark from '../ui/Remark.svelte';
  import Table from '../ui/Table.svelte';
  import Check from '@lucide/svelte/icons/check';
  import X from '@lucide/svelte/icons/x';
  import { ask } from './ask.ts';
  import type { AgainTable, Given, OpenedClass } from './class.ts';
  let { of, one }: { of: OpenedClass; one: Given } = $props();
  const list = $derived(of.collected.filter((c) => c.givenId === one.id));
  const clock = $derived(new Intl.DateTimeFormat(clockIn(), { dateStyle: 'short', timeStyle: 'short' }));
  let ran = $state.raw<AgainTable>();
  let busy = $state(false);
  let problem = $state('');
  async function again() {
    busy = true;
    const answer = await ask<AgainTable>(`/api/classes/${of.id}/again?given=${one.id}`, 'POST');
    busy = false;
    if (answer.ok) [ran, problem] = [answer.value, ''];
    else problem = answer.problem;
  }
  const rowOf = (handIn: string) => ran?.rows.find((r) => r.handIn === handIn);
</script>

{#snippet mark(met: boolean, edge = false)}
  <td class="px-1 py-1 text-center {edge ? 'border-l border-rule' : ''}"
    >{#if met}<Check size={15} class="inline text-moss" /><span class="sr-only">{say('met')}</span>{:else}<X
        size={15}
        class="inline text-clay"
      /><span class="sr-only">{say('not met')}</span>{/if}</td
  >
{/snippet}

{#if list.length}
  <Table class="mt-2 text-[13.5px]" data-testid="collected">
    {#if ran}<thead class="text-left text-[12px] text-soft"
        ><tr
          ><th></th>{#each ran.goals as goal, i (i)}<th class="px-1 text-center font-semibold" title={goal}
              >{i + 1}<span class="sr-only">. {goal}</span></th
            >{/each}{#each ran.situations as says, i (i)}<th
              class="px-1 text-center font-semibold {i ? '' : 'border-l border-rule'}"
              title={says}>{String.fromCharCode(97 + i)}<span class="sr-only">. {says}</span></th
            >{/each}<th class="text-right font-semibold">s</th><th class="text-right font-semibold">{say('blocks')}</th
          ></tr
        ></thead
      >{/if}
    <tbody>
      {#each list as c (c.handIn)}{@const row = rowOf(c.handIn)}
        <tr class="border-t border-rule align-top">
          <td class="py-1 pr-2"
            ><a class="font-semibold underline" href="/class/{of.id}/hand-in/{c.handIn}">{c.nickname}</a>
            <small class="block text-soft"
              >{[
                clock.format(c.at),
                ...(c.result ? [say('{n} of {of} goals', { n: c.result.got, of: c.result.of })] : []),
                ...(c.claimed ? [say('as the browser said')] : []),
                ...(c.late ? [say('late')] : []),
                ...(c.backAt ? [say('given back')] : c.seenAt ? [] : [say('not seen yet')])
              ].join(' · ')}</small
            >{#if c.note}<small class="block">“{c.note}”</small>{/if}</td
          >
          {#if ran}{#if row && 'goals' in row}{#each row.goals as met, i (i)}{@render mark(
                  met
                )}{/each}{#each ran.situations as _, i (i)}{@render mark(!!row.situations[i]?.met, i === 0)}{/each}<td
                class="py-1 text-right">{row.seconds?.toFixed(1) ?? ''}</td
              ><td class="py-1 text-right">{row.blocks ?? ''}</td>{:else}<td
                class="py-1 text-soft"
                colspan={ran.goals.length + ran.situations.length + 2}>{row?.says ?? ''}</td
              >{/if}{/if}
        </tr>{/each}
    </tbody>
  </Table>
  {#if ran}<ol class="mt-1 list-inside list-decimal text-[12.5px] text-soft">
      {#each ran.goals as goal, i (i)}<li>{goal}</li>{/each}
    </ol>
    {#if ran.situations.length}<p class="mt-1 text-[12.5px] text-soft">
        {say('The goals are as in the first situation that was missed. All goals met in each:')}
      </p>
      <ol class="list-inside list-[lower-alpha] text-[12.5px] text-soft">
        {#each ran.situations as says, i (i)}<li>{says}</li>{/each}
      </ol>{/if}{/if}
  {#if problem}<Remark look="line">{problem}</Remark>{/if}
  <div class="mt-1.5 flex flex-wrap gap-1.5">
    {#if one.kind === 'errand'}<Button size="sm" disabled={busy} onclick={again}
        >{busy ? say('Running ...') : say('Run all of it again')}</Button
      >{/if}
    {#if ran}<Button size="sm" href="/api/classes/{of.id}/again?given={one.id}" download="">{say('Save as CSV')}</Button
      >{/if}
  </div>
{:else}<p class="mt-1 text-[13.5px] text-soft">{say('Nothing handed in yet.')}</p>{/if}
