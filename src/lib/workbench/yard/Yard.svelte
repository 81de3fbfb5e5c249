<script lang="ts">
  import Button from '../../ui/Button.svelte';
  import { say } from '../../../../core/words.ts';
  import { select } from 'd3-selection';
  import { zoom, zoomIdentity, type ZoomBehavior } from 'd3-zoom';
  import Home from '@lucide/svelte/icons/undo-dot';
  import Fit from '@lucide/svelte/icons/maximize';
  import { onMount } from 'svelte';
  import { hasWheels } from '../../../../core/kit/kit.ts';
  import { allSteps } from '../../../../core/language/program.ts';
  import { eventsOf } from '../../../../core/trace/apart.ts';
  import { headingOf, ranWhen, stateAt } from '../../../../core/trace/query.ts';
  import { travelled } from '../../../../core/trace/query.ts';
  import { headingAt } from '../../../../core/units.ts';
  import type { Pose } from '../../../../core/yard/mat.ts';
  import { AT_FIRST_SIGHT } from '../trace/view.svelte.ts';
  import DeviceShape from '../../ui/DeviceShape.svelte';
  import { useWorkbench } from '../workbench.svelte.ts';
  import { Hold } from './hold.svelte.ts';
  import { KeysDown } from './keys.ts';
  import MatShape from './MatShape.svelte';
  import { Ruler } from './ruler.svelte.ts';
  import { trail } from './trail.ts';

  const w = useWorkbench();
  const { runs, session } = w;
  let svg: SVGSVGElement;
  let world: SVGGElement;
  let transform = $state('');
  let behaviour: ZoomBehavior<SVGSVGElement, unknown>;
  const mat = $derived(w.mat);
  const kit = $derived(session.project.kit);
  const H = $derived(mat.height);

  const startPose = $derived(session.project.start ?? mat.start);
  const hold: Hold = new Hold({
    at,
    give: (input) => w.give(input),
    place,
    get pose(): Pose {
      return pose;
    },
    get size() {
      return mat;
    },
    get canMove() {
      return canMove;
    },
    get canGrab() {
      return canGrab;
    },
    get paused() {
      return !away && runs.state === 'paused';
    },
    moved: (pose) => (runs.moved = pose)
  });
  const away = $derived(runs.shown === 'device');
  const view = $derived(runs.view);
  const standing = $derived(
    away && !w.device.running && w.device.pose && (!runs.device || runs.scrubUs === undefined)
      ? w.device.pose
      : undefined
  );
  const pose = $derived<Pose>(
    hold.held ??
      standing ??
      (runs.state === 'paused' && runs.scrubUs === undefined ? runs.moved : undefined) ??
      (view ? { x: view.x, y: view.y, facingDeg: view.facingDeg } : startPose)
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
    const { seen } = runs;
    return headingAt(
      seen && seen.version >= 0 ? headingOf(seen.trace, runs.seenUs) : pose.facingDeg - startPose.facingDeg,
      0
    );
  });
  const touches = $derived(
    runs.seen && runs.seen.version >= 0 ? eventsOf(runs.seen.trace, 'touch').filter((e) => e.tUs <= runs.seenUs) : []
  );
  /** fetched once all else is there */
  let ghostOf = $state.raw<(typeof import('../../../../core/run/ghost.ts'))['ghostOf']>();
  onMount(() => void import('../../../../core/run/ghost.ts').then((m) => (ghostOf = m.ghostOf)));
  /** the way that the chosen move block asks for: from where it last began, or from the start */
  const ghost = $derived.by(() => {
    const step = w.selected ? [...allSteps(session.project.program)].find((s) => s.id === w.selected) : undefined;
    if (!step || !ghostOf) return undefined;
    const run = runs.current && runs.current.version >= 0 ? runs.current : undefined;
    const began = run && !runs.busy ? ranWhen(run.trace, step.id).at(-1)?.[0] : undefined;
    const at = run && began !== undefined ? stateAt(run.trace, began) : undefined;
    const draft = w.draft?.block === step.id ? { ...step.slots, [w.draft.slot]: w.draft.value } : step.slots;
    const start = at && run ? run.trace.header.run.start : startPose;
    return ghostOf({ ...step, slots: draft }, kit, at ?? startPose, start.facingDeg);
  });
  /** keys of the computer go to the program while it runs and the yard has the focus */
  let focused = $state(false);
  const keys = new KeysDown(w);
  w.takeKeys = () => svg.focus({ preventScroll: true });
  /** where loose things were pushed to */
  const things = $derived(
    mat.things.map((t, i) => ({ x: view?.values[`thing${i}x`] ?? t.x, y: view?.values[`thing${i}y`] ?? t.y }))
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
  const ruler = new Ruler();
  $effect(() => {
    if (!w.measuring) ruler.away();
  });
  /** the ruler keeps to places that mean something */
  function rule(event: PointerEvent, kind: 'down' | 'move' | 'up') {
    if (w.measuring) ruler.pointer(event, kind, at(event), [startPose, pose, ...mat.hoops, ...mat.marks, ...things]);
  }

  export function fit() {
    select(svg).call(behaviour.transform, zoomIdentity);
  }
  function at(event: PointerEvent): { x: number; y: number } {
    const p = new DOMPoint(event.clientX, event.clientY).matrixTransform(world.getScreenCTM()!.inverse());
    return { x: p.x / 100, y: H - p.y / 100 };
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
    keys.letGo();
  }}
  data-device-keys
  onkeydowncapture={(e) => keys.key(e, true)}
  onkeyupcapture={(e) => keys.key(e, false)}
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
            data-facing={headingAt(last.facingDeg).toFixed(1)}
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
        {#if w.trace.tool === 'findings' || w.story}{#each w.found.slice(0, AT_FIRST_SIGHT) as f (f.rule + f.fromUs + f.says)}{#if f.at}
              {@const lit = w.trace.lit === f}
              <!-- svelte-ignore a11y_no_static_element_interactions -->
              <g
                transform="translate({f.at.x * 100} {(H - f.at.y) * 100})"
                data-testid="finding-place"
                data-lit={lit}
                onpointerenter={() => (w.trace.lit = f)}
                onpointerleave={() => (w.trace.lit = undefined)}
              >
                <circle
                  r={lit ? 4.6 : 3.4}
                  fill="#b8482a"
                  fill-opacity={lit ? 0.4 : 0.14}
                  stroke="#b8482a"
                  stroke-width={lit ? 1 : 0.5}
                  stroke-dasharray="1.4 0.9"
                />
                <title>{f.says}</title>
              </g>{/if}{/each}{/if}
        {#if session.project.others?.length}{#await import('./Others.svelte') then { default: Others }}<Others
              {at}
              {canMove}
            />{/await}{/if}
        <!-- svelte-ignore a11y_no_noninteractive_tabindex, a11y_no_noninteractive_element_interactions -->
        <g
          class="mb-grab {canGrab ? 'cursor-grab' : ''}"
          transform="translate({pose.x * 100} {(H - pose.y) * 100}) rotate({pose.facingDeg - 90}) scale(0.1)"
          role="img"
          aria-label={say('Robot')}
          tabindex="0"
          onkeydown={(e) => hold.keys(e)}
          onpointerdown={(e) => hold.down(e, 'move')}
          onpointermove={(e) => hold.move(e)}
          onpointerup={() => hold.up()}
          data-testid="robot"
          data-x={pose.x.toFixed(4)}
          data-y={pose.y.toFixed(4)}
          data-facing={headingAt(pose.facingDeg, 2).toFixed(2)}
        >
          <DeviceShape {kit} lamps={view?.lamps} {horns} picture={view?.picture ?? ''} />
        </g>
        {#if canGrab}
          <!-- svelte-ignore a11y_no_static_element_interactions -->
          <g
            class="mb-grab cursor-alias"
            transform="translate({pose.x * 100} {(H - pose.y) * 100}) rotate({pose.facingDeg - 90})"
            onpointerdown={(e) => hold.down(e, 'turn')}
            onpointermove={(e) => hold.move(e)}
            onpointerup={() => hold.up()}
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
        {#each w.rings as { x, y, radius, look }, i (i)}<circle
            class="goal-ring {look}"
            cx={x * 100}
            cy={(H - y) * 100}
            r={radius * 100}
          />{/each}
        {#if w.predict.open}{#await import('../predict/Guesses.svelte') then { default: Guesses }}<Guesses
              {at}
              height={H}
            />{/await}{/if}
        {#if ruler.line}{#await import('./RulerLine.svelte') then { default: RulerLine }}<RulerLine
              line={ruler.line}
              height={H}
            />{/await}{/if}
      </g>
    </g>
  </svg>
  {#if focused && w.takesInput}<p
      class="pointer-events-none absolute bottom-8 left-2 rounded-md bg-brass px-2 py-0.5 text-[12px] font-semibold text-[#1e1706]"
      data-testid="keys-here"
    >
      {say('Keys go to the robot now')}
    </p>{/if}
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
  {#if w.measuring}{#await import('./Measures.svelte') then { default: Measures }}<Measures
        from={runs.seen ? runs.seen.trace.header.run.start : startPose}
        {pose}
        hint={!ruler.line}
      />{/await}{/if}
  <div class="absolute top-2 right-2 flex gap-1">
    <Button
      look="bare"
      class="grid place-items-center rounded-md border border-rule bg-card p-1 text-soft hover:text-ink pointer-coarse:h-10 pointer-coarse:w-10"
      title={say("Robot back to the mat's start")}
      aria-label={say("Robot back to the mat's start")}
      disabled={!canMove}
      onclick={() => place(undefined)}><Home size={15} /></Button
    >
    <Button
      look="bare"
      class="grid place-items-center rounded-md border border-rule bg-card p-1 text-soft hover:text-ink pointer-coarse:h-10 pointer-coarse:w-10"
      title={say('Show the whole mat')}
      aria-label={say('Show the whole mat')}
      onclick={fit}><Fit size={15} /></Button
    >
  </div>
</div>
