<!-- Where will it stop? A place on the mat is pointed at, with the pointer or with the arrows; then the run decides. -->
<script lang="ts">
  import { hasWheels } from '../../../../core/kit/kit.ts';
  import type { Piece } from '../../../../core/lesson/page.ts';
  import { stateAt } from '../../../../core/trace/query.ts';
  import { endUs } from '../../../../core/trace/trace.ts';
  import { say } from '../../../../core/words.ts';
  import Button from '../../ui/Button.svelte';
  import DeviceShape from '../../ui/DeviceShape.svelte';
  import Remark from '../../ui/Remark.svelte';
  import MatShape from '../../workbench/yard/MatShape.svelte';
  import Program from '../Program.svelte';
  import Prose from '../Prose.svelte';
  import Went from '../Went.svelte';
  import { useRoom, type Ran } from '../room.svelte.ts';
  let { piece }: { piece: Piece } = $props();
  const room = useRoom();
  const project = $derived(room.lesson.programs[piece.names[0]]);
  const mat = $derived(project.mat);
  const start = $derived(project.start ?? mat.start);
  const answer = $derived(room.answers[piece.key]);
  const given = $derived(answer && 'x' in answer ? answer : undefined);
  let put = $state.raw<{ x: number; y: number }>();
  const at = $derived(given ?? put);
  let ran = $state.raw<Ran>();
  $effect(() => {
    if (given) void room.run(project).then((r) => (ran = r));
  });
  const off = $derived.by(() => {
    if (!ran || !given) return undefined;
    const { x, y } = stateAt(ran.trace, endUs(ran.trace));
    return (Math.hypot(x - given.x, y - given.y) * 100).toFixed(1);
  });
  const inside = (v: number, most: number) => Math.min(most, Math.max(0, v));
  function point(event: PointerEvent & { currentTarget: SVGSVGElement }) {
    const p = new DOMPoint(event.clientX, event.clientY).matrixTransform(event.currentTarget.getScreenCTM()!.inverse());
    put = { x: inside(p.x / 100, mat.width), y: inside(mat.height - p.y / 100, mat.height) };
  }
  const STEP = 0.02;
  const MOVES: Record<string, [number, number]> = {
    ArrowLeft: [-STEP, 0],
    ArrowRight: [STEP, 0],
    ArrowUp: [0, STEP],
    ArrowDown: [0, -STEP]
  };
  function keys(event: KeyboardEvent) {
    const move = MOVES[event.key];
    if (!move) return;
    event.preventDefault();
    event.stopPropagation();
    const from = put ?? start;
    put = { x: inside(from.x + move[0], mat.width), y: inside(from.y + move[1], mat.height) };
  }
</script>

{#snippet guess()}
  {#if at}<g transform="translate({at.x * 100} {(mat.height - at.y) * 100})" data-testid="pointed">
      <circle r="3.2" fill="#1f7a8c" fill-opacity="0.18" stroke="#1f7a8c" stroke-width="0.6" />
      <path d="M-5 0H5M0 -5V5" stroke="#1f7a8c" stroke-width="0.5" />
    </g>{/if}
{/snippet}

<section class="rounded-lg border-l-4 border-brass bg-paper px-4 py-3" data-testid="place">
  <Prose markdown={piece.markdown} />
  <div class="my-2"><Program {project} runs={false} /></div>
  {#if !hasWheels(project.kit)}<Remark>{say('This device does not drive: it stops nowhere.')}</Remark>
  {:else if given && ran}
    <Went {project} {ran} over={guess} />
    <Remark tone="calm" role="status">{say('It stopped {off} cm from where you said.', { off: off ?? '' })}</Remark>
  {:else}
    <!-- svelte-ignore a11y_no_noninteractive_tabindex, a11y_no_noninteractive_element_interactions -->
    <svg
      viewBox="-1 -1 {mat.width * 100 + 2} {mat.height * 100 + 2}"
      class="max-h-[300px] w-full cursor-crosshair touch-none rounded-md border border-rule"
      role="application"
      tabindex="0"
      aria-label={say('The mat: point at the place, or move the mark with the arrows')}
      onpointerdown={point}
      onpointermove={(e) => e.buttons && point(e)}
      onkeydown={keys}
    >
      <MatShape {mat} />
      <g transform="translate({start.x * 100} {(mat.height - start.y) * 100}) rotate({start.facingDeg - 90}) scale(0.1)"
        ><DeviceShape kit={project.kit} /></g
      >
      {@render guess()}
    </svg>
    <Button class="mt-2" look="go" disabled={!put} onclick={() => put && room.answer(piece.key, put)}
      >{say('That is my guess')}</Button
    >
  {/if}
</section>
