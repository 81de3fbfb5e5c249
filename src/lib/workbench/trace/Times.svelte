<script lang="ts">
  import Table from '../../ui/Table.svelte';
  import Button from '../../ui/Button.svelte';
  import { statistics } from '../../../../core/trace/measure.ts';
  import { say } from '../../../../core/words.ts';
  import type { Run } from '../runs.svelte.ts';
  import { lineOf, sentences } from '../sentences.ts';
  import { useWorkbench } from '../workbench.svelte.ts';
  import Sheet from './Sheet.svelte';
  let { run, lead }: { run: Run; lead: (toUs: number, block?: string) => void } = $props();
  const w = useWorkbench();
  const names = $derived(sentences(run.project ?? w.session.project));
  const rows = $derived(run.version >= 0 ? statistics(run.trace) : []);
  const time = (us: number) => (us >= 1e6 ? `${(us / 1e6).toFixed(2)} s` : `${(us / 1000).toFixed(1)} ms`);
</script>

<Sheet title={say('Times of the blocks')} wide>
  <Table class="text-[12.5px]" data-testid="times">
    <thead class="text-right text-[11.5px] text-soft"
      ><tr
        ><th class="px-1 text-left font-semibold">{say('Block')}</th><th class="px-1 font-semibold">{say('ran')}</th><th
          class="px-1 font-semibold">{say('shortest')}</th
        ><th class="px-1 font-semibold">{say('longest')}</th><th class="px-1 font-semibold">{say('mean')}</th></tr
      ></thead
    >
    <tbody>
      {#each rows as r (r.block)}<tr class="border-t border-rule text-right font-mono"
          ><td class="max-w-[300px] truncate px-1 text-left font-sans"
            ><Button look="bare" class="min-h-6 hover:underline" onclick={() => lead(r.firstUs, r.block)}
              >{names.get(r.block) ?? lineOf(r.block)}</Button
            ></td
          ><td class="px-1">{r.times}</td><td class="px-1">{time(r.shortestUs)}</td><td class="px-1"
            >{time(r.longestUs)}</td
          ><td class="px-1">{time(r.meanUs)}</td></tr
        >{/each}
    </tbody>
  </Table>
</Sheet>
