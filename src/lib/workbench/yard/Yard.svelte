<script lang="ts">
  import { say } from '../../../../core/words.ts';
  import { select } from 'd3-selection';
  import { zoom, zoomIdentity, type ZoomBehavior } from 'd3-zoom';
  import Home from '@lucide/svelte/icons/undo-dot';
  import Fit from '@lucide/svelte/icons/maximize';
  import { onMount } from 'svelte';
  import { hasWheels } from '../../../../core/kit/kit.ts';
  import { allSteps } from '../../../../core/language/program.ts';
  import { ghostOf } from '../../../../core/run/ghost.ts';
  import { ranWhen, stateAt } from '../../../../core/trace/query.ts';
  import { keyName } from '../program/blockly/keys.ts';
  import { travelled } from '../../../../core/trace/query.ts';
  import type { Pose } from '../../../../core/yard/mat.ts';
  import DeviceShape from '../../ui/DeviceShape.svelte';
  import { useWorkbench } from '../workbench.svelte.ts';
  import MatShape from './MatShape.svelte';
  import { trail } from './trail.ts';

  const w = useWorkbench();
  const { runs, session } = w;
  let svg: SVGSVGElement;
  let world: SVGGElement;
  let transform = $state('');
  let behaviour: ZoomBehavior<SVGSVGElement, unknown>;
  const mat = $derived(session.project.mat);
  const kit = $derived(session.project.kit);
  const H = $derived(mat.height);

  const startPose = $derived(session.project.start ?? mat.start);
  const away = $derived(runs.shown === 'device');
  /** while it is dragged, the pose of the hand */
  let held = $state<Pose>();
  const view = $derived(runs.view);
  const standing = $derived(
    away && !w.device.running && w.device.pose && (!runs.device || runs.scrubUs === undefined)
      ? w.device.pose
      : undefined
  );
  const pose = $derived<Pose>(
    held ?? standing ?? (view ? { x: view.x, y: view.y, facingDeg: view.facingDeg } : startPose)
  );
  const horns = $derived(
    Object.fromEntries(
      kit.parts
        .filter((p) => p.type === 'servo' || p.type === 'spin')
        .map((p) => [p.socket, view?.values[`servo${p.socket}`] ?? 90])
    )
  );
  const path = $derived(runs.seen && runs.seen.version >= 0 ? trail(runs.seen.trace, runs.seenUs, H) : '');
  const ghosts = $derived(
    [runs.ghost !== runs.seen ? runs.ghost : undefined, away ? runs.current : runs.device].flatMap((r) =>
      r && r.version >= 0 ? [trail(r.trace, Infinity, H)] : []
    )
  );
  const driven = $derived(runs.seen && runs.seen.version >= 0 ? travelled(runs.seen.trace, runs.seenUs) * 100 : 0);
  const turned = $derived.by(() => {
    const from = runs.seen ? runs.seen.trace.header.start.facingDeg : startPose.facingDeg;
    const by = (((pose.facingDeg - from) % 360) + 360) % 360;
    return Math.round(by) % 360;
  });
  const touches = $derived(
    runs.seen && runs.seen.version >= 0
      ? runs.seen.trace.events.filter((e) => e.type === 'touch' && e.tUs <= runs.seenUs)
      : []
  );
  /** the way that the chosen move block asks for: from where it last began, or from the start */
  const ghost = $derived.by(() => {
    const step = w.selected ? [...allSteps(session.project.program)].find((s) => s.id === w.selected) : undefined;
    if (!step) return undefined;
    const run = runs.current && runs.current.version >= 0 ? runs.current : undefined;
    const began = run && !runs.busy ? ranWhen(run.trace, step.id).at(-1)?.[0] : undefined;
    const at = run && began !== undefined ? stateAt(run.trace, began) : undefined;
    const draft = w.draft?.block === step.id ? { ...step.slots, [w.draft.slot]: w.draft.value } : step.slots;
    const start = at && run ? run.trace.header.start : startPose;
    return ghostOf({ ...step, slots: draft }, kit, at ?? startPose, start.facingDeg);
  });
  /** keys of the computer go to the program while it runs and the yard has the focus */
  let focused = $state(false);
  /** keys that are down, so that none stays down when the focus goes */
  const keysDown = new Set<string>();
  function keyToProgram(event: KeyboardEvent, down: boolean) {
    const key = keyName(event.key);
    if (!w.takesInput || !key || event.ctrlKey || event.metaKey || event.altKey) return;
    event.preventDefault();
    event.stopPropagation();
    if (event.repeat) return;
    if (down) keysDown.add(key);
    else keysDown.delete(key);
    w.give({ key, down });
  }
  function letGoOfKeys() {
    for (const key of keysDown) w.give({ key, down: false });
    keysDown.clear();
  }
  /** where loose things were pushed to */
  const things = $derived(
    mat.things.map((t, i) => ({ x: view?.values[`thing${i}x`] ?? t.x, y: view?.values[`thing${i}y`] ?? t.y }))
  );
  /** the other devices in the yard, as they are at the playhead; before a run where they start */
  const others = $derived(
    (session.project.others ?? []).map((o, i) => {
      const run = runs.others[i];
      const state = run && run.version >= 0 && !away ? stateAt(run.trace, runs.playheadUs) : undefined;
      return { ...o, state, pose: shifted?.index === i ? shifted.pose : (state ?? o.start ?? mat.start) };
    })
  );
  /** it stands still: it can be put elsewhere. Or it runs: a hand can take it */
  const canMove = $derived(away ? !w.device.running && !w.device.plugged : !runs.busy);
  const canGrab = $derived(canMove || (w.takesInput && runs.scrubUs === undefined));

  onMount(() => {
    behaviour = zoom<SVGSVGElement, unknown>()
      .scaleExtent([0.5, 12])
      .filter(
        (e: Event) =>
          !(e.target as Element).closest('.mb-grab') &&
          !(w.measuring && e.type !== 'wheel') &&
          (e.type !== 'mousedown' || (e as MouseEvent).button === 0)
      )
      .on('zoom', (e) => (transform = e.transform.toString()));
    select(svg).call(behaviour);
    w.grab = async () => (await import('./clip.ts')).pictureOf(svg);
    return () => (w.grab = undefined);
  });
  // ---- the ruler ----
  type Point = { x: number; y: number };
  let ruler = $state.raw<{ from: Point; to: Point }>();
  let measuring = false;
  /** near a place that means something, that place */
  function snapped(p: Point): Point {
    const places = [startPose, pose, ...mat.hoops, ...mat.marks, ...things];
    const near = places.find((q) => Math.hypot(q.x - p.x, q.y - p.y) < 0.015);
    return near ? { x: near.x, y: near.y } : p;
  }
  function rule(event: PointerEvent, kind: 'down' | 'move' | 'up') {
    if (!w.measuring) return;
    const p = snapped(at(event));
    if (kind === 'down' && event.button === 0 && !(event.target as Element).closest('.mb-grab')) {
      (event.currentTarget as Element).setPointerCapture(event.pointerId);
      measuring = true;
      ruler = { from: p, to: p };
    } else if (kind === 'move' && measuring && ruler) ruler = { from: ruler.from, to: p };
    else if (kind === 'up') measuring = false;
  }
  $effect(() => {
    if (!w.measuring) ruler = undefined;
  });
  const measured = $derived(
    ruler && {
      cm: Math.hypot(ruler.to.x - ruler.from.x, ruler.to.y - ruler.from.y) * 100,
      deg: (90 - (Math.atan2(ruler.to.y - ruler.from.y, ruler.to.x - ruler.from.x) * 180) / Math.PI + 360) % 360
    }
  );
  const began = $derived(runs.seen ? runs.seen.trace.header.start : startPose);
  const poseText = (p: Pose) =>
    say('x {x}, y {y} cm, {deg}°', {
      x: (p.x * 100).toFixed(1),
      y: (p.y * 100).toFixed(1),
      deg: p.facingDeg.toFixed(1)
    });
  const marksSeen = $derived(
    runs.seen && runs.seen.version >= 0 && w.measuring ? runs.seen.trace.events.filter((e) => e.type === 'mark') : []
  );

  export function fit() {
    select(svg).call(behaviour.transform, zoomIdentity);
  }
  function at(event: PointerEvent): { x: number; y: number } {
    const p = new DOMPoint(event.clientX, event.clientY).matrixTransform(world.getScreenCTM()!.inverse());
    return { x: p.x / 100, y: H - p.y / 100 };
  }
  /** another device is put elsewhere */
  let shifted = $state.raw<{ index: number; pose: Pose }>();
  function shift(event: PointerEvent, index: number, kind: 'down' | 'move' | 'up') {
    if (kind === 'down') {
      if (!canMove) return;
      event.stopPropagation();
      (event.currentTarget as Element).setPointerCapture(event.pointerId);
      shifted = { index, pose: others[index].pose };
    } else if (shifted?.index !== index) return;
    else if (kind === 'move') {
      const p = at(event);
      const round = (v: number, most: number) => Math.round(Math.min(most, Math.max(0, v)) * 1000) / 1000;
      shifted = { index, pose: { ...shifted.pose, x: round(p.x, mat.width), y: round(p.y, H) } };
    } else {
      const { x, y, facingDeg } = shifted.pose;
      const list = (session.project.others ?? []).map((o, i) =>
        i === index ? { ...o, start: { x, y, facingDeg } } : o
      );
      shifted = undefined;
      session.change(say('move {name}', { name: list[index].name }), { ...session.project, others: list });
      runs.clear();
    }
  }
  let grab: { kind: 'move' | 'turn'; dx: number; dy: number } | undefined;
  function down(event: PointerEvent, kind: 'move' | 'turn') {
    if (!canGrab) return;
    event.stopPropagation();
    (event.currentTarget as Element).setPointerCapture(event.pointerId);
    if (!canMove) w.give({ lift: true });
    const p = at(event);
    grab = { kind, dx: pose.x - p.x, dy: pose.y - p.y };
    held = { ...pose };
  }
  function move(event: PointerEvent) {
    if (!grab || !held) return;
    const p = at(event);
    if (grab.kind === 'move')
      held = {
        ...held,
        x: Math.min(mat.width, Math.max(0, p.x + grab.dx)),
        y: Math.min(H, Math.max(0, p.y + grab.dy))
      };
    else {
      const deg = 90 - (Math.atan2(p.y - held.y, p.x - held.x) * 180) / Math.PI;
      const snapped = event.shiftKey ? deg : Math.round(deg / 5) * 5;
      held = { ...held, facingDeg: ((snapped % 360) + 360) % 360 };
    }
    if (!canMove) carry(held);
  }
  let carried = 0;
  function carry(to: Pose) {
    if (performance.now() - carried < 33) return;
    carried = performance.now();
    tellCarry(to);
  }
  const tellCarry = ({ x, y, facingDeg }: Pose) =>
    w.give({
      carry: { x: Math.round(x * 1000) / 10, y: Math.round(y * 1000) / 10, facing: Math.round(facingDeg * 10) / 10 }
    });
  function up() {
    if (held && !canMove) {
      tellCarry(held);
      // the hand needs a moment to get there
      setTimeout(() => w.give({ lift: false }), 250);
    } else if (held) place(held);
    grab = undefined;
    held = undefined;
  }
  function place(next: Pose | undefined) {
    const tidy = next && {
      x: Math.round(next.x * 1000) / 1000,
      y: Math.round(next.y * 1000) / 1000,
      facingDeg: Math.round(next.facingDeg * 10) / 10
    };
    if (away) return w.device.put(tidy ?? mat.start);
    const { start: _, ...rest } = session.project;
    session.change(
      tidy ? say('move the robot') : say("back to the mat's start"),
      tidy ? { ...rest, start: tidy } : rest
    );
    runs.clear();
  }
  function keys(event: KeyboardEvent) {
    if (!canMove) return;
    const step = event.shiftKey ? 0.001 : 0.01;
    const by: Record<string, Partial<Pose>> = {
      ArrowLeft: { x: pose.x - step },
      ArrowRight: { x: pose.x + step },
      ArrowUp: { y: pose.y + step },
      ArrowDown: { y: pose.y - step },
      '[': { facingDeg: pose.facingDeg - 5 },
      ']': { facingDeg: pose.facingDeg + 5 }
    };
    if (!(event.key in by)) return;
    event.preventDefault();
    place({ ...pose, ...by[event.key] });
  }
</script>

<!-- svelte-ignore a11y_no_static_element_interactions -->
<div
  class="relative h-full min-h-0 overflow-hidden bg-[#e9ebdd] dark:bg-[#141a16] {focused && w.takesInput
    ? 'outline-3 -outline-offset-3 outline-brass'
    : ''}"
  onfocusin={() => {
    focused = true;
    if (w.takesInput) w.tell(say('Keys go to the robot now'));
  }}
  onfocusout={() => {
    focused = false;
    letGoOfKeys();
  }}
  onkeydowncapture={(e) => keyToProgram(e, true)}
  onkeyupcapture={(e) => keyToProgram(e, false)}
>
  <!-- svelte-ignore a11y_no_noninteractive_tabindex -->
  <svg
    bind:this={svg}
    class="h-full w-full touch-none"
    viewBox="-4 -4 {mat.width * 100 + 8} {H * 100 + 8}"
    preserveAspectRatio="xMidYMid meet"
    onpointerdown={(e) => rule(e, 'down')}
    onpointermove={(e) => rule(e, 'move')}
    onpointerup={(e) => rule(e, 'up')}
    role="application"
    tabindex={w.takesInput ? 0 : -1}
    aria-label={say('Yard from above. Arrow keys move the robot, square brackets turn it.')}
    data-testid="yard"
  >
    <g {transform}>
      <g bind:this={world}>
        <MatShape {mat} {things} />
        {#each ghosts as points, i (i)}<polyline
            {points}
            fill="none"
            stroke="#6f7a70"
            stroke-width="0.5"
            stroke-dasharray="1.6 1.6"
          />{/each}
        <polyline
          points={path}
          fill="none"
          stroke="#4f7a38"
          stroke-width="0.9"
          stroke-dasharray="0.1 1.8"
          stroke-linecap="round"
          data-testid="trail"
        />
        {#if ghost}
          {@const last = ghost.at(-1)!}
          <g
            data-testid="ghost"
            data-x={last.x.toFixed(4)}
            data-y={last.y.toFixed(4)}
            data-facing={last.facingDeg.toFixed(1)}
          >
            <polyline
              points={ghost.map((p) => `${(p.x * 100).toFixed(2)},${((H - p.y) * 100).toFixed(2)}`).join(' ')}
              fill="none"
              stroke="#7a3f63"
              stroke-width="0.7"
              stroke-linecap="round"
            />
            <g transform="translate({last.x * 100} {(H - last.y) * 100}) rotate({last.facingDeg - 90})">
              <rect
                x="-8.5"
                y="-5.2"
                width="15"
                height="10.4"
                rx="2"
                fill="#7a3f63"
                fill-opacity="0.12"
                stroke="#7a3f63"
                stroke-width="0.4"
                stroke-dasharray="1.2 0.9"
              />
              <path d="M3.4 -2L6 0L3.4 2" fill="none" stroke="#7a3f63" stroke-width="0.7" stroke-linecap="round" />
            </g>
          </g>
        {/if}
        {#each touches as t, i (i)}{#if t.type === 'touch'}<circle
              cx={t.x * 100}
              cy={(H - t.y) * 100}
              r="1.5"
              fill="none"
              stroke="#b8482a"
              stroke-width="0.6"
              ><title>{say('touched {what} with {n} cm/s', { what: t.what, n: t.speedCmS.toFixed(1) })}</title></circle
            >{/if}{/each}
        {#each others as o, i (o.name)}
          <g
            transform="translate({o.pose.x * 100} {(H - o.pose.y) * 100}) rotate({o.pose.facingDeg - 90}) scale(0.1)"
            role="img"
            aria-label={o.name}
            class="mb-grab {canMove ? 'cursor-grab' : ''}"
            onpointerdown={(e) => shift(e, i, 'down')}
            onpointermove={(e) => shift(e, i, 'move')}
            onpointerup={(e) => shift(e, i, 'up')}
            data-testid="other"
            data-x={o.pose.x.toFixed(4)}
            data-y={o.pose.y.toFixed(4)}
          >
            <DeviceShape kit={o.kit} lamps={o.state?.lamps} picture={o.state?.picture ?? ''} />
          </g>
          <text x={o.pose.x * 100} y={(H - o.pose.y) * 100 + 9} text-anchor="middle" font-size="2.6" fill="#4a4438"
            >{o.name}</text
          >
        {/each}
        <!-- svelte-ignore a11y_no_noninteractive_tabindex, a11y_no_noninteractive_element_interactions -->
        <g
          class="mb-grab {canGrab ? 'cursor-grab' : ''}"
          transform="translate({pose.x * 100} {(H - pose.y) * 100}) rotate({pose.facingDeg - 90}) scale(0.1)"
          role="img"
          aria-label={say('Robot')}
          tabindex="0"
          onkeydown={keys}
          onpointerdown={(e) => down(e, 'move')}
          onpointermove={move}
          onpointerup={up}
          data-testid="robot"
          data-x={pose.x.toFixed(4)}
          data-y={pose.y.toFixed(4)}
          data-facing={pose.facingDeg.toFixed(2)}
        >
          <DeviceShape {kit} lamps={view?.lamps} {horns} picture={view?.picture ?? ''} />
        </g>
        {#if canGrab}
          <!-- svelte-ignore a11y_no_static_element_interactions -->
          <g
            class="mb-grab cursor-alias"
            transform="translate({pose.x * 100} {(H - pose.y) * 100}) rotate({pose.facingDeg - 90})"
            onpointerdown={(e) => down(e, 'turn')}
            onpointermove={move}
            onpointerup={up}
            data-testid="turn-handle"
          >
            <path d="M9 0H12.5" stroke="#26352c" stroke-width="0.4" /><circle
              cx="14"
              r="1.7"
              fill="#fbfaf5"
              stroke="#26352c"
              stroke-width="0.5"
            /><path d="M13.2 -.5a1 1 0 1 1 .2 1.3" fill="none" stroke="#26352c" stroke-width=".35" />
          </g>
        {/if}
        {#if ruler && measured}
          <g data-testid="ruler" data-cm={measured.cm.toFixed(2)} data-deg={measured.deg.toFixed(1)}>
            <path
              d="M{ruler.from.x * 100} {(H - ruler.from.y) * 100}L{ruler.to.x * 100} {(H - ruler.to.y) * 100}"
              stroke="#1b7080"
              stroke-width="0.5"
            />
            {#each [ruler.from, ruler.to] as p, i (i)}<circle
                cx={p.x * 100}
                cy={(H - p.y) * 100}
                r="0.8"
                fill="#fbfaf5"
                stroke="#1b7080"
                stroke-width="0.4"
              />{/each}
            <text
              x={((ruler.from.x + ruler.to.x) / 2) * 100}
              y={(H - (ruler.from.y + ruler.to.y) / 2) * 100 - 1.6}
              text-anchor="middle"
              font-size="3.2"
              font-weight="700"
              fill="#10535f"
              stroke="#fbfaf5"
              stroke-width="0.9"
              paint-order="stroke">{measured.cm.toFixed(1)} cm · {measured.deg.toFixed(0)}°</text
            >
          </g>
        {/if}
      </g>
    </g>
  </svg>
  <p
    class="pointer-events-none absolute bottom-1.5 left-2 rounded-md bg-paper/90 px-2 py-0.5 text-[11.5px] text-soft tabular-nums"
    data-testid="pose"
  >
    {#if hasWheels(kit)}
      {say('grid 10 cm · {n} cm driven · heading {turned}° · x {n2}, y {n3} cm', {
        n: driven.toFixed(1),
        turned,
        n2: (pose.x * 100).toFixed(1),
        n3: (pose.y * 100).toFixed(1)
      })}
    {:else}{say('grid 10 cm · x {x}, y {y} cm', { x: (pose.x * 100).toFixed(1), y: (pose.y * 100).toFixed(1) })}{/if}
  </p>
  {#if w.measuring}
    <dl
      class="pointer-events-none absolute top-2 left-2 grid grid-cols-[auto_auto] gap-x-2 rounded-md bg-paper/95 px-2 py-1 text-[12px] tabular-nums shadow"
      data-testid="measures"
    >
      <dt class="text-soft">{say('start')}</dt>
      <dd>{poseText(began)}</dd>
      <dt class="text-soft">{say('now')}</dt>
      <dd>{poseText(pose)}</dd>
      <dt class="text-soft">{say('between')}</dt>
      <dd>
        {say('{cm} cm, turned {deg}°', {
          cm: (Math.hypot(pose.x - began.x, pose.y - began.y) * 100).toFixed(1),
          deg:
            ((((pose.facingDeg - began.facingDeg) % 360) + 540) % 360) - 180 === 0
              ? '0'
              : (((((pose.facingDeg - began.facingDeg) % 360) + 540) % 360) - 180).toFixed(1)
        })}
      </dd>
      {#each marksSeen as m, i (i)}{#if m.type === 'mark'}
          <dt class="text-soft">{m.text}</dt>
          <dd>{(m.tUs / 1e6).toFixed(3)} s{i ? ` (+${((m.tUs - marksSeen[i - 1].tUs) / 1e6).toFixed(3)} s)` : ''}</dd>
        {/if}{/each}
      {#if !ruler}<dd class="col-span-2 text-soft">{say('Drag over the mat to measure.')}</dd>{/if}
    </dl>
  {/if}
  <div class="absolute top-2 right-2 flex gap-1">
    <button
      class="rounded-md border border-rule bg-card p-1 text-soft hover:text-ink"
      title={say("Robot back to the mat's start")}
      aria-label={say("Robot back to the mat's start")}
      disabled={!canMove}
      onclick={() => place(undefined)}><Home size={15} /></button
    >
    <button
      class="rounded-md border border-rule bg-card p-1 text-soft hover:text-ink"
      title={say('Show the whole mat')}
      aria-label={say('Show the whole mat')}
      onclick={fit}><Fit size={15} /></button
    >
  </div>
</div>
