<!-- The mat on paper: at 1 to 1 on several sheets of A4 with join marks, or as a map with a scale bar. -->
<script lang="ts">
  import OneOf from '../../../../../lib/ui/OneOf.svelte';
  import Button from '../../../../../lib/ui/Button.svelte';
  import { say } from '../../../../../../core/words.ts';
  import MatShape from '$lib/workbench/yard/MatShape.svelte';
  import { useWorkbench } from '$lib/workbench/workbench.svelte.ts';
  const bench = useWorkbench();
  const mat = $derived(bench.session.project.mat);
  let whole = $state(true);
  /** what of a sheet of A4 carries the mat, mm */
  const [W, H] = [180, 250];
  const [mw, mh] = $derived([mat.width * 1000, mat.height * 1000]);
  const columns = $derived(Math.ceil(mw / W));
  const rows = $derived(Math.ceil(mh / H));
  const sheets = $derived(
    Array.from({ length: rows * columns }, (_, i) => ({ column: i % columns, row: Math.floor(i / columns) }))
  );
  const name = (column: number, row: number) => `${String.fromCharCode(65 + row)}${column + 1}`;
  const scale = $derived(Math.min(180 / mw, 230 / mh));
  /** a round length for the bar of the map, mm of the yard */
  const bar = $derived([50, 100, 200, 500, 1000].findLast((l) => l * scale <= 60) ?? 50);
  const walls = $derived({ ...mat, things: [] });
</script>

<svelte:head><title>{say('{name}, on paper', { name: mat.name })}</title></svelte:head>
<div class="print-page h-full overflow-auto bg-white text-black">
  <div class="no-print flex items-center gap-3 border-b border-[#d9dccb] bg-[#f1f0e6] px-4 py-2">
    <b>{mat.name}</b>
    <OneOf name="whole" bind:group={whole} value={true}
      >{say('1 to 1, {n, plural, one {# sheet} other {# sheets}} of A4', { n: sheets.length })}</OneOf
    >
    <OneOf name="whole" bind:group={whole} value={false}>{say('a map on one sheet')}</OneOf>
    <Button look="go" onclick={() => window.print()}>{say('Print')}</Button>
    <span class="text-[#5c6a60]"
      >{say('Print at 100 %, without "fit to page". The bar of 10 cm on each sheet tells whether it is true.')}</span
    >
  </div>
  {#if whole}
    {#each sheets as s (name(s.column, s.row))}
      <section class="sheet" data-testid="sheet">
        <svg style="width: {W}mm; height: {H}mm" viewBox="{(s.column * W) / 10} {(s.row * H) / 10} {W / 10} {H / 10}">
          <MatShape mat={walls} />
          {#each [[0, 0], [1, 0], [0, 1], [1, 1]] as [x, y] (`${x}${y}`)}
            <path
              d="M{((s.column + x) * W) / 10 - 0.8} {((s.row + y) * H) / 10}h1.6m-.8 -.8v1.6"
              stroke="#000"
              stroke-width="0.03"
              fill="none"
            />
          {/each}
        </svg>
        <footer>
          <b>{mat.name} · {name(s.column, s.row)}</b>
          <span
            >{say('joins {list}', {
              list: [
                ...(s.column > 0 ? [name(s.column - 1, s.row)] : []),
                ...(s.column < columns - 1 ? [name(s.column + 1, s.row)] : []),
                ...(s.row > 0 ? [name(s.column, s.row - 1)] : []),
                ...(s.row < rows - 1 ? [name(s.column, s.row + 1)] : [])
              ].join(', ')
            })}</span
          >
          <svg style="width: 102mm; height: 6mm" viewBox="0 0 102 6"
            ><path d="M1 1V5M101 1V5M1 3H101" stroke="#000" stroke-width=".4" /><text
              x="51"
              y="2.4"
              font-size="2.6"
              text-anchor="middle">10 cm</text
            ></svg
          >
        </footer>
      </section>
    {/each}
  {:else}
    <section class="sheet" data-testid="map">
      <h1 class="text-[22px]">{mat.name}</h1>
      <svg style="width: {mw * scale}mm; height: {mh * scale}mm" viewBox="-0.5 -0.5 {mw / 10 + 1} {mh / 10 + 1}"
        ><MatShape {mat} /></svg
      >
      <footer>
        <span>{say('1 to {n}', { n: Math.round(1 / scale) })} · {mat.width * 100} × {mat.height * 100} cm</span>
        <svg style="width: {bar * scale + 2}mm; height: 6mm" viewBox="0 0 {bar * scale + 2} 6"
          ><path d="M1 1V5M{bar * scale + 1} 1V5M1 3H{bar * scale + 1}" stroke="#000" stroke-width=".4" /><text
            x={(bar * scale) / 2 + 1}
            y="2.4"
            font-size="2.6"
            text-anchor="middle">{bar / 10} cm</text
          ></svg
        >
      </footer>
    </section>
  {/if}
</div>

<style>
  .sheet {
    width: 190mm;
    margin: 6mm auto;
    break-after: page;
  }
  .sheet footer {
    display: flex;
    align-items: center;
    justify-content: space-between;
    gap: 4mm;
    margin-top: 2mm;
    font-size: 10pt;
  }
  @media print {
    .no-print {
      display: none;
    }
    .print-page {
      overflow: visible;
      height: auto;
    }
    .sheet {
      margin: 0 auto;
    }
  }
  @page {
    size: A4;
    margin: 10mm;
  }
</style>
