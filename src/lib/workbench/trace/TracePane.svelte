<script lang="ts">
  import { programOf } from '../../../../core/language/program.ts';
  import Empty from './Empty.svelte';
  import OpenFile from '../../ui/OpenFile.svelte';
  import Choice from '../../ui/Choice.svelte';
  import Button from '../../ui/Button.svelte';
  import Menu from '../../ui/Menu.svelte';
  import MenuItem from '../../ui/MenuItem.svelte';
  import { reading } from '../../../../core/units.ts';
  import { say, tongue, word } from '../../../../core/words.ts';
  import PlayIcon from '@lucide/svelte/icons/play';
  import PauseIcon from '@lucide/svelte/icons/pause';
  import { scaleLinear } from 'd3-scale';
  import { onMount, type Component } from 'svelte';
  import type { Alignment } from '../../../../core/trace/compare.ts';
  import { sampleAt, tickAt } from '../../../../core/trace/query.ts';
  import type { Finding } from '../../../../core/trace/findings/findings.ts';
  import { channel, type Trace } from '../../../../core/trace/trace.ts';
  import { lineOf, sentences } from '../sentences.ts';
  import type { Run } from '../runs.svelte.ts';
  import { useWorkbench } from '../workbench.svelte.ts';
  import Inputs from '../inputs/Inputs.svelte';
  import { allLanes, tracksIn, type Lane } from './lanes.ts';
  import type { Painter, Palette } from './draw.ts';
  import { AT_FIRST_SIGHT, type Tool } from './view.svelte.ts';

  const w = useWorkbench();
  const { runs, trace: view } = w;
  let canvas: HTMLCanvasElement;
  let width = $state(600);
  /** what draws: fetched once all else is there; the colours come with it */
  let drawer: typeof import('./draw.ts') | undefined;
  let colours = $state.raw<Palette>();
  /** findings and comparing are fetched once the workbench stands */
  let tools = $state.raw<typeof import('./tools.ts')>();
  onMount(() => void import('./tools.ts').then((t) => (tools = t)));
  const run = $derived(runs.run);
  /** grows as the run goes on; its lanes follow what it plots and which variables it changes */
  const version = $derived(run?.version ?? -1);
  const known = $derived(
    run && version >= 0 ? `${run.trace.names.join('\n')}|${plots(run)}|${tracksIn(run.trace)}` : ''
  );
  let plotted: { run: Run; upTo: number; names: Set<string> } | undefined;
  function plots(of: Run): string {
    if (plotted?.run !== of) plotted = { run: of, upTo: 0, names: new Set() };
    const { events } = of.trace;
    for (; plotted.upTo < events.length; plotted.upTo++) {
      const e = events[plotted.upTo];
      if (e.type === 'plot') plotted.names.add(e.name);
    }
    return [...plotted.names].join('\n');
  }
  /** the program, kit and mat of the run that is seen: names and colours of blocks are theirs */
  const project = $derived(run?.project ?? w.session.project);
  const all = $derived.by(() => {
    void known;
    return allLanes(project.kit, run?.trace);
  });
  /** on a projector the lanes are as high as the screen lets them */
  let room = $state(0);
  const arranged = $derived(view.lanes(all));
  const larger = $derived(w.stage === 'trace' ? Math.max(1.4, room / arranged.reduce((h, l) => h + l.height, 1)) : 1);
  const lanes = $derived(
    larger === 1 ? arranged : arranged.map((l) => ({ ...l, height: Math.round(l.height * larger) }))
  );
  const height = $derived(lanes.reduce((h, l) => h + l.height, 0));
  const other = $derived<Run | undefined>(
    view.beside === 'nothing'
      ? undefined
      : typeof view.beside === 'object'
        ? view.beside
        : runs.shown === 'device'
          ? runs.current
          : view.beside === 'device'
            ? (runs.device ?? runs.ghost)
            : runs.ghost
  );
  const beside = $derived(other && other !== run && other.version >= 0 ? other : undefined);
  const shiftUs = $derived(
    // a trace tells of its end by its version alone
    tools && version >= 0 && run?.trace.ended && beside?.trace.ended
      ? (tools.shiftOf(run.trace, beside.trace, view.align) ?? 0)
      : 0
  );
  const isApart = $derived(
    tools && version >= 0 && run?.trace.ended && beside?.trace.ended
      ? new Map(
          lanes.flatMap((l) =>
            l.kind === 'curve'
              ? l.keys.map(({ key }): [string, [number, number][]] => [
                  key,
                  tools!.apart(run!.trace, beside!.trace, key, shiftUs)
                ])
              : []
          )
        )
      : undefined
  );
  const endUs = $derived(run?.endUs ?? 0);
  /** grows by steps, so that the picture does not shrink with every frame */
  const STEPS = [4, 8, 12, 16, 24, 32, 48, 64, 96, 128, 192, 256, 384, 512, 600];
  const full = $derived.by<[number, number]>(() => {
    const need = (Math.max(endUs, beside?.endUs ?? 0) / 1e6) * 1.02;
    return [0, (STEPS.find((s) => s >= need) ?? Math.ceil(need / 60) * 60) * 1e6];
  });
  const range = $derived(view.range ?? full);
  const x = $derived(scaleLinear(range, [0, width]));
  const ticks = $derived(x.ticks(Math.max(2, Math.floor(width / 110))));
  /** of a short run they are worked out here, of a long one by a worker */
  const LONG_TICKS = 60_000;
  const isLong = (t: Trace) => t.ticks > LONG_TICKS || t.events.length > 5000 || t.spans.count > 10_000;
  const over = $derived(version >= 0 && run?.trace.ended ? run : undefined);
  let found = $state.raw<readonly Finding[]>([]);
  /** the run before the one that is over now, for what one change of the program did */
  let [before, last] = [undefined, undefined] as (Run | undefined)[];
  function since(of: Run): Finding | undefined {
    const ran = (r: Run | undefined) => {
      const program = programOf(r?.project);
      return r?.project && program && !isLong(r.trace) ? { trace: r.trace, program, kit: r.project.kit } : undefined;
    };
    // one that was kept is looked at again, and follows on nothing
    if (of === runs.earlier) return undefined;
    if (last !== of) [before, last] = [last, of];
    const [then, now] = [ran(before), ran(of)];
    return then && now && tools?.sinceBefore(then, now);
  }
  $effect(() => {
    const of = over;
    if (!of?.project || !tools) found = [];
    else if (!isLong(of.trace)) found = tools.findings(of.trace, of.project.kit, programOf(of.project));
    else {
      found = [];
      void runs.findingsOf(of, tongue()).then((list) => of === over && (found = list));
    }
  });
  const names = $derived(sentences(project));
  const firstFound = $derived(found.slice(0, AT_FIRST_SIGHT));
  const now = $derived(runs.lit.at(-1));
  $effect(() => {
    w.found = found;
    w.since = over && tools ? since(over) : undefined;
  });

  onMount(() => {
    // for npm run speed
    Object.assign(window, {
      mossbellTrace: async () =>
        drawing && (await import('./timing.ts')).timing(drawing, drawing.ghost ?? drawing.trace)
    });
    const theme = () => (colours = drawer?.palette());
    void import('./draw.ts').then((m) => {
      drawer = m;
      theme();
    });
    window.addEventListener('mossbell:theme', theme);
    return () => window.removeEventListener('mossbell:theme', theme);
  });
  const drawing = $derived(
    run && version >= 0 && colours
      ? {
          trace: run.trace,
          ghost: beside?.trace,
          shiftUs,
          apart: isApart,
          fromUs: range[0],
          toUs: range[1],
          width,
          lanes,
          program: project.program,
          selected: w.selected,
          palette: colours,
          live: runs.state === 'running' && runs.scrubUs === undefined
        }
      : undefined
  );
  /** Painted with the screen's frames, and no more than a third of the time, so that whatever a run does the page answers. */
  let painter: Painter | undefined;
  let asked = 0;
  let notBefore = 0;
  function paint() {
    asked = 0;
    if (!canvas || !drawer) return;
    const now = performance.now();
    if (now < notBefore) return ask();
    const ratio = devicePixelRatio || 1;
    const g = canvas.getContext('2d')!;
    painter ??= new drawer.Painter(g);
    if (canvas.width !== Math.round(width * ratio) || canvas.height !== Math.round(height * ratio)) {
      canvas.width = Math.round(width * ratio);
      canvas.height = Math.round(height * ratio);
      painter.forget();
    }
    g.setTransform(ratio, 0, 0, ratio, 0, 0);
    if (drawing) painter.paint(drawing);
    else {
      g.clearRect(0, 0, width, height);
      painter.forget();
    }
    notBefore = performance.now() + 2 * (performance.now() - now);
  }
  function ask() {
    asked ||= requestAnimationFrame(paint);
  }
  $effect(() => {
    void [drawing, width, height];
    ask();
  });
  /** What a lane shows at the playhead. */
  function valueOf(lane: Lane): string {
    if (!run || version < 0 || run.trace.ticks === 0) return '';
    const tick = tickAt(runs.playheadUs, run.trace.ticks);
    if (lane.kind === 'curve')
      return lane.keys
        .map(({ key }) => {
          const c = channel(run.trace, key);
          if (!c) return '';
          // there is room for two numbers in full, or for more of them whole
          const value = sampleAt(c, tick);
          return lane.keys.length > 2 ? String(Math.round(value) || 0) : reading(key, value);
        })
        .join(' · ');
    return '';
  }

  const time = (event: PointerEvent | WheelEvent) => x.invert(event.clientX - canvas.getBoundingClientRect().left);
  let mode: 'scrub' | 'pan' | 'select' | undefined;
  let grabbed = 0;
  function down(event: PointerEvent) {
    if (!run) return;
    canvas.setPointerCapture(event.pointerId);
    mode = event.shiftKey || event.button === 1 ? 'pan' : view.tool === 'measure' || event.altKey ? 'select' : 'scrub';
    grabbed = time(event);
    if (mode === 'pan') return;
    if (mode === 'select') {
      view.a = view.b = within(grabbed);
      return;
    }
    scrub(grabbed);
    if (drawer && lanes[0]?.kind === 'blocks' && event.offsetY < lanes[0].height) {
      const track = drawer.trackAt(run.trace, event.offsetY, lanes[0].height);
      const id = drawer.blockAt(run.trace, project.program, grabbed, ((range[1] - range[0]) / width) * 4, track);
      if (id) w.selected = id;
    }
  }
  function move(event: PointerEvent) {
    if (mode === 'scrub') scrub(time(event));
    else if (mode === 'select') view.b = within(time(event));
    else if (mode === 'pan') shift(grabbed - time(event));
  }
  const within = (t: number) => Math.max(0, Math.min(endUs, Math.round(t)));
  function scrub(t: number) {
    runs.halt();
    runs.scrubUs = within(t);
  }
  function shift(by: number) {
    const from = Math.max(0, range[0] + by);
    view.range = [from, from + range[1] - range[0]];
  }
  function zoomAt(t: number, by: number) {
    const size = Math.min(full[1], Math.max(2000, (range[1] - range[0]) * by));
    const from = Math.max(0, t - ((t - range[0]) / (range[1] - range[0])) * size);
    view.range = size >= full[1] ? undefined : [from, from + size];
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
    else if (event.key === 'a') view.a = within(runs.playheadUs);
    else if (event.key === 'b') view.b = within(runs.playheadUs);
    else return;
    event.preventDefault();
  }
  /** To a moment, and the block that it is about. */
  function lead(toUs: number, block?: string) {
    runs.halt();
    runs.scrubUs = toUs;
    if (block) w.selected = block;
  }
  /** A lane made higher or lower by its lower edge. */
  let sizing: { key: string; y: number; height: number } | undefined;
  function size(event: PointerEvent) {
    if (!sizing) return;
    const a = view.arrangement;
    const h = Math.max(16, Math.min(160, Math.round(sizing.height + event.clientY - sizing.y)));
    view.put({ ...a, height: { ...a.height, [sizing.key]: h } });
  }
  const saved = async (what: 'csv' | 'events' | 'json' | 'png' | 'svg') => {
    if (!run || !drawing) return;
    const { exportTrace } = await import('./export.ts');
    await exportTrace(what, w, run, drawing, lanes, view.selection);
  };
  let file: OpenFile;
  async function openRun(chosen: File | undefined) {
    if (!chosen) return;
    const read = await runs.open(await chosen.text(), chosen.name);
    if (!read.ok) {
      w.notice = read.problem;
      return;
    }
    const seen = run;
    const opened = read.run;
    runs.earlier = opened;
    runs.shown = 'earlier';
    runs.scrubUs = undefined;
    const foreign =
      seen && opened.trace.header.hashes.program !== seen.trace.header.hashes.program
        ? [say('It is a run of another program: its blocks have their names from there.')]
        : [];
    w.notice = [...read.missing, ...foreign].join(' ');
  }
  type Panel = Component<{
    lead: (toUs: number, block?: string) => void;
    run: Run;
    beside: Run | undefined;
    shiftUs: number;
    lanes: Lane[];
    all: Lane[];
  }>;
  const PANELS: Record<Tool, () => Promise<{ default: Panel }>> = {
    findings: () => import('./Findings.svelte') as Promise<{ default: Panel }>,
    measure: () => import('./Measure.svelte') as Promise<{ default: Panel }>,
    table: () => import('./Table.svelte') as Promise<{ default: Panel }>,
    times: () => import('./Times.svelte') as Promise<{ default: Panel }>,
    search: () => import('./Search.svelte') as Promise<{ default: Panel }>,
    lanes: () => import('./Lanes.svelte') as Promise<{ default: Panel }>,
    runs: () => import('./Kept.svelte') as Promise<{ default: Panel }>,
    log: () => import('./Console.svelte') as Promise<{ default: Panel }>,
    differences: () => import('./Differences.svelte') as Promise<{ default: Panel }>
  };
  const ALIGNED: Record<Alignment, string> = {
    start: say('from the start'),
    mark: say('by the first mark'),
    movement: say('by the first movement')
  };
</script>

<section class="flex h-full min-h-0 flex-col border-t border-rule bg-card" aria-label={say('Trace')}>
  <div class="bar !min-h-8 whitespace-nowrap">
    <h2
      class="mr-1 font-sans text-[14px] font-bold"
      data-tip={say('All that a run did, on one time axis: blocks, wheels, sensors, what was logged.')}
    >
      {say('Trace')}
    </h2>
    <Button look="quiet" onclick={() => (w.bottom = 'live')}>{say('Live values')}</Button>
    <Inputs />
    <Button
      look="quiet"
      tip={say('What the last rehearsal did; the run of a device or one that was kept has its own button beside it.')}
      aria-pressed={runs.shown === 'rehearsal'}
      onclick={() => ((runs.shown = 'rehearsal'), (runs.scrubUs = undefined))}>{say('This run')}</Button
    >
    {#if runs.device}<Button
        look="quiet"
        aria-pressed={runs.shown === 'device'}
        onclick={() => ((runs.shown = 'device'), (runs.scrubUs = undefined))}
        data-testid="device-run">{runs.device.name}</Button
      >{/if}
    {#if runs.earlier}<Button
        look="quiet"
        class="max-w-36 truncate"
        aria-pressed={runs.shown === 'earlier'}
        onclick={() => ((runs.shown = 'earlier'), (runs.scrubUs = undefined))}
        data-testid="earlier-run">{runs.earlier.name}</Button
      >{/if}
    {#if run && (runs.ghost || runs.device || runs.earlier || typeof view.beside === 'object')}
      <label class="ml-1 flex items-center gap-1 text-soft"
        ><span class="max-[1400px]:sr-only">{say('beside')}</span>
        <Choice
          size="sm"
          class="max-w-32"
          title={say('Which run is drawn beside')}
          value={typeof view.beside === 'object' ? 'chosen' : view.beside}
          onchange={(e) => {
            const chosen = e.currentTarget.value;
            if (chosen === 'earlier') view.beside = runs.earlier!;
            else if (chosen !== 'chosen') view.beside = chosen as 'last';
          }}
        >
          <option value="nothing">{say('nothing beside')}</option>
          <!-- never the run that is seen itself -->
          {#if runs.ghost && runs.shown !== 'device'}<option value="last">{say('+ last run')}</option>{/if}
          <option value="device"
            >{runs.shown === 'device'
              ? say('+ rehearsal')
              : runs.device
                ? `+ ${runs.device.name}`
                : say('+ whatever ran before')}</option
          >
          {#if runs.earlier && runs.earlier !== view.beside && runs.shown !== 'earlier'}<option value="earlier"
              >+ {runs.earlier.name}</option
            >{/if}
          {#if typeof view.beside === 'object' && view.beside !== run}<option value="chosen"
              >+ {view.beside.name}</option
            >{/if}
        </Choice></label
      >
      {#if beside}
        <Choice
          size="sm"
          class="max-w-28"
          aria-label={say('How the two runs lie over one another')}
          title={say('How the two runs lie over one another')}
          bind:value={view.align}
          >{#each Object.entries(ALIGNED) as [by, name] (by)}<option value={by}>{name}</option>{/each}</Choice
        >
        <Button look="quiet" aria-expanded={view.tool === 'differences'} onclick={() => view.toggle('differences')}
          >{say('Where they part')}</Button
        >
      {/if}
    {/if}
    {#if w.device.running && !w.device.inReach}<span class="truncate text-clay" role="status" data-testid="out-of-reach"
        >{say('{name} is out of reach: what it does is shown when it is plugged in again.', {
          name: w.device.unit.name
        })}</span
      >{/if}
    <span class="flex-1"></span>
    {#if run}
      <Button
        look="quiet"
        class="px-1"
        aria-label={runs.playing ? say('Pause the trace') : say('Play the trace')}
        title={runs.playing ? say('Pause the trace') : say('Play the trace from the playhead')}
        disabled={runs.state === 'running'}
        onclick={() => (runs.playing ? runs.halt() : runs.play())}
        >{#if runs.playing}<PauseIcon size={14} />{:else}<PlayIcon size={14} />{/if}</Button
      >
      <span class="font-mono text-[12.5px] text-soft tabular-nums" data-testid="playhead"
        >{(runs.playheadUs / 1e6).toFixed(3)} s</span
      >
      {#if runs.scrubUs !== undefined}<Button look="quiet" class="underline" onclick={() => (runs.scrubUs = undefined)}
          >{say('to the end')}</Button
        >{/if}
      <Button
        look="quiet"
        class={found.length ? 'font-semibold text-ink' : ''}
        aria-expanded={view.tool === 'findings'}
        disabled={!over}
        onclick={() => view.toggle('findings')}
        >{say('{n, plural, one {# finding} other {# findings}}', { n: found.length })}</Button
      >
      <Button look="quiet" aria-label={say('Shorter time')} onclick={() => zoomAt(runs.playheadUs, 0.6)}>+</Button
      ><Button look="quiet" aria-label={say('Longer time')} onclick={() => zoomAt(runs.playheadUs, 1.6)}>−</Button
      ><Button look="quiet" onclick={() => view.whole()}>{view.only ? say('All lanes') : say('Whole run')}</Button>
    {/if}
    <Menu label={say('More about the trace')} title={say('Lanes, cursors, table, times, search, runs, files')}>
      <MenuItem onclick={() => (w.stage = w.stage ? undefined : 'trace')}
        >{w.stage ? say('Back to the workbench') : say('Fill the screen')}</MenuItem
      >
      {#if run}
        <MenuItem onclick={() => view.toggle('lanes')}>{say('Choose the lanes')}</MenuItem>
        <MenuItem onclick={() => view.toggle('measure')}>{say('Measure between two cursors')}</MenuItem>
        <MenuItem onclick={() => view.toggle('table')}>{say('Table')}</MenuItem>
        <MenuItem onclick={() => view.toggle('times')}>{say('Times of the blocks')}</MenuItem>
        <MenuItem onclick={() => view.toggle('search')}>{say('Search log and events')}</MenuItem>
      {/if}
      <MenuItem onclick={() => view.toggle('log')}>{say('Log of the device')}</MenuItem>
      <MenuItem onclick={() => view.toggle('runs')}>{say('Runs of this project')}</MenuItem>
      <MenuItem onclick={() => file.choose()}>{say('Open a run file')}</MenuItem>
      {#if run}
        <hr class="my-1 border-rule" />
        <MenuItem onclick={() => saved('csv')}>{say('Save as CSV')}</MenuItem>
        <MenuItem onclick={() => saved('events')}>{say('Save its events as CSV')}</MenuItem>
        <MenuItem onclick={() => saved('json')}>{say('Save as a run file')}</MenuItem>
        <MenuItem onclick={() => saved('png')}>{say('Picture as PNG')}</MenuItem>
        <MenuItem onclick={() => saved('svg')}>{say('Picture as SVG')}</MenuItem>
        <hr class="my-1 border-rule" />
        <MenuItem disabled={!over} onclick={() => w.tellStory()}>{say('Play the story')}</MenuItem>
      {/if}
    </Menu>
    <OpenFile bind:this={file} label={say('Run file')} accept=".jsonl,.json" take={openRun} />
  </div>
  <div class="relative flex min-h-0 flex-1">
    <div class="flex min-w-0 flex-1 flex-col">
      <div class="relative min-h-0 flex-1">
        {#if !run && runs.device}
          <p class="p-4 text-soft">{say('Rehearse, to see the two runs beside each other.')}</p>
        {:else if !run}<Empty />
        {/if}
        <div
          bind:clientHeight={room}
          class="absolute inset-0 overflow-x-hidden overflow-y-auto {run ? '' : 'invisible'}"
        >
          <div class="relative grid grid-cols-[150px_1fr]" style="height: {height}px">
            <div>
              {#each lanes as lane (lane.key)}
                {@const value = valueOf(lane)}
                <div
                  class="relative px-3.5 leading-[1.15]"
                  style="height: {lane.height}px"
                  data-lane={lane.key}
                  aria-hidden="true"
                >
                  <b class="block truncate pt-0.5 text-[12px]"
                    >{word(lane.title)}{#each lane.over ?? [] as o (o.key)}{` + ${word(o.title)}`}{/each}</b
                  ><span class="flex gap-1 text-[10.5px] text-soft"
                    ><span class="truncate"
                      >{lane.kind === 'blocks' ? (now ? (names.get(now) ?? lineOf(now)) : '') : word(lane.line)}</span
                    >{#if value}<span class="ml-auto font-mono whitespace-nowrap tabular-nums" data-testid="lane-value"
                        >{value}</span
                      >{/if}</span
                  >
                  <i
                    class="absolute inset-x-0 -bottom-[2px] z-10 h-[4px] cursor-row-resize hover:bg-brass/60"
                    onpointerdown={(e) => {
                      e.currentTarget.setPointerCapture(e.pointerId);
                      sizing = { key: lane.key, y: e.clientY, height: lane.height };
                    }}
                    onpointermove={size}
                    onpointerup={() => (sizing = undefined)}
                  ></i>
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
              {#if view.selection}
                <div
                  class="pointer-events-none absolute top-0 bottom-0 bg-water/10"
                  style="left: {x(view.selection[0])}px; width: {x(view.selection[1]) - x(view.selection[0])}px"
                  data-testid="selection"
                ></div>
              {/if}
              {#each [['A', view.a], ['B', view.b]] as const as [name, at] (name)}
                {#if at !== undefined && at >= range[0] && at <= range[1]}<div
                    class="pointer-events-none absolute top-0 bottom-0 border-l border-water"
                    style="left: {x(at)}px"
                  >
                    <b class="absolute top-0 left-0.5 text-[10.5px] text-water">{name}</b>
                  </div>{/if}
              {/each}
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
      </div>
      <div
        class="relative ml-[150px] h-[17px] shrink-0 overflow-hidden border-t border-rule text-[10.5px] text-soft {run
          ? ''
          : 'invisible'}"
        aria-hidden="true"
      >
        {#each ticks as t (t)}<span class="absolute pl-0.5 tabular-nums" style="left: {x(t)}px">{t / 1e6} s</span
          >{/each}
        {#each firstFound as f (f.rule + f.fromUs + f.says)}
          {#if f.fromUs >= range[0] && f.fromUs <= range[1]}<i
              class="absolute top-[3px] h-[11px] w-[11px] -translate-x-1/2 cursor-pointer rounded-full border-2 border-clay {view.lit ===
              f
                ? 'bg-clay'
                : 'bg-card'}"
              style="left: {Math.max(6, x(f.fromUs))}px"
              title={f.says}
              data-testid="finding-moment"
              onpointerenter={() => (view.lit = f)}
              onpointerleave={() => (view.lit = undefined)}
              onpointerdown={() => {
                view.tool = 'findings';
                lead(f.fromUs, f.blocks[0]);
              }}
            ></i>{/if}
        {/each}
      </div>
    </div>
    {#if view.tool && (run || ['runs', 'log'].includes(view.tool))}
      {#await PANELS[view.tool]() then { default: Panel }}<Panel
          {lead}
          run={run!}
          {beside}
          {shiftUs}
          {lanes}
          {all}
        />{/await}
    {/if}
  </div>
</section>
