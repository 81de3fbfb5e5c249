<!-- A mat with the device at its start: a place on it is pointed at, with the pointer or with the arrows. -->
<script lang="ts">
  import type { Project } from '../../../core/project.ts';
  import { say } from '../../../core/words.ts';
  import MatShape from '../workbench/yard/MatShape.svelte';
  import DeviceShape from './DeviceShape.svelte';
  import PlaceMark from './PlaceMark.svelte';
  let { project, put = $bindable() }: { project: Project; /** m */ put: { x: number; y: number } | undefined } =
    $props();
  const mat = $derived(project.mat);
  const start = $derived(project.start ?? mat.start);
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
  {#if put}<PlaceMark {mat} at={put} />{/if}
</svg>
