<script lang="ts">
  import Table from '../../ui/Table.svelte';
  import Button from '../../ui/Button.svelte';
  import { figure, reading } from '../../../../core/units.ts';
  import { measure } from '../../../../core/trace/measure.ts';
  import { channel } from '../../../../core/trace/trace.ts';
  import { retell, say } from '../../../../core/words.ts';
  import type { Run } from '../runs.svelte.ts';
  import { useWorkbench } from '../workbench.svelte.ts';
  import type { Lane } from './lanes.ts';
  import Sheet from './Sheet.svelte';
  let { run, lanes }: { run: Run; lanes: Lane[] } = $props();
  const w = useWorkbench();
  const view = w.trace;
  const keys = $derived([
    ...new Set(
      lanes.flatMap((l) => [l, ...(l.over ?? [])]).flatMap((l) => (l.kind === 'curve' ? l.keys.map((k) => k.key) : []))
    )
  ]);
  const rows = $derived.by(() => {
    const { a, b } = view;
    if (a === undefined || b === undefined || run.version < 0) return [];
    return keys.flatMap((key) => {
      const c = channel(run.trace, key);
      const m = c && measure(c, run.trace.ticks, a, b);
      return c && m ? [{ c, m }] : [];
    });
  });
  const n = (v: number) => figure(v, Math.abs(v) >= 1000 ? 0 : Math.abs(v) >= 100 ? 1 : 2);
</script>

<Sheet title={say('Between two cursors')} wide>
  {#snippet head()}
    {#if view.selection}<Button look="quiet" onclick={() => (view.range = view.selection)}>{say('Zoom to it')}</Button>
      <Button look="quiet" onclick={() => view.toggle('table')}>{say('Table')}</Button>
      <Button look="quiet" onclick={() => (view.a = view.b = undefined)}>{say('Cursors away')}</Button>{/if}
  {/snippet}
  {#if view.a === undefined || view.b === undefined}
    <p class="px-1 text-soft">
      {say(
        'Drag over the lanes from one moment to another. With the trace in focus, the keys a and b put the cursors at the playhead.'
      )}
    </p>
  {:else}
    <p class="px-1 font-mono text-[13px] tabular-nums" data-testid="measured">
      A {(view.a / 1e6).toFixed(3)} s · B {(view.b / 1e6).toFixed(3)} s · Δ {((view.b - view.a) / 1e6).toFixed(3)} s{#if view.a !== view.b}&nbsp;·
        {(1e6 / Math.abs(view.b - view.a)).toFixed(2)} Hz{/if}
    </p>
    <Table class="mt-1 text-[12.5px]" data-testid="measures">
      <thead class="text-right text-[11.5px] text-soft">
        <tr
          ><th class="px-1 text-left font-semibold">{say('Lane')}</th><th class="px-1 font-semibold">A</th><th
            class="px-1 font-semibold">B</th
          ><th class="px-1 font-semibold">{say('difference')}</th><th class="px-1 font-semibold">{say('slope')} /s</th
          ><th class="px-1 font-semibold">{say('mean')}</th><th class="px-1 font-semibold">{say('smallest')}</th><th
            class="px-1 font-semibold">{say('largest')}</th
          ><th class="px-1 font-semibold">{say('area')} ·s</th></tr
        >
      </thead>
      <tbody>
        {#each rows as { c, m } (c.key)}
          <tr class="border-t border-rule text-right font-mono" data-key={c.key}
            ><td class="px-1 text-left font-sans">{retell(c.title)} <small class="text-soft">{c.unit}</small></td><td
              class="px-1">{reading(c.key, m.a, 2)}</td
            ><td class="px-1">{reading(c.key, m.b, 2)}</td><td class="px-1">{n(m.difference)}</td><td class="px-1"
              >{n(m.slope)}</td
            ><td class="px-1">{n(m.mean)}</td><td class="px-1">{n(m.smallest)}</td><td class="px-1">{n(m.largest)}</td
            ><td class="px-1">{n(m.area)}</td></tr
          >
        {/each}
      </tbody>
    </Table>
  {/if}
</Sheet>
