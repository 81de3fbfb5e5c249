<script lang="ts">
  import Button from '../../ui/Button.svelte';
  import { APART, differences, shiftOf } from '../../../../core/trace/compare.ts';
  import { say } from '../../../../core/words.ts';
  import type { Run } from '../runs.svelte.ts';
  import { lineOf, sentences } from '../sentences.ts';
  import { useWorkbench } from '../workbench.svelte.ts';
  import Sheet from './Sheet.svelte';
  let {
    run,
    beside,
    shiftUs,
    lead
  }: { run: Run; beside: Run | undefined; shiftUs: number; lead: (toUs: number, block?: string) => void } = $props();
  const w = useWorkbench();
  const over = $derived(run.version >= 0 && beside && beside.version >= 0 && run.trace.ended && beside.trace.ended);
  const list = $derived(over ? differences(run.trace, beside!.trace, shiftUs) : []);
  const cannot = $derived(over && shiftOf(run.trace, beside!.trace, w.trace.align) === undefined);
  const names = $derived(sentences(run.project ?? w.session.project));
</script>

<Sheet title={say('Where they part')}>
  {#if !over}<p class="text-soft">{say('Both runs have to be over.')}</p>
  {:else}
    {#if cannot}<p class="text-soft">{say('One of the two has no such moment, so both lie from their start.')}</p>{/if}
    {#if !list.length}<p class="text-moss">
        {say('The two runs did the same, to within {cm} cm and {deg} °.', APART)}
      </p>{/if}
    <ol class="flex flex-col gap-1" data-testid="differences">
      {#each list as d, i (i)}<li>
          <Button
            look="bare"
            class="w-full rounded-lg px-2 py-1 text-left hover:bg-linen"
            onclick={() => {
              lead(d.atUs, d.block);
              w.trace.show(d.atUs, d.atUs);
            }}
            ><span class="font-mono text-[12px] text-soft">{(d.atUs / 1e6).toFixed(2)} s</span>
            {d.says}{#if d.block}<small class="block text-soft">{names.get(d.block) ?? lineOf(d.block)}</small
              >{/if}</Button
          >
        </li>{/each}
    </ol>
  {/if}
</Sheet>
