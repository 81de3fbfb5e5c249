<script lang="ts">
  import { ICONS } from '../ui/icons.ts';
  import type { Bar } from './thumb.ts';
  let { bars }: { bars: Bar[] } = $props();
  const tidy = (v: number): number => Math.round(v * 10) / 10;
  const HEIGHT = 11.4;
  const STEP = 12.4;
  const STEM = 12;
  type Placed = Bar & {
    x: number;
    y: number;
    wide: number;
    labels: { x: number; wide: number; text: string }[];
    face?: { x: number; d: string };
  };
  /** one behind the other: the numbers, then what is lit of a picture */
  function place(bar: Bar, i: number): Placed {
    const x = 10 + bar.indent * 9;
    const y = tidy(7 + i * STEP);
    let at = x + STEM + 8;
    const labels = (bar.figures ?? []).map((text) => {
      const one = { x: tidy(at), wide: tidy(7 + text.length * 4.6), text };
      at += one.wide + 6;
      return one;
    });
    const rows = bar.picture?.split(' ') ?? [];
    const d = rows
      .flatMap((row, r) =>
        [...row].flatMap((c, k) =>
          c === '.' ? [] : [`M${tidy(at + 2 + k * 1.7)} ${tidy(y + 1.4 + r * 1.7)}h1.4v1.4h-1.4z`]
        )
      )
      .join('');
    if (rows.length) at += 24;
    return {
      ...bar,
      x,
      y,
      wide: Math.max(bar.width, at - x),
      labels,
      ...(rows.length ? { face: { x: at - 24, d } } : {})
    };
  }
  const placed = $derived(bars.map(place));
</script>

<svg
  class="block h-[112px] w-full border-b border-rule bg-paper"
  viewBox="0 0 210 112"
  preserveAspectRatio="xMinYMin slice"
  aria-hidden="true"
>
  {#each placed as p, i (i)}<g opacity={p.faded ? 0.4 : 1} fill="var(--{p.family})"
      ><rect x={p.x} y={p.y} width={p.wide} height={HEIGHT} rx="2" opacity="0.14" /><path
        d="M{p.x + 2} {p.y}h{STEM - 2}v{HEIGHT}h-{STEM - 2}q-2 0 -2 -2v-{HEIGHT - 4}q0 -2 2 -2z"
      />{#if p.section}<g
          transform="translate({p.x + 1.9} {tidy(p.y + 1.6)}) scale(0.34)"
          fill="none"
          stroke="var(--card)"
          stroke-width="2.6"
          stroke-linecap="round"
          stroke-linejoin="round">{@html ICONS[p.section]}</g
        >{/if}{#each p.labels as l, k (k)}<path
          d="M{l.x} {tidy(p.y + 1.6)}h{tidy(l.wide - 3)}l3 4.1l-3 4.1h-{tidy(l.wide - 3)}z"
          fill="var(--card)"
        /><text x={tidy(l.x + 2.4)} y={tidy(p.y + 8.4)} font-size="7.4" font-weight="650" fill="var(--ink)"
          >{l.text}</text
        >{/each}{#if p.face}<rect
          x={p.face.x}
          y={tidy(p.y + 0.6)}
          width="16"
          height="10.2"
          rx="1.5"
          fill="#26352c"
        /><path d={p.face.d} fill="#ffcf5a" />{/if}</g
    >{/each}
</svg>
