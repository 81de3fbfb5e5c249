<!-- The program as flow charts: they follow the edit, light what runs, and lead to the blocks. -->
<script lang="ts">
  import Remark from '../../../ui/Remark.svelte';
  import { say } from '../../../../../core/words.ts';
  import { partName } from '../../../../../core/kit/kit.ts';
  import { flowsOf } from '../../../../../core/language/outline.ts';
  import { useWorkbench } from '../../workbench.svelte.ts';
  import FlowChart from './FlowChart.svelte';
  import { layout, type Placed } from './layout.ts';
  import Button from '../../../ui/Button.svelte';
  import Maximize from '@lucide/svelte/icons/maximize';
  import ZoomIn from '@lucide/svelte/icons/zoom-in';
  import ZoomOut from '@lucide/svelte/icons/zoom-out';
  let { show }: { show: (block: string) => void } = $props();
  const w = useWorkbench();
  const program = $derived(w.session.project.program);
  const flows = $derived(flowsOf(program, (socket) => partName(w.session.project.kit, socket)));
  let charts = $state.raw<Placed[]>();
  let trouble = $state('');
  let host: HTMLDivElement;
  let [wide, high] = $state([0, 0]);
  const GAP = 32;
  const EDGE = 32;
  const [LEAST, MOST] = [0.45, 1.6];
  /** chosen by the person; otherwise all charts are seen at once, if they are not too small to be read then */
  let zoom = $state<number>();
  const fits = $derived.by(() => {
    if (!charts?.length || !wide) return 1;
    const width = charts.reduce((sum, c) => sum + c.width + 16 + GAP, -GAP);
    const height = Math.max(...charts.map((c) => c.height + 16));
    // one beside the other, or one below the other: whichever is larger
    const below = charts.reduce((sum, c) => sum + c.height + 16 + GAP, -GAP);
    const widest = Math.max(...charts.map((c) => c.width + 16));
    const beside = Math.min((wide - EDGE) / width, (high - EDGE) / height);
    const stacked = Math.min((wide - EDGE) / widest, (high - EDGE) / below);
    return Math.max(0.6, Math.min(1, Math.max(beside, stacked)));
  });
  const scale = $derived(zoom ?? fits);
  const by = (factor: number) => (zoom = Math.max(LEAST, Math.min(MOST, scale * factor)));
  function keys(event: KeyboardEvent) {
    if (event.ctrlKey || event.metaKey || event.altKey) return;
    if (event.key === '+') by(1.2);
    else if (event.key === '-') by(1 / 1.2);
    else if (event.key === '0') zoom = undefined;
    else return;
    event.preventDefault();
  }
  let held = $state.raw<{ x: number; y: number; left: number; top: number }>();
  function down(event: PointerEvent) {
    if (
      event.button !== 0 ||
      event.pointerType === 'touch' ||
      (event.target as Element).closest('[role="button"], button')
    )
      return;
    held = { x: event.clientX, y: event.clientY, left: host.scrollLeft, top: host.scrollTop };
    host.setPointerCapture(event.pointerId);
  }
  function move(event: PointerEvent) {
    if (held) host.scrollTo(held.left + held.x - event.clientX, held.top + held.y - event.clientY);
  }
  $effect(() => {
    const wanted = flows;
    Promise.all(wanted.map(layout)).then(
      (placed) => {
        if (wanted !== flows) return;
        charts = placed;
      },
      (error: Error) => (trouble = error.message)
    );
  });
</script>

<!-- svelte-ignore a11y_no_noninteractive_tabindex, a11y_no_noninteractive_element_interactions -->
<div
  class="h-full overflow-auto bg-paper p-4 {held ? 'cursor-grabbing' : 'cursor-grab'}"
  role="region"
  aria-label={say('Flow')}
  data-testid="flows"
  data-scrolls
  tabindex="0"
  bind:this={host}
  bind:clientWidth={wide}
  bind:clientHeight={high}
  onkeydown={keys}
  onpointerdown={down}
  onpointermove={move}
  onpointerup={() => (held = undefined)}
  onpointercancel={() => (held = undefined)}
>
  {#if trouble}<Remark look="line">
      {say('The chart could not be laid out: {trouble}', { trouble })}
    </Remark>{/if}
  {#if charts && charts.length === 0}<p class="text-soft">
      {say('Nothing can run yet. Put "At the start" and a few blocks into the program, and its flow is drawn here.')}
    </p>{:else if !charts}<p class="text-soft">{say('Laying the chart out ...')}</p>{/if}
  <div class="flex w-max max-w-none items-start gap-8" class:flex-wrap={!zoom} style={zoom ? '' : 'width: auto'}>
    {#each charts ?? [] as placed (placed.flow.id)}
      <FlowChart
        {placed}
        {program}
        {scale}
        lit={w.runs.lit}
        selected={w.selected}
        pointed={w.pointed}
        onchoose={show}
        onpoint={(block) => (w.pointed = block)}
      />
    {/each}
  </div>
</div>
<div class="absolute right-5 bottom-5 z-10 flex gap-1 rounded-lg border border-rule bg-card p-0.5">
  <Button look="quiet" class="px-1.5" aria-label={say('Smaller')} title={say('Smaller')} onclick={() => by(1 / 1.2)}
    ><ZoomOut size={16} /></Button
  >
  <Button look="quiet" class="px-1.5" aria-label={say('Larger')} title={say('Larger')} onclick={() => by(1.2)}
    ><ZoomIn size={16} /></Button
  >
  <Button
    look="quiet"
    class="px-1.5"
    aria-label={say('Fit the program')}
    title={say('Fit the program')}
    onclick={() => (zoom = undefined)}><Maximize size={16} /></Button
  >
</div>
