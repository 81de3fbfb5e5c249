<!-- The numbers that were tried for one slot: each pupil a line from try to try; a dot is a try that met all goals, a cross one that did not. -->
<script lang="ts">
  import { scaleLinear } from 'd3-scale';
  import { line } from 'd3-shape';
  import { say } from '../../../core/words.ts';
  import type { ClassShows } from './class.ts';
  import { markOf } from './marks.ts';
  let { slot, hidden }: { slot: ClassShows['slots'][number]; hidden: boolean } = $props();
  const WIDE = 560;
  const HIGH = 220;
  const LEFT = 40;
  const BELOW = 26;
  const all = $derived(slot.series.flatMap((s) => s.points));
  const most = $derived(Math.max(2, ...slot.series.map((s) => s.points.length)));
  const x = $derived(scaleLinear([1, most], [LEFT + 12, WIDE - 12]));
  const y = $derived(
    scaleLinear([Math.min(...all.map((p) => p.value)), Math.max(...all.map((p) => p.value))], [HIGH - BELOW, 10]).nice()
  );
  const path = $derived(
    line<{ value: number }>(
      (_, i) => x(i + 1),
      (p) => y(p.value)
    )
  );
  let over = $state<string>();
</script>

<svg
  viewBox="0 0 {WIDE} {HIGH}"
  class="w-full"
  role="img"
  aria-label={say('{n} values tried by {m} pupils, from {from} to {to}', {
    n: new Set(all.map((p) => p.value)).size,
    m: slot.series.length,
    from: Math.min(...all.map((p) => p.value)),
    to: Math.max(...all.map((p) => p.value))
  })}
  data-testid="tried"
>
  <g font-size="11" fill="var(--soft)" class="tabular-nums">
    {#each y.ticks(5) as tick (tick)}<line x1={LEFT} x2={WIDE} y1={y(tick)} y2={y(tick)} stroke="var(--rule)" /><text
        x={LEFT - 6}
        y={y(tick) + 4}
        text-anchor="end">{tick}</text
      >{/each}
    {#each x.ticks(Math.min(most, 10)).filter(Number.isInteger) as tick (tick)}<text
        x={x(tick)}
        y={HIGH - 8}
        text-anchor="middle">{tick}</text
      >{/each}
    <text x={LEFT - 6} y={HIGH - 8} text-anchor="end">{say('try')}</text>
  </g>
  {#each slot.series as s (s.nickname)}
    <g
      role="presentation"
      onpointerenter={() => (over = s.nickname)}
      onpointerleave={() => (over = undefined)}
      opacity={over && over !== s.nickname ? 0.2 : 1}
    >
      <path
        d={path(s.points)}
        fill="none"
        stroke="var(--soft)"
        stroke-width={over === s.nickname ? 2.5 : 1.2}
        stroke-opacity="0.6"
      />
      {#each s.points as p, i (i)}<path
          d={markOf(p.met, 4.5)}
          transform="translate({x(i + 1)} {y(p.value)})"
          data-met={p.met}
          fill={p.met ? 'var(--moss)' : 'none'}
          stroke={p.met ? 'var(--moss)' : 'var(--clay)'}
          stroke-width="1.8"
          ><title
            >{say('{name}, try {n}: {value}', { name: hidden ? '…' : s.nickname, n: i + 1, value: p.value })}{p.met
              ? ` · ${say('all goals met')}`
              : ''}</title
          ></path
        >{/each}
      {#if over === s.nickname && !hidden}<text
          x={Math.min(x(s.points.length) + 8, WIDE - 60)}
          y={y(s.points.at(-1)!.value) - 8}
          font-size="12"
          font-weight="650"
          fill="var(--ink)">{s.nickname}</text
        >{/if}
    </g>
  {/each}
</svg>
<p class="text-[12.5px] text-soft">{say('a dot: all goals met; a cross: not yet')}</p>
