<!-- The mat to draw on: choose, drag, resize, turn; every gesture is shown at once and is one step of the history. -->
<script lang="ts">
  import { select } from 'd3-selection';
  import { zoom } from 'd3-zoom';
  import { onMount } from 'svelte';
  import { say } from '../../../core/words.ts';
  import type { Kit } from '../../../core/kit/kit.ts';
  import {
    boundsOf,
    changeItem,
    itemAt,
    KINDS,
    listOf,
    moveItems,
    removeItems,
    snapTo,
    type Item
  } from '../../../core/yard/matedit.ts';
  import DeviceShape from '../ui/DeviceShape.svelte';
  import MatShape from '../workbench/yard/MatShape.svelte';
  import type { MatEditor } from './editor.svelte.ts';
  let { editor: e, kit }: { editor: MatEditor; kit: Kit } = $props();
  let svg: SVGSVGElement;
  let world: SVGGElement;
  let transform = $state('');
  const mat = $derived(e.mat);
  const H = $derived(mat.height);
  type XY = [number, number];

  onMount(() => {
    select(svg).call(
      zoom<SVGSVGElement, unknown>()
        .scaleExtent([0.5, 20])
        .filter((ev: Event) => ev.type === 'wheel' || (ev as MouseEvent).button === 1 || (ev as MouseEvent).shiftKey)
        .on('zoom', (ev) => (transform = ev.transform.toString()))
    );
  });
  function at(event: PointerEvent): XY {
    const p = new DOMPoint(event.clientX, event.clientY).matrixTransform(world.getScreenCTM()!.inverse());
    return [p.x / 100, H - p.y / 100];
  }
  type Gesture =
    | { kind: 'move'; from: XY; anchor: XY }
    | { kind: 'draw'; from: XY; to: XY }
    | { kind: 'free'; points: XY[] }
    | { kind: 'corner'; item: Item; index: number }
    | { kind: 'radius'; item: Item }
    | { kind: 'size'; item: Item; sx: number; sy: number }
    | { kind: 'turn'; item: Item };
  let gesture = $state.raw<Gesture>();
  let pointer = $state.raw<XY>([0, 0]);

  function down(event: PointerEvent) {
    if (event.button !== 0 || (event.shiftKey && e.tool !== 'choose')) return;
    svg.setPointerCapture(event.pointerId);
    const raw = at(event);
    const p = e.snap(raw);
    const hit = (event.target as Element).closest('[data-item]')?.getAttribute('data-item');
    if (e.tool === 'choose') {
      const item = hit ? ((([kind, index]) => ({ kind, index: Number(index) }))(hit.split(':')) as Item) : undefined;
      if (!item || !e.isChosen(item) || event.ctrlKey || event.metaKey) e.choose(item, event.ctrlKey || event.metaKey);
      if (item) {
        const b = boundsOf(mat, e.chosen[0] ?? item);
        gesture = { kind: 'move', from: raw, anchor: [b.left, b.bottom] };
      }
    } else if (e.isDrawing) e.corner(p);
    else if (e.tool === 'free') gesture = { kind: 'free', points: [raw] };
    else if (e.tool === 'walls' || e.tool === 'arc') gesture = { kind: 'draw', from: p, to: p };
    else e.place(p);
  }
  function grab(event: PointerEvent, next: Gesture) {
    event.stopPropagation();
    svg.setPointerCapture(event.pointerId);
    gesture = next;
  }
  function move(event: PointerEvent) {
    const raw = at(event);
    pointer = e.snap(raw);
    const g = gesture;
    if (!g) return;
    // the draft is made anew from what was there when the gesture began
    e.draft = undefined;
    const base = e.mat;
    if (g.kind === 'move') {
      const [ax, ay] = g.anchor;
      const dx = snapTo(ax + raw[0] - g.from[0], e.grid) - ax;
      const dy = snapTo(ay + raw[1] - g.from[1], e.grid) - ay;
      if (Math.abs(raw[0] - g.from[0]) + Math.abs(raw[1] - g.from[1]) > 0.002)
        e.draft = moveItems(base, e.chosen, dx, dy);
    } else if (g.kind === 'draw') gesture = { ...g, to: pointer };
    else if (g.kind === 'free') gesture = { ...g, points: [...g.points, raw] };
    else if (g.kind === 'corner') {
      const points = itemAt(base, g.item)!.points!.map((p, i) => (i === g.index ? pointer : p));
      e.draft = changeItem(base, g.item, { points });
    } else if (g.kind === 'radius') {
      const one = itemAt(base, g.item)!;
      const r = Math.max(0.01, snapTo(Math.hypot(raw[0] - one.x!, raw[1] - one.y!), e.grid || 0.001));
      e.draft = changeItem(base, g.item, { radius: r });
    } else if (g.kind === 'size') {
      const w = base.walls[g.item.index];
      const a = ((w.turnDeg ?? 0) * Math.PI) / 180;
      const [c, s] = [Math.cos(a), Math.sin(a)];
      // the opposite corner stays where it is
      const fixed: XY = [
        w.x - (g.sx * w.width * c) / 2 + (g.sy * w.height * s) / 2,
        w.y - (g.sx * w.width * s) / 2 - (g.sy * w.height * c) / 2
      ];
      const [dx, dy] = [pointer[0] - fixed[0], pointer[1] - fixed[1]];
      const width = Math.max(0.004, g.sx * (dx * c + dy * s));
      const height = Math.max(0.004, g.sy * (-dx * s + dy * c));
      e.draft = changeItem(base, g.item, {
        x: snapTo(fixed[0] + (g.sx * width * c - g.sy * height * s) / 2, 0),
        y: snapTo(fixed[1] + (g.sx * width * s + g.sy * height * c) / 2, 0),
        width: snapTo(width, 0),
        height: snapTo(height, 0)
      });
    } else {
      const one = itemAt(base, g.item)!;
      const deg = (Math.atan2(raw[1] - one.y!, raw[0] - one.x!) * 180) / Math.PI;
      const five = event.shiftKey ? Math.round(deg) : Math.round(deg / 5) * 5;
      e.draft = changeItem(
        base,
        g.item,
        g.item.kind === 'start' ? { facingDeg: (((90 - five) % 360) + 360) % 360 } : { turnDeg: five }
      );
    }
  }
  function up() {
    const g = gesture;
    gesture = undefined;
    if (!g) return;
    if (g.kind === 'draw') {
      if (e.tool === 'walls') e.box(g.from, g.to);
      else e.arc(g.from, g.to);
    } else if (g.kind === 'free') e.free(g.points);
    else if (e.draft) {
      const labels = {
        move: say('move'),
        corner: say('move a corner'),
        radius: say('change the size'),
        size: say('change the size'),
        turn: say('turn')
      };
      e.change(labels[g.kind], e.draft);
    }
  }
  function keys(event: KeyboardEvent) {
    const step = event.shiftKey ? 0.001 : e.grid || 0.01;
    const by: Record<string, XY> = {
      ArrowLeft: [-step, 0],
      ArrowRight: [step, 0],
      ArrowUp: [0, step],
      ArrowDown: [0, -step]
    };
    if (event.key in by && e.chosen.length) e.change(say('move'), moveItems(mat, e.chosen, ...by[event.key]));
    else if ((event.key === 'Delete' || event.key === 'Backspace') && e.chosen.length) {
      e.change(say('take away'), removeItems(mat, e.chosen));
      e.chosen = [];
    } else if (event.key === 'Enter' && e.corners.length) e.finish();
    else if (event.key === 'Escape') {
      e.corners = [];
      e.tool = 'choose';
      e.chosen = [];
      gesture = undefined;
      e.draft = undefined;
    } else return;
    event.preventDefault();
  }
  const pts = (list: readonly (readonly [number, number])[]) =>
    list.map(([x, y]) => `${x * 100},${(H - y) * 100}`).join(' ');
  const only = $derived(e.chosen.length === 1 ? e.chosen[0] : undefined);
  const one = $derived(only && itemAt(mat, only));
  const wall = $derived(only?.kind === 'walls' ? mat.walls[only.index] : undefined);
</script>

<!-- svelte-ignore a11y_no_noninteractive_tabindex, a11y_no_noninteractive_element_interactions -->
<svg
  bind:this={svg}
  class="h-full w-full touch-none select-none bg-[#e9ebdd] outline-none dark:bg-[#141a16] {e.tool === 'choose'
    ? ''
    : 'cursor-crosshair'}"
  viewBox="-6 -6 {mat.width * 100 + 12} {H * 100 + 12}"
  role="application"
  tabindex="0"
  aria-label={say('The mat. Arrow keys move what is chosen, Delete takes it away, Escape lets go.')}
  onpointerdown={down}
  onpointermove={move}
  onpointerup={up}
  onkeydown={keys}
  ondblclick={() => e.isDrawing && e.finish()}
  data-testid="mat"
>
  <g {transform}>
    <g bind:this={world}>
      <MatShape {mat} />
      <g fill="transparent">
        {#each KINDS as kind (kind)}
          {#each listOf(mat, kind) as item, i (i)}
            {@const b = boundsOf(mat, { kind, index: i })}
            {#if kind === 'lines'}
              <polyline
                points={pts(mat.lines[i].closed ? [...item.points!, item.points![0]] : item.points!)}
                fill="none"
                stroke="transparent"
                stroke-width={Math.max(1.5, mat.lines[i].width * 100)}
                data-item="lines:{i}"
              />
            {:else if item.points}<polygon points={pts(item.points)} data-item="{kind}:{i}" />
            {:else if kind === 'walls'}<rect
                x={(mat.walls[i].x - mat.walls[i].width / 2) * 100}
                y={(H - mat.walls[i].y - mat.walls[i].height / 2) * 100}
                width={mat.walls[i].width * 100}
                height={mat.walls[i].height * 100}
                transform="rotate({-(mat.walls[i].turnDeg ?? 0)} {mat.walls[i].x * 100} {(H - mat.walls[i].y) * 100})"
                data-item="walls:{i}"
              />
            {:else}<circle
                cx={item.x! * 100}
                cy={(H - item.y!) * 100}
                r={kind === 'warmth' || kind === 'damp' || kind === 'lamps' ? 3 : ((b.right - b.left) / 2) * 100}
                data-item="{kind}:{i}"
              />{/if}
          {/each}
        {/each}
      </g>
      <g
        transform="translate({mat.start.x * 100} {(H - mat.start.y) * 100}) rotate({mat.start.facingDeg -
          90}) scale(.1)"
        opacity="0.75"
        data-item="start:0"
      >
        <DeviceShape {kit} />
      </g>
      {#each e.chosen as item (`${item.kind}${item.index}`)}
        {#if itemAt(mat, item)}
          {@const b = boundsOf(mat, item)}
          <rect
            x={b.left * 100 - 0.6}
            y={(H - b.top) * 100 - 0.6}
            width={(b.right - b.left) * 100 + 1.2}
            height={(b.top - b.bottom) * 100 + 1.2}
            fill="none"
            stroke="#b5842a"
            stroke-width="0.45"
            stroke-dasharray="1.4 0.9"
            pointer-events="none"
          />
        {/if}
      {/each}
      {#if only && one && !one.locked}
        <g fill="#fbfaf5" stroke="#26352c" stroke-width="0.35">
          {#if wall}
            <g transform="rotate({-(wall.turnDeg ?? 0)} {wall.x * 100} {(H - wall.y) * 100})">
              {#each [[-1, -1], [1, -1], [1, 1], [-1, 1]] as [sx, sy] (`${sx}${sy}`)}<rect
                  x={(wall.x + (sx * wall.width) / 2) * 100 - 1}
                  y={(H - wall.y - (sy * wall.height) / 2) * 100 - 1}
                  width="2"
                  height="2"
                  class="cursor-nwse-resize"
                  role="presentation"
                  onpointerdown={(ev) => grab(ev, { kind: 'size', item: only, sx, sy })}
                />{/each}
              <circle
                cx={(wall.x + wall.width / 2) * 100 + 4}
                cy={(H - wall.y) * 100}
                r="1.2"
                class="cursor-alias"
                role="presentation"
                onpointerdown={(ev) => grab(ev, { kind: 'turn', item: only })}
              />
            </g>
          {:else if only.kind === 'start'}
            {@const a = ((90 - mat.start.facingDeg) * Math.PI) / 180}
            <circle
              cx={(mat.start.x + 0.13 * Math.cos(a)) * 100}
              cy={(H - mat.start.y - 0.13 * Math.sin(a)) * 100}
              r="1.3"
              class="cursor-alias"
              role="presentation"
              onpointerdown={(ev) => grab(ev, { kind: 'turn', item: only })}
            />
          {:else if one.points && one.points.length <= 60}
            {#each one.points as p, index (index)}<circle
                cx={p[0] * 100}
                cy={(H - p[1]) * 100}
                r="1"
                class="cursor-move"
                role="presentation"
                onpointerdown={(ev) => grab(ev, { kind: 'corner', item: only, index })}
              />{/each}
          {:else if one.radius !== undefined}
            <circle
              cx={(one.x! + one.radius) * 100}
              cy={(H - one.y!) * 100}
              r="1"
              class="cursor-ew-resize"
              role="presentation"
              onpointerdown={(ev) => grab(ev, { kind: 'radius', item: only })}
            />
          {/if}
        </g>
      {/if}
      <g pointer-events="none" fill="none" stroke="#b5842a" stroke-width="0.5">
        {#if e.corners.length}<polyline points={pts([...e.corners, pointer])} />{#each e.corners as p, i (i)}<circle
              cx={p[0] * 100}
              cy={(H - p[1]) * 100}
              r="0.8"
              fill="#fbfaf5"
            />{/each}{/if}
        {#if gesture?.kind === 'free'}<polyline points={pts(gesture.points)} />{/if}
        {#if gesture?.kind === 'draw'}
          {#if e.tool === 'walls'}<rect
              x={Math.min(gesture.from[0], gesture.to[0]) * 100}
              y={(H - Math.max(gesture.from[1], gesture.to[1])) * 100}
              width={Math.abs(gesture.to[0] - gesture.from[0]) * 100}
              height={Math.abs(gesture.to[1] - gesture.from[1]) * 100}
            />{:else}<polyline points={pts([gesture.from, gesture.to])} />{/if}
        {/if}
      </g>
    </g>
  </g>
</svg>
<p
  class="pointer-events-none absolute bottom-2 left-3 rounded-md bg-paper/90 px-2 py-0.5 text-[11.5px] text-soft tabular-nums"
>
  {say('grid 10 cm · x {x}, y {y} cm', {
    x: (pointer[0] * 100).toFixed(1),
    y: (pointer[1] * 100).toFixed(1)
  })}{e.isDrawing
    ? ` · ${say('click corner by corner; Enter or a double click ends, a click on the first closes')}`
    : ''}
</p>
