<script lang="ts">
  import type { Bar } from './thumb.ts';
  let { bars }: { bars: Bar[] } = $props();
  const HEIGHT = 10.6;
  /** one path a colour: a shelf has many pictures */
  const paths = $derived.by(() => {
    const found = new Map<string, { family: string; faded: boolean; body: string; stem: string }>();
    bars.forEach(({ family, faded, indent, width }, i) => {
      const key = `${family} ${faded}`;
      let one = found.get(key);
      if (!one) found.set(key, (one = { family, faded, body: '', stem: '' }));
      const at = `M${12 + indent * 8} ${(8 + i * 11.6).toFixed(1)}`;
      one.body += `${at}h${Math.round(width)}v${HEIGHT}h-${Math.round(width)}z`;
      one.stem += `${at}h6v${HEIGHT}h-6z`;
    });
    return [...found.values()];
  });
</script>

<svg
  class="block h-[112px] w-full border-b border-rule bg-paper"
  viewBox="0 0 210 112"
  preserveAspectRatio="xMinYMin slice"
  aria-hidden="true"
>
  {#each paths as p, i (i)}<g opacity={p.faded ? 0.4 : 1} fill="var(--{p.family})"
      ><path d={p.body} opacity="0.16" /><path d={p.stem} /></g
    >{/each}
</svg>
