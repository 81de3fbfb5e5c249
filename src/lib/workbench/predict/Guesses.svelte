<!-- Guesses on the mat: the one that is being made can be dragged and turned; those of a run that is over stand beside it. -->
<script lang="ts">
  import { say } from '../../../../core/words.ts';
  import type { Pose } from '../../../../core/yard/mat.ts';
  import { byKey } from '../yard/hold.svelte.ts';
  import { useWorkbench } from '../workbench.svelte.ts';
  let { at, height: H }: { at: (e: PointerEvent) => { x: number; y: number }; height: number } = $props();
  const w = useWorkbench();
  const { runs, predict } = w;
  const run = $derived(runs.run && runs.run.version >= 0 && runs.run.trace.ended ? runs.run : undefined);
  const put = $derived(
    predict.open
      ? (run?.predictions.length && !predict.place ? run.predictions : predict.list).filter((p) => p.place)
      : []
  );
  let grab: { kind: 'move' | 'turn'; dx: number; dy: number } | undefined;
  function down(event: PointerEvent, kind: 'move' | 'turn') {
    if (!predict.place) return;
    event.stopPropagation();
    (event.currentTarget as Element).setPointerCapture(event.pointerId);
    const p = at(event);
    grab = { kind, dx: predict.place.x - p.x, dy: predict.place.y - p.y };
  }
  function move(event: PointerEvent) {
    if (!grab || !predict.place) return;
    const p = at(event);
    predict.place =
      grab.kind === 'move'
        ? { ...predict.place, x: p.x + grab.dx, y: p.y + grab.dy }
        : {
            ...predict.place,
            facingDeg: round((450 - (Math.atan2(p.y - predict.place.y, p.x - predict.place.x) * 180) / Math.PI) % 360)
          };
  }
  const round = (deg: number) => (Math.round(deg / 5) * 5) % 360;
  function keys(event: KeyboardEvent) {
    const moved = predict.place && byKey(predict.place, event);
    if (moved) predict.place = { ...moved, facingDeg: (moved.facingDeg + 360) % 360 };
  }
</script>

{#snippet shape(p: Pose)}
  <g transform="translate({p.x * 100} {(H - p.y) * 100}) rotate({p.facingDeg - 90})">
    <rect
      x="-8.5"
      y="-5.2"
      width="15"
      height="10.4"
      rx="2"
      fill="#1f7a8c"
      fill-opacity="0.14"
      stroke="#1f7a8c"
      stroke-width="0.45"
      stroke-dasharray="1.2 0.8"
    />
    <path d="M3.2 -2L5.8 0L3.2 2" fill="none" stroke="#1f7a8c" stroke-width="0.7" stroke-linecap="round" />
  </g>
{/snippet}
{#each put as p, i (i)}
  {@render shape(p.place!)}
  <text x={p.place!.x * 100} y={(H - p.place!.y) * 100 - 6.5} text-anchor="middle" font-size="4" fill="#1b7080"
    >{p.who}</text
  >
{/each}
{#if predict.open && predict.place}
  <!-- svelte-ignore a11y_no_noninteractive_tabindex, a11y_no_noninteractive_element_interactions -->
  <g
    class="mb-grab cursor-grab"
    role="img"
    tabindex="0"
    aria-label={say('Where it will stop: arrows move it, square brackets turn it')}
    onpointerdown={(e) => down(e, 'move')}
    onpointermove={move}
    onpointerup={() => (grab = undefined)}
    onkeydown={keys}
    data-testid="guess"
    data-x={predict.place.x.toFixed(3)}
    data-y={predict.place.y.toFixed(3)}
    data-facing={predict.place.facingDeg}
  >
    {@render shape(predict.place)}
  </g>
  <!-- svelte-ignore a11y_no_static_element_interactions -->
  <circle
    class="mb-grab cursor-alias"
    cx={predict.place.x * 100 + 13 * Math.sin((predict.place.facingDeg * Math.PI) / 180)}
    cy={(H - predict.place.y) * 100 - 13 * Math.cos((predict.place.facingDeg * Math.PI) / 180)}
    r="2.2"
    fill="#fbfaf5"
    stroke="#1f7a8c"
    stroke-width="0.6"
    onpointerdown={(e) => down(e, 'turn')}
    onpointermove={move}
    onpointerup={() => (grab = undefined)}
    data-testid="guess-turn"
  />
{/if}
