<!-- The program as flow charts: they follow the edit, light what runs, and lead to the blocks. -->
<script lang="ts">
  import { tick } from 'svelte';
  import { say } from '../../../../../core/words.ts';
  import { partName } from '../../../../../core/kit/kit.ts';
  import { flowsOf } from '../../../../../core/language/outline.ts';
  import { useWorkbench } from '../../workbench.svelte.ts';
  import FlowChart from './FlowChart.svelte';
  import { layout, type Placed } from './layout.ts';
  let { show }: { show: (block: string) => void } = $props();
  const w = useWorkbench();
  const program = $derived(w.session.project.program);
  const flows = $derived(flowsOf(program, (socket) => partName(w.session.project.kit, socket)));
  let charts = $state.raw<Placed[]>();
  let trouble = $state('');
  let host: HTMLDivElement;
  /** A chart that is wider than its place is shown where it begins. */
  function toBeginning(placed: Placed | undefined) {
    const drawn = host.querySelector('svg')?.getBoundingClientRect();
    const start = placed?.nodes[0];
    if (drawn && placed && start)
      host.scrollLeft = (start.x + start.width / 2) * (drawn.width / placed.width) - host.clientWidth / 2;
  }
  $effect(() => {
    const wanted = flows;
    Promise.all(wanted.map(layout)).then(
      (placed) => {
        if (wanted !== flows) return;
        const first = !charts;
        charts = placed;
        if (first) void tick().then(() => toBeginning(placed[0]));
      },
      (error: Error) => (trouble = error.message)
    );
  });
</script>

<div class="h-full overflow-auto bg-paper p-4" data-testid="flows" bind:this={host}>
  {#if trouble}<p class="text-clay" role="alert">
      {say('The chart could not be laid out: {trouble}', { trouble })}
    </p>{/if}
  {#if charts && charts.length === 0}<p class="text-soft">
      {say('Nothing can run yet. Put "At the start" and a few blocks into the program, and its flow is drawn here.')}
    </p>{:else if !charts}<p class="text-soft">{say('Laying the chart out ...')}</p>{/if}
  <div class="flex flex-wrap items-start gap-8">
    {#each charts ?? [] as placed (placed.flow.id)}
      <FlowChart
        {placed}
        {program}
        lit={w.runs.lit}
        selected={w.selected}
        pointed={w.pointed}
        onchoose={show}
        onpoint={(block) => (w.pointed = block)}
      />
    {/each}
  </div>
</div>
