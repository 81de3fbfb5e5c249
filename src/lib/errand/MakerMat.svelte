<!-- The mat of an errand that is made: the way of the model, the rings of the goals, hoops that can be dragged. A click lays a hoop. -->
<script lang="ts">
  import { goalDraws } from '../../../core/errand/goals.ts';
  import { goalsOf } from '../../../core/errand/making.ts';
  import { HOOP, freeName } from '../../../core/errand/suggest.ts';
  import type { Project } from '../../../core/project.ts';
  import { stateAt } from '../../../core/trace/query.ts';
  import { say } from '../../../core/words.ts';
  import DeviceShape from '../ui/DeviceShape.svelte';
  import MatShape from '../workbench/yard/MatShape.svelte';
  import { trail } from '../workbench/yard/trail.ts';
  import type { Maker } from './maker.svelte.ts';
  let { maker, project, nowUs }: { maker: Maker; project: Project; nowUs: number } = $props();
  const mat = $derived(maker.making.mat);
  const H = $derived(mat.height);
  const trace = $derived(maker.traces[0]);
  const at = $derived(trace ? stateAt(trace, nowUs) : { ...(project.start ?? mat.start), lamps: {}, picture: '' });
  const result = (i: number) => maker.verdicts[0]?.results[i]?.state ?? 'open';
  let svg: SVGSVGElement;
  let grabbed: string | undefined;
  function place(e: PointerEvent) {
    const p = new DOMPoint(e.clientX, e.clientY).matrixTransform(svg.getScreenCTM()!.inverse());
    const tidy = (v: number, most: number) => Math.round(Math.min(most, Math.max(0, v)) * 1000) / 1000;
    return { x: tidy(p.x / 100, mat.width), y: tidy(H - p.y / 100, H) };
  }
  function down(e: PointerEvent) {
    const { x, y } = place(e);
    // the one that lies on top
    const hoop = mat.hoops.findLast((h) => Math.hypot(h.x - x, h.y - y) <= h.radius);
    if (hoop) {
      grabbed = hoop.name;
      svg.setPointerCapture(e.pointerId);
      return;
    }
    const name = freeName(mat, say('goal'));
    maker.take({ goal: { kind: 'pass', hoop: name, within: 0 }, hoop: { x, y, radius: HOOP, name } });
  }
  function move(e: PointerEvent) {
    if (!grabbed) return;
    const { x, y } = place(e);
    maker.moveHoop(grabbed, x, y);
  }
  const STEP = 0.01;
  const MOVES: Record<string, [number, number]> = {
    ArrowLeft: [-STEP, 0],
    ArrowRight: [STEP, 0],
    ArrowUp: [0, STEP],
    ArrowDown: [0, -STEP]
  };
</script>

<svg
  bind:this={svg}
  viewBox="-1 -1 {mat.width * 100 + 2} {H * 100 + 2}"
  class="max-h-full w-full cursor-crosshair touch-none"
  role="group"
  aria-label={say('The mat: a click lays a hoop, hoops can be dragged')}
  onpointerdown={down}
  onpointermove={move}
  onpointerup={() => (grabbed = undefined)}
  data-testid="maker-mat"
>
  <MatShape {mat} />
  {#if trace}<polyline points={trail(trace, nowUs, H)} fill="none" stroke="#b5842a" stroke-width="0.9" />{/if}
  {#each goalsOf(maker.making.rows) as goal, i (i)}{#each goalDraws(goal, mat) as ring, k (k)}<circle
        class="goal-ring {ring.door ? 'door' : result(i)}"
        cx={ring.x * 100}
        cy={(H - ring.y) * 100}
        r={ring.radius * 100}
      />{/each}{/each}
  {#each mat.hoops as hoop (hoop.name)}
    <!-- svelte-ignore a11y_no_noninteractive_tabindex, a11y_no_noninteractive_element_interactions -->
    <circle
      cx={hoop.x * 100}
      cy={(H - hoop.y) * 100}
      r={hoop.radius * 100}
      fill="transparent"
      class="cursor-grab"
      role="img"
      tabindex="0"
      aria-label={say('Hoop {name}: arrows move it', { name: hoop.name })}
      data-hoop={hoop.name}
      onkeydown={(e) => {
        const by = MOVES[e.key];
        if (!by) return;
        e.preventDefault();
        maker.moveHoop(
          hoop.name,
          Math.round((hoop.x + by[0]) * 1000) / 1000,
          Math.round((hoop.y + by[1]) * 1000) / 1000
        );
      }}
    />
  {/each}
  <g transform="translate({at.x * 100} {(H - at.y) * 100}) rotate({at.facingDeg - 90}) scale(0.1)" pointer-events="none"
    ><DeviceShape kit={project.kit} lamps={at.lamps} picture={at.picture} /></g
  >
</svg>
