<script lang="ts">
  import { sampleAt } from '../../../../core/trace/query.ts';
  import { channel } from '../../../../core/trace/trace.ts';
  import { reading } from '../../../../core/units.ts';
  import { retell, say } from '../../../../core/words.ts';
  import type { Run } from '../runs.svelte.ts';
  import { useWorkbench } from '../workbench.svelte.ts';
  import type { Lane } from './lanes.ts';
  import Choice from '../../ui/Choice.svelte';
  import Grid from '../../ui/Table.svelte';
  import Sheet from './Sheet.svelte';
  let { run, lanes, lead }: { run: Run; lanes: Lane[]; lead: (toUs: number) => void } = $props();
  const w = useWorkbench();
  const view = w.trace;
  const MOST = 200;
  const STEPS = [1, 2, 5, 10, 20, 50, 100, 200, 500, 1000, 2000, 5000, 10_000];
  let every = $state<number>();
  const stretch = $derived(view.selection ?? view.range ?? [0, run.endUs]);
  const least = $derived(STEPS.find((s) => (stretch[1] - stretch[0]) / 1000 / s <= MOST) ?? 10_000);
  const step = $derived(Math.max(every ?? least, least));
  const columns = $derived(
    run.version < 0
      ? []
      : lanes.flatMap((l) => (l.kind === 'curve' ? l.keys : [])).flatMap(({ key }) => channel(run.trace, key) ?? [])
  );
  const rows = $derived.by(() => {
    const out: number[] = [];
    const last = Math.min(stretch[1], run.endUs);
    for (let t = Math.ceil(stretch[0] / (step * 1000)) * step * 1000; t <= last; t += step * 1000)
      if (t > 0) out.push(t);
    return out;
  });
</script>

<Sheet title={view.selection ? say('Table between the cursors') : say('Table')} wide>
  {#snippet head()}
    <label class="flex items-center gap-1 text-[13px]"
      >{say('every')}
      <Choice size="sm" value={step} onchange={(e) => (every = Number(e.currentTarget.value))}
        >{#each STEPS.filter((s) => s >= least) as s (s)}<option value={s}>{s} ms</option>{/each}</Choice
      ></label
    >
  {/snippet}
  <Grid class="text-[12.5px]" data-testid="trace-table">
    <thead class="text-right text-[11.5px] text-soft"
      ><tr
        ><th class="px-1 font-semibold">s</th>{#each columns as c (c.key)}<th class="px-1 font-semibold"
            >{retell(c.title)} {c.unit}</th
          >{/each}</tr
      ></thead
    >
    <tbody>
      {#each rows as t (t)}<tr
          class="cursor-pointer border-t border-rule text-right font-mono hover:bg-linen"
          onclick={() => lead(t)}
          ><td class="px-1">{(t / 1e6).toFixed(3)}</td>{#each columns as c (c.key)}<td class="px-1"
              >{reading(c.key, sampleAt(c, t / 1000 - 1), 2)}</td
            >{/each}</tr
        >{/each}
    </tbody>
  </Grid>
</Sheet>
