<script lang="ts">
  import { measure, type Line } from './ruler.svelte.ts';
  let { line, height }: { line: Line; height: number } = $props();
  const m = $derived(measure(line));
  const ends = $derived([line.from, line.to].map((p) => ({ x: p.x * 100, y: (height - p.y) * 100 })));
</script>

<g data-testid="ruler" data-cm={m.cm.toFixed(2)} data-deg={m.deg.toFixed(1)}>
  <path d="M{ends[0].x} {ends[0].y}L{ends[1].x} {ends[1].y}" stroke="#1b7080" stroke-width="0.5" />
  {#each ends as p, i (i)}<circle cx={p.x} cy={p.y} r="0.8" fill="#fbfaf5" stroke="#1b7080" stroke-width="0.4" />{/each}
  <text
    x={(ends[0].x + ends[1].x) / 2}
    y={(ends[0].y + ends[1].y) / 2 - 1.6}
    text-anchor="middle"
    font-size="3.2"
    font-weight="700"
    fill="#10535f"
    stroke="#fbfaf5"
    stroke-width="0.9"
    paint-order="stroke">{m.cm.toFixed(1)} cm · {m.deg.toFixed(0)}°</text
  >
</g>
