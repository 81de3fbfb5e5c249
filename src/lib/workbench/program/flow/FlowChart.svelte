<!-- One chart, drawn with the symbols of ISO 5807. -->
<script lang="ts">
  import { say } from '../../../../../core/words.ts';
  import { catalogue, familyOf } from '../../../../../core/language/catalogue.ts';
  import { allSteps, type Program } from '../../../../../core/language/program.ts';
  import type { Placed } from './layout.ts';
  let {
    placed,
    program,
    lit = [],
    selected,
    pointed,
    scale,
    onchoose = () => {},
    onpoint = () => {}
  }: {
    placed: Placed;
    program: Program;
    lit?: readonly string[];
    selected?: string;
    pointed?: string;
    /** px of the screen for one of the chart; without it the chart takes the room that there is */
    scale?: number;
    onchoose?: (block: string) => void;
    onpoint?: (block: string | undefined) => void;
  } = $props();
  const kinds = $derived(new Map([...allSteps(program)].map((s) => [s.id, s.kind])));
  const colour = (block: string | undefined): string => {
    const def = catalogue.get(kinds.get(block ?? '') ?? '');
    return `var(--${def ? familyOf(def) : 'order'})`;
  };
  const shape = (n: Placed['nodes'][number]): string => {
    const { x, y, width: w, height: h } = n;
    if (n.kind === 'decision')
      return `M${x + w / 2},${y}L${x + w},${y + h / 2}L${x + w / 2},${y + h}L${x},${y + h / 2}Z`;
    const r = n.kind === 'terminator' ? h / 2 : n.kind === 'junction' ? 6 : 2;
    return `M${x + r},${y}H${x + w - r}a${r},${r} 0 0 1 ${r},${r}V${y + h - r}a${r},${r} 0 0 1 ${-r},${r}H${x + r}a${r},${r} 0 0 1 ${-r},${-r}V${y + r}a${r},${r} 0 0 1 ${r},${-r}Z`;
  };
</script>

<svg
  viewBox="-8 -8 {placed.width + 16} {placed.height + 16}"
  width={placed.width + 16}
  height={placed.height + 16}
  class="mb-flow max-w-none shrink-0"
  style="width: {scale
    ? `${(placed.width + 16) * scale}px`
    : `clamp(${(placed.width + 16) * 0.72}px, 100%, ${placed.width + 16}px)`}; height: auto"
  role="group"
  aria-label={say('Flow chart: {title}', { title: placed.flow.title })}
  data-testid="flow"
>
  <defs>
    <marker
      id="arrow-{placed.flow.id}"
      viewBox="0 0 8 8"
      refX="7"
      refY="4"
      markerWidth="8"
      markerHeight="8"
      orient="auto-start-reverse"
    >
      <path d="M0,0.5L7.5,4L0,7.5Z" fill="var(--soft)" />
    </marker>
  </defs>
  {#each placed.edges as edge, i (i)}
    <path d={edge.path} fill="none" stroke="var(--soft)" stroke-width="1.5" marker-end="url(#arrow-{placed.flow.id})" />
    {#if edge.label}<text x={edge.label.x} y={edge.label.y} class="label">{edge.label.text}</text>{/if}
  {/each}
  {#each placed.nodes as n (n.id)}
    <!-- svelte-ignore a11y_no_noninteractive_tabindex -->
    <g
      class="node {n.block && lit.includes(n.block) ? 'lit' : ''} {n.block && n.block === selected
        ? 'chosen'
        : ''} {n.block && n.block === pointed ? 'pointed' : ''}"
      style="--c: {colour(n.block)}"
      role={n.block && n.kind !== 'junction' ? 'button' : 'presentation'}
      tabindex={n.block && n.kind !== 'junction' ? 0 : undefined}
      aria-label={n.text || undefined}
      data-block={n.block}
      data-kind={n.kind}
      onclick={() => n.block && onchoose(n.block)}
      onkeydown={(e) => {
        if ((e.key === 'Enter' || e.key === ' ') && n.block) {
          e.preventDefault();
          onchoose(n.block);
        }
      }}
      onpointerenter={() => onpoint(n.block)}
      onpointerleave={() => onpoint(undefined)}
    >
      <path d={shape(n)} />
      {#if n.kind === 'routine'}<path
          class="bars"
          d="M{n.x + 7},{n.y}v{n.height}M{n.x + n.width - 7},{n.y}v{n.height}"
        />{/if}
      {#if n.kind === 'table'}
        {#each n.lines as _, i (i)}{#if i > 0}<path
              class="bars"
              d="M{n.x + 6},{n.y + n.height / 2 + (i - n.lines.length / 2) * 17}h{n.width - 6}"
            />{/if}{/each}
        <path class="bars" d="M{n.x + 6},{n.y}v{n.height}" />
      {/if}
      {#each n.lines as line, i (i)}
        <text
          x={n.x + n.width / 2}
          y={n.y + n.height / 2 - ((n.lines.length - 1) * 17) / 2 + i * 17 + 4.5}
          text-anchor="middle">{line}</text
        >
      {/each}
    </g>
  {/each}
</svg>

<style>
  .mb-flow text {
    font: 500 13px var(--font-sans);
    fill: var(--ink);
    pointer-events: none;
  }
  .mb-flow .label {
    font-weight: 650;
    font-size: 12px;
    fill: var(--soft);
  }
  .node > path:first-child {
    fill: color-mix(in srgb, var(--c) 9%, var(--card));
    stroke: var(--c);
    stroke-width: 1.5;
  }
  .node .bars {
    fill: none;
    stroke: var(--c);
    stroke-width: 1.2;
  }
  .node[role='button'] {
    cursor: pointer;
    outline: none;
  }
  .node:focus-visible > path:first-child,
  .pointed > path:first-child {
    stroke: var(--water);
    stroke-width: 2.6;
  }
  .chosen > path:first-child {
    stroke-width: 3;
  }
  .lit > path:first-child {
    stroke: #b5842a;
    stroke-width: 3.4;
    fill: color-mix(in srgb, #b5842a 20%, var(--card));
  }
</style>
