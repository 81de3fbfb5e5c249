<!-- The tries so far, the oldest on the left: how many goals each met, what was changed before it; a click opens its run. -->
<script lang="ts">
  import { scaleLinear } from 'd3-scale';
  import { num } from '../../../../core/errand/goal.ts';
  import { goalWords, type Goal } from '../../../../core/errand/goals.ts';
  import type { TryResult } from '../../../../core/trace/tried.ts';
  import type { RunCard } from '../../../../core/trace/runfile.ts';
  import { say } from '../../../../core/words.ts';
  import Button from '../../ui/Button.svelte';
  import { useWorkbench } from '../workbench.svelte.ts';
  let { goals }: { goals: readonly Goal[] } = $props();
  const w = useWorkbench();
  /** as many as there is room for */
  const MOST = 24;
  const WIDTH = 360;
  const HEIGHT = 44;
  const BAR = 12;
  type Try = RunCard & { result: TryResult };
  const tries = $derived(
    w.history.list
      .filter((c): c is Try => !!c.result)
      .slice(0, MOST)
      .reverse()
  );
  const all = $derived(w.history.list.filter((c) => c.result).length);
  const x = scaleLinear([0, MOST], [0, WIDTH]);
  const y = $derived(scaleLinear([0, goals.length], [0, HEIGHT - 6]));
  /** the one that was pointed at last stays chosen, until there is another try */
  let chosen = $state.raw<{ id: string; of: number }>();
  const shown = $derived(tries.find((t) => t.id === chosen?.id && chosen.of === all) ?? tries.at(-1));
  /** Both are drawn in the trace, and where they part is told there. */
  async function beside(t: Try) {
    const run = await w.history.bring(t);
    if (run) w.trace.beside = run;
  }
  function came({ got, of, met, seconds, blocks, nearest }: TryResult): string {
    const built = blocks === undefined ? '' : ` · ${say('{n, plural, one {# block} other {# blocks}}', { n: blocks })}`;
    if (met) return say('all goals met in {s} s', { s: (seconds ?? 0).toFixed(1) }) + built;
    const miss =
      !nearest?.amount || !goals[nearest.goal]
        ? ''
        : ` · ${say('{goal}: off by {amount} {unit}', {
            goal: goalWords(goals[nearest.goal]),
            amount: num(nearest.amount),
            unit: nearest.unit ?? ''
          })}`;
    return say('{got} of {of} goals met', { got, of }) + built + miss;
  }
</script>

{#if tries.length}
  <div class="mt-2 border-t border-rule pt-1.5" data-testid="tries">
    <div class="flex items-baseline justify-between gap-2">
      <h4 class="text-[13px] font-semibold">
        {say('{n, plural, one {# try} other {# tries}}', { n: all })}
      </h4>
      {#if shown}<span class="flex gap-1.5">
          <Button size="sm" onclick={() => w.history.show(shown)}>{say('Open this run')}</Button>
          {#if w.runs.run}<Button size="sm" onclick={() => beside(shown)}>{say('Beside the one that is seen')}</Button
            >{/if}</span
        >{/if}
    </div>
    <svg
      width={WIDTH}
      height={HEIGHT}
      viewBox="0 0 {WIDTH} {HEIGHT}"
      class="max-w-full"
      role="img"
      aria-label={say('How many goals each try met')}
    >
      <line x1="0" x2={WIDTH} y1={HEIGHT - y(goals.length)} y2={HEIGHT - y(goals.length)} class="stroke-rule" />
      {#each tries as t, i (t.id)}
        <!-- svelte-ignore a11y_no_static_element_interactions, a11y_click_events_have_key_events -->
        <rect
          x={x(i)}
          width={BAR}
          y={HEIGHT - Math.max(3, y(t.result.got))}
          height={Math.max(3, y(t.result.got))}
          rx="2"
          class={t.result.met ? 'fill-moss' : 'fill-clay'}
          opacity={shown === t ? 1 : 0.6}
          data-try={t.result.met ? 'met' : 'missed'}
          onpointerenter={() => (chosen = { id: t.id, of: all })}
          onclick={() => w.history.show(t)}
        />
      {/each}
    </svg>
    {#if shown}<p class="text-[12.5px] text-soft" data-testid="came">
        {shown.name} · {came(shown.result)}
        {#if shown.result.changed.length}· {say('before it: {changed}', {
            changed: shown.result.changed.join(', ')
          })}{/if}
      </p>{/if}
  </div>
{/if}
