<!-- What a class answered to a lesson: each pupil a line, each question a column. -->
<script lang="ts">
  import Check from '@lucide/svelte/icons/check';
  import X from '@lucide/svelte/icons/x';
  import { say } from '../../../../../../core/words.ts';
  import Me from '$lib/class/Me.svelte';
  import Prose from '$lib/lesson/Prose.svelte';
  import Button from '$lib/ui/Button.svelte';
  import Path from '$lib/ui/Path.svelte';
  import Table from '$lib/ui/Table.svelte';
  import TopBar from '$lib/ui/TopBar.svelte';
  let { data } = $props();
  const all = $derived(data.answers);
</script>

<svelte:head><title>{say('{name} · What was answered', { name: all.title })}</title></svelte:head>
<div class="flex h-full flex-col">
  <TopBar>
    {#snippet name()}<Path
        steps={[
          { name: say('Classes'), href: '/class' },
          { name: data.name, href: `/class/${data.id}` },
          { name: all.title }
        ]}
      />{/snippet}
    <span class="flex-1"></span>
    <Button look="ghost" href="/lesson/{data.lesson}">{say('Open the lesson')}</Button>
    <Me />
  </TopBar>
  <main class="min-h-0 flex-1 overflow-auto px-[22px] py-[18px]">
    <Table class="w-auto! text-[13.5px]" data-testid="answers">
      <thead class="text-left"
        ><tr
          ><th class="py-1 pr-4 font-semibold">{say('Pupils')}</th><th class="px-3 font-semibold"
            >{say('Steps of {n}', { n: all.steps })}</th
          >{#each all.questions as _, i (i)}<th class="px-3 font-semibold">{i + 1}</th>{/each}</tr
        ></thead
      >
      <tbody
        >{#each all.rows as row (row.id)}<tr class="border-t border-rule align-top"
            ><th class="py-1.5 pr-4 font-semibold">{row.nickname}</th>
            <td class="px-3 py-1.5">{row.read?.steps ?? ''}</td>
            {#each all.questions as _, i (i)}{@const a = row.read?.answers[i]}
              <td class="max-w-64 px-3 py-1.5"
                >{#if a?.answer}{#if a.right === true}<Check size={14} class="inline text-moss" /><span class="sr-only"
                      >{say('answered right')}</span
                    >{:else if a.right === false}<X size={14} class="inline text-clay" /><span class="sr-only"
                      >{say('answered wrong')}</span
                    >{/if}
                  {#if 'x' in a.answer}{say('x {x} cm, y {y} cm', {
                      x: (a.answer.x * 100).toFixed(0),
                      y: (a.answer.y * 100).toFixed(0)
                    })}{:else}{a.says}{/if}{/if}</td
              >{/each}
          </tr>{/each}</tbody
      >
    </Table>
    {#if all.questions.length}<h2 class="mt-6 mb-1 text-[17px]">{say('What is asked')}</h2>
      <ol class="max-w-[80ch] list-decimal pl-6">
        {#each all.questions as question, i (i)}<li><Prose markdown={question.markdown} /></li>{/each}
      </ol>{/if}
  </main>
</div>
