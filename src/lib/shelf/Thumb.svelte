<script lang="ts">
  import type { Bar } from './thumb.ts';
  let { bars }: { bars: Bar[] } = $props();
</script>

<svg
  class="block h-[112px] w-full border-b border-rule bg-paper"
  viewBox="0 0 210 112"
  preserveAspectRatio="xMinYMin slice"
  aria-hidden="true"
>
  {#each bars as bar, i (i)}
    <g opacity={bar.faded ? 0.4 : 1} style="color: var(--{bar.family})">
      <rect
        x={12 + bar.indent * 8}
        y={8 + i * 11.6}
        width={bar.width}
        height="10.6"
        rx="2"
        fill="currentColor"
        opacity="0.16"
      />
      <rect x={12 + bar.indent * 8} y={8 + i * 11.6} width="6" height="10.6" rx="2" fill="currentColor" />
    </g>
  {/each}
</svg>
