<script lang="ts">
  import { retell, say, word } from '../../../../core/words.ts';
  import { scaleLinear } from 'd3-scale';
  import { onMount } from 'svelte';
  import { partName } from '../../../../core/kit/kit.ts';
  import { sentence } from '../../../../core/language/catalogue.ts';
  import { allSteps } from '../../../../core/language/program.ts';
  import { findings } from '../../../../core/trace/findings.ts';
  import { askedAndGot } from '../../../../core/trace/query.ts';
  import { traceCsv } from '../../../../core/trace/files.ts';
  import { download, fileName } from '../../shelf/files.ts';
  import type { Run } from '../runs.svelte.ts';
  import { useWorkbench } from '../workbench.svelte.ts';
  import Inputs from '../inputs/Inputs.svelte';
  import { blockAt, draw, lanesOf, palette, plotsOf, type Palette } from './lanes.ts';

  const w = useWorkbench();
  const { runs } = w;
  let canvas: HTMLCanvasElement;
  let width = $state(600);
  let colours = $state.raw<Palette>();
  /** chosen by the person; otherwise the whole run */
  let window_ = $state<[number, number]>();
  let ghost = $state(true);
  let beside = $state(true);
  let listing = $state(false);
  const plots = $derived(runs.run && runs.run.version >= 0 ? plotsOf(runs.run.trace).join('\n') : '');
  const lanes = $derived(lanesOf(w.session.project.kit, plots ? plots.split('\n') : []));
  const height = $derived(lanes.reduce((h, l) => h + l.height, 0));
  const run = $derived(runs.run);
  const other = $derived<Run | undefined>(
    runs.shown === 'device'
      ? beside
        ? runs.current
        : undefined
      : ((beside ? runs.device : undefined) ?? (ghost ? runs.ghost : undefined))
  );
  const endUs = $derived(run?.endUs ?? 0);
  /** grows by steps, so that the picture does not shrink with every frame */
  const STEPS = [4, 8, 12, 16, 24, 32, 48, 64, 96, 128, 192, 256, 384, 512, 600];
  const full = $derived.by<[number, number]>(() => {
    const need = (Math.max(endUs, other?.endUs ?? 0) / 1e6) * 1.02;
    return [0, (STEPS.find((s) => s >= need) ?? Math.ceil(need / 60) * 60) * 1e6];
  });
  const range = $derived(window_ ?? full);
  const x = $derived(scaleLinear(range, [0, width]));
  const ticks = $derived(x.ticks(Math.max(2, Math.floor(width / 110))));
  const found = $derived(run && run.version >= 0 && run.trace.ended ? findings(run.trace) : []);
  const moves = $derived(run && run.version >= 0 && run.trace.ended ? askedAndGot(run.trace) : []);
  const names = $derived(
    new Map(
      [...allSteps(w.session.project.program)].map((s) => [
        s.id,
        sentence(s, w.session.project.program, (socket) => partName(w.session.project.kit, socket))
      ])
    )
  );
  const now = $derived(runs.lit.at(-1));

  onMount(() => {
    colours = palette();
    const theme = () => (colours = palette());
    window.addEventListener('mossbell:theme', theme);
    return () => window.removeEventListener('mossbell:theme', theme);
  });
  $effect(() => {
    if (!canvas || !colours) return;
    const ratio = devicePixelRatio || 1;
    if (canvas.width !== Math.round(width * ratio) || canvas.height !== Math.round(height * ratio)) {
      canvas.width = Math.round(width * ratio);
      canvas.height = Math.round(height * ratio);
    }
    const g = canvas.getContext('2d')!;
    g.setTransform(ratio, 0, 0, ratio, 0, 0);
    if (!run || run.version < 0) return void g.clearRect(0, 0, width, height);
    draw(g, {
      trace: run.trace,
      ghost: other && other.version >= 0 ? other.trace : undefined,
      fromUs: range[0],
      toUs: range[1],
      width,
      lanes,
      program: w.session.project.program,
      selected: w.selected,
      palette: colours,
      live: runs.state === 'running' && runs.scrubUs === undefined
    });
  });
  const time = (event: PointerEvent | WheelEvent) => x.invert(event.clientX - canvas.getBoundingClientRect().left);
  let mode: 'scrub' | 'pan' | undefined;
  let grabbed = 0;
  function down(event: PointerEvent) {
    if (!run) return;
    canvas.setPointerCapture(event.pointerId);
    mode = event.shiftKey || event.button === 1 ? 'pan' : 'scrub';
    grabbed = time(event);
    if (mode === 'pan') return;
    scrub(grabbed);
    if (event.offsetY < lanes[0].height) {
      const id = blockAt(run.trace, w.session.project.program, grabbed, ((range[1] - range[0]) / width) * 4);
      if (id) w.selected = id;
    }
  }
  function move(event: PointerEvent) {
    if (mode === 'scrub') scrub(time(event));
    else if (mode === 'pan') shift(grabbed - time(event));
  }
  function scrub(t: number) {
    runs.scrubUs = Math.max(0, Math.min(endUs, Math.round(t)));
  }
  function shift(by: number) {
    const from = Math.max(0, range[0] + by);
    window_ = [from, from + range[1] - range[0]];
  }
  function zoomAt(t: number, by: number) {
    const size = Math.min(full[1], Math.max(2000, (range[1] - range[0]) * by));
    const from = Math.max(0, t - ((t - range[0]) / (range[1] - range[0])) * size);
    window_ = size >= full[1] ? undefined : [from, from + size];
  }
  function wheel(event: WheelEvent) {
    if (!event.ctrlKey && !event.altKey && Math.abs(event.deltaX) <= Math.abs(event.deltaY) && !event.shiftKey) return;
    event.preventDefault();
    if (event.ctrlKey || event.altKey) zoomAt(time(event), event.deltaY > 0 ? 1.25 : 0.8);
    else shift(((event.deltaX || event.deltaY) / width) * (range[1] - range[0]));
  }
  function keys(event: KeyboardEvent) {
    const step = event.shiftKey ? 1000 : 50_000;
    if (event.key === 'ArrowLeft') scrub(runs.playheadUs - step);
    else if (event.key === 'ArrowRight') scrub(runs.playheadUs + step);
    else if (event.key === 'Home') scrub(0);
    else if (event.key === 'End') runs.scrubUs = undefined;
    else if (event.key === '+') zoomAt(runs.playheadUs, 0.8);
    else if (event.key === '-') zoomAt(runs.playheadUs, 1.25);
    else return;
    event.preventDefault();
  }
  /** To a moment, and the block that it is about. */
  function lead(toUs: number, block?: string) {
    runs.scrubUs = toUs;
    if (block) w.selected = block;
  }
  function csv() {
    if (run) download(`${fileName(w.session.project.name)}-${fileName(run.name)}.csv`, traceCsv(run.trace), 'text/csv');
  }
</script>

<section class="flex h-full min-h-0 flex-col border-t border-rule bg-card" aria-label={say('Trace')}>
  <div class="bar !min-h-8">
    <h2 class="mr-1 font-sans text-[14px] font-bold">{say('Trace')}</h2>
    <button class="chip" onclick={() => (w.bottom = 'live')}>{say('Live values')}</button>
    <Inputs />
    <button
      class="chip"
      aria-pressed={runs.shown === 'rehearsal'}
      onclick={() => ((runs.shown = 'rehearsal'), (runs.scrubUs = undefined))}>{say('This run')}</button
    >
    {#if runs.ghost}<button class="chip" aria-pressed={ghost} onclick={() => (ghost = !ghost)}
        >{say('+ last run')}</button
      >{/if}
    {#if runs.device}
      <button
        class="chip"
        aria-pressed={runs.shown === 'device'}
        onclick={() => ((runs.shown = 'device'), (runs.scrubUs = undefined))}
        data-testid="device-run">{runs.device.name}</button
      >
      <button class="chip" aria-pressed={beside} onclick={() => (beside = !beside)}>{say('beside each other')}</button>
    {/if}
    <span class="flex-1"></span>
    {#if run}
      <span class="font-mono text-[12.5px] text-soft tabular-nums" data-testid="playhead"
        >{(runs.playheadUs / 1e6).toFixed(3)} s</span
      >
      {#if runs.scrubUs !== undefined}<button class="chip underline" onclick={() => (runs.scrubUs = undefined)}
          >{say('to the end')}</button
        >{/if}
      <button
        class="chip"
        aria-expanded={listing}
        disabled={!found.length && !moves.length}
        onclick={() => (listing = !listing)}
        >{say('{n, plural, one {# finding} other {# findings}}', { n: found.length })}</button
      >
      <button class="chip" aria-label={say('Shorter time')} onclick={() => zoomAt(runs.playheadUs, 0.6)}>+</button
      ><button class="chip" aria-label={say('Longer time')} onclick={() => zoomAt(runs.playheadUs, 1.6)}>−</button
      ><button class="chip" onclick={() => (window_ = undefined)}>{say('Whole run')}</button>
      <button class="chip" onclick={csv}>{say('CSV')}</button>
    {/if}
  </div>
  <div class="relative min-h-0 flex-1">
    {#if !run}
      <p class="p-4 text-soft">
        {runs.device
          ? say('Rehearse, to see the two runs beside each other.')
          : say(
              'Everything that a run does is recorded here, on one time axis: blocks, wheels, sensors, lamps. Press Rehearse.'
            )}
      </p>
    {/if}
    <div class="absolute inset-0 overflow-x-hidden overflow-y-auto {run ? '' : 'invisible'}">
      <div class="relative grid grid-cols-[150px_1fr]" style="height: {height}px">
        <div class="pointer-events-none" aria-hidden="true">
          {#each lanes as lane (lane.title)}
            <div class="px-3.5 leading-[1.15]" style="height: {lane.height}px">
              <b class="block pt-0.5 text-[12px]">{word(lane.title)}</b><span
                class="block truncate text-[10.5px] text-soft"
                >{lane.kind === 'blocks' ? (now ? (names.get(now) ?? now) : '') : word(lane.line)}</span
              >
            </div>
          {/each}
        </div>
        <div class="relative min-w-0" bind:clientWidth={width}>
          <canvas
            bind:this={canvas}
            style="width: {width}px; height: {height}px"
            class="absolute inset-0 cursor-crosshair touch-none"
            tabindex="0"
            role="slider"
            aria-label={say('Playhead: time in the trace')}
            aria-valuemin="0"
            aria-valuemax={endUs / 1e6}
            aria-valuenow={runs.playheadUs / 1e6}
            aria-valuetext={say('{n} seconds', { n: (runs.playheadUs / 1e6).toFixed(2) })}
            onpointerdown={down}
            onpointermove={move}
            onpointerup={() => (mode = undefined)}
            onwheel={wheel}
            onkeydown={keys}
            data-testid="trace"
          ></canvas>
          {#if run && runs.playheadUs >= range[0] && runs.playheadUs <= range[1]}
            <div
              class="pointer-events-none absolute top-0 bottom-0 w-0 border-l-2 border-brass"
              style="left: {x(runs.playheadUs)}px"
            >
              <i class="absolute -top-0 -left-[6px] h-2.5 w-2.5 rounded-full bg-brass"></i>
            </div>
          {/if}
        </div>
      </div>
    </div>
    {#if listing}
      <div
        class="absolute right-2 bottom-2 z-20 max-h-[calc(100%-1rem)] w-[460px] overflow-auto rounded-xl border border-rule bg-card p-2 shadow-lg"
        role="region"
        aria-label={say('Findings')}
      >
        <ol>
          {#each found as f, i (i)}
            <li>
              <button
                class="w-full rounded-lg px-2 py-1.5 text-left hover:bg-linen"
                onclick={() => lead(f.fromUs, f.blocks[0])}
                ><span class="font-mono text-[12px] text-soft">{(f.fromUs / 1e6).toFixed(2)} s</span>
                {f.says}{#if f.blocks[0]}<small class="block text-soft">{names.get(f.blocks[0]) ?? f.blocks[0]}</small
                  >{/if}</button
              >
            </li>
          {/each}
        </ol>
        {#if moves.length}
          <table class="w-full text-[13px] tabular-nums">
            <thead class="text-left text-[12px] text-soft">
              <tr
                ><th class="px-2 font-semibold">{say('Move')}</th><th class="px-2 text-right font-semibold"
                  >{say('asked')}</th
                ><th class="px-2 text-right font-semibold">{say('got')}</th><th class="px-2 text-right font-semibold"
                  >{say('off by')}</th
                ></tr
              >
            </thead>
            <tbody>
              {#each moves as m, i (i)}
                <tr class="border-t border-rule"
                  ><td class="px-2 py-0.5"
                    ><button class="underline" onclick={() => lead(m.toUs, m.block)}>{retell(m.what)}</button
                    >{m.ended === 'done' ? '' : `, ${word(m.ended)}`}</td
                  >
                  <td class="px-2 text-right">{m.asked.toFixed(2)} {m.unit}</td>
                  <td class="px-2 text-right">{m.got.toFixed(2)} {m.unit}</td>
                  <td class="px-2 text-right">{(m.got - m.asked).toFixed(2)} {m.unit}</td></tr
                >
              {/each}
            </tbody>
          </table>
        {/if}
      </div>
    {/if}
  </div>
  <div
    class="relative ml-[150px] h-[17px] shrink-0 overflow-hidden border-t border-rule text-[10.5px] text-soft {run
      ? ''
      : 'invisible'}"
    aria-hidden="true"
  >
    {#each ticks as t (t)}<span class="absolute pl-0.5 tabular-nums" style="left: {x(t)}px">{t / 1e6} s</span>{/each}
  </div>
</section>
