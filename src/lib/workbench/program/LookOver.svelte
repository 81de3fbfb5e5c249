<script lang="ts">
  import Remark from '../../ui/Remark.svelte';
  import Button from '../../ui/Button.svelte';
  import { say, word } from '../../../../core/words.ts';
  import { sentences } from '../sentences.ts';
  import { stopsStart } from '../../../../core/language/lookover/remark.ts';
  import { useWorkbench } from '../workbench.svelte.ts';
  let { close }: { close: () => void } = $props();
  const w = useWorkbench();
  const names = $derived(sentences(w.session.project));
  const aside = $derived(w.session.project.setAside?.length ?? 0);
  function all() {
    const { setAside: _, ...rest } = w.session.project;
    w.session.change(say('make all remarks again'), rest);
  }
</script>

<div
  class="absolute top-2 right-2 z-30 flex max-h-[calc(100%-1rem)] w-[390px] max-w-[calc(100%-1rem)] flex-col rounded-xl border border-rule bg-card shadow-lg"
  role="region"
  aria-label={say('Look-over')}
>
  <div class="flex items-center justify-between border-b border-rule px-3 py-2">
    <h3 class="text-[16px]">{say('Look-over')}</h3>
    <Button look="quiet" onclick={close}>{say('Close')}</Button>
  </div>
  <div class="flex flex-col gap-2 overflow-auto p-3">
    {#each w.remarks as remark, i (remark.rule + remark.blocks.join() + i)}
      <Remark role={null} tone={remark.severity === 'consider' ? 'calm' : 'ink'}>
        <small class="font-semibold {remark.severity === 'consider' ? 'text-soft' : 'text-clay'}"
          >{word(remark.severity)}</small
        >
        <p class="font-semibold">{remark.says}</p>
        <p>{remark.todo}</p>
        <div class="mt-1.5 flex flex-wrap gap-1.5">
          {#each remark.blocks as id (id)}<Button
              look="quiet"
              class="max-w-full truncate bg-transparent px-1 underline"
              onpointerenter={() => (w.pointed = id)}
              onpointerleave={() => (w.pointed = undefined)}
              onclick={() => {
                w.selected = undefined;
                w.selected = id;
              }}>{names.get(id) ?? id}</Button
            >{/each}
        </div>
        <div class="mt-1.5 flex flex-wrap gap-1.5">
          {#each remark.mends as mend (mend.label)}<Button size="sm" class="text-[13px]" onclick={() => w.mend(mend)}
              >{mend.label}</Button
            >{/each}
          {#if !stopsStart(remark)}<Button
              look="quiet"
              class="px-1 text-[13px]"
              title={say('It is not said again in this project')}
              onclick={() => w.setAside(remark)}>{say('It is meant so')}</Button
            >{/if}
        </div>
      </Remark>
    {:else}
      <p class="text-moss">
        {say(
          'Nothing to remark. Every socket that the program uses holds the right part, and what it starts it also stops.'
        )}
      </p>
    {/each}
    {#if aside}<p class="text-[13px] text-soft">
        {say('{n, plural, one {# remark is} other {# remarks are}} set aside in this project.', { n: aside })}
        <Button look="bare" class="underline" onclick={all}>{say('Make them again')}</Button>
      </p>{/if}
  </div>
</div>
