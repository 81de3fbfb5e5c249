<!-- A worksheet to print: the program, the idea in plain words, the kit, the mat, and a run with its path, graphs and findings. A4, readable in black and white. -->
<script lang="ts">
  import { programOf } from '../../../../../core/language/program.ts';
  import Tick from '../../../../lib/ui/Tick.svelte';
  import Table from '../../../../lib/ui/Table.svelte';
  import Button from '../../../../lib/ui/Button.svelte';
  import { later, say, word } from '../../../../../core/words.ts';
  import { page } from '$app/state';
  import { findings } from '../../../../../core/trace/findings/findings.ts';
  import { whatCame } from '../../../../../core/trace/findings/came.ts';
  import { sentences } from '$lib/workbench/sentences.ts';
  import { trail } from '$lib/workbench/yard/trail.ts';
  import type { Run } from '$lib/workbench/runs.svelte.ts';
  import { partName, trackMm } from '../../../../../core/kit/kit.ts';
  import { typeName } from '../../../../../core/kit/parts/parts.ts';
  import { flowsOf } from '../../../../../core/language/outline.ts';
  import { notebookLines } from '../../../../../core/notebook.ts';
  import MatShape from '$lib/workbench/yard/MatShape.svelte';
  import FlowChart from '$lib/workbench/program/flow/FlowChart.svelte';
  import { useWorkbench } from '$lib/workbench/workbench.svelte.ts';
  const w = useWorkbench();
  const project = $derived(w.session.project);
  const lines = $derived(notebookLines(project.notebook).filter((l) => l.text));
  let parts = $state({
    program: true,
    flow: false,
    notebook: true,
    kit: true,
    mat: true,
    path: false,
    graphs: false,
    findings: false,
    blank: false
  });
  /** the run that was seen in the workbench, or one made for the sheet */
  let made = $state.raw<Run>();
  const run = $derived(w.runs.run && w.runs.run.version >= 0 && w.runs.run.trace.ended ? w.runs.run : made);
  const asksRun = $derived(parts.path || parts.graphs || parts.findings);
  $effect(() => {
    if (asksRun && !run && project.text === undefined) void w.runs.whole(project).then((r) => (made = r));
  });
  const found = $derived(run && run.version >= 0 ? findings(run.trace, project.kit, programOf(project)) : []);
  const names = $derived(sentences(project));
  const trace = $derived(run?.trace);
  const way = $derived(trace && run ? trail(trace, run.endUs, project.mat.height) : '');
  const graphs = $derived(
    trace && parts.graphs
      ? import('$lib/workbench/trace/export.ts').then(({ sheetSvg }) => sheetSvg(trace, project, 620))
      : undefined
  );
  const picture = $derived(
    import('$lib/workbench/program/picture.ts').then(({ programPicture }) =>
      programPicture(project.program, project.kit)
    )
  );
  const charts = $derived(
    import('$lib/workbench/program/flow/layout.ts').then(({ layout }) =>
      Promise.all(flowsOf(project.program, (s) => partName(project.kit, s)).map(layout))
    )
  );
  const NAMES = {
    program: later('Program'),
    flow: later('Flow'),
    notebook: later('Notebook'),
    kit: later('Kit'),
    mat: later('Mat'),
    path: later('Path of the run'),
    graphs: later('Graphs'),
    findings: later('Findings'),
    blank: later('left blank')
  } as const;
</script>

<svelte:head><title>{say('{name} · worksheet', { name: project.name })}</title></svelte:head>
<nav
  aria-label={say('Worksheet to print')}
  class="no-print flex flex-wrap items-center gap-x-3 gap-y-1 border-b border-rule bg-linen px-4 py-2"
>
  <Button href="/project/{page.params.id}">{say('Back to the workbench')}</Button>
  {#each Object.entries(NAMES) as [key, name] (key)}
    <label class="flex items-center gap-1.5"
      ><Tick bind:checked={parts[key as keyof typeof parts]} /> {word(name)}</label
    >
  {/each}
  <span class="flex-1"></span>
  <Button look="go" onclick={() => window.print()}>{say('Print')}</Button>
</nav>
<main class="sheet paper" data-testid="worksheet">
  <header class="flex items-end justify-between border-b-2 border-black pb-1">
    <h1 class="font-display text-[24px]">{project.name}</h1>
    <p>{say('Nickname: ______________________ Date: ____________')}</p>
  </header>
  {#if parts.notebook}
    <section>
      <h2>{say('The idea in plain words')}</h2>
      {#each lines as line, i (i)}<p style="padding-left: {line.indent * 6}mm">☐ {line.text}</p>
      {:else}{#each { length: 4 } as _, i (i)}<p class="rule">&nbsp;</p>{/each}{/each}
    </section>
  {/if}
  {#if parts.program}
    <section>
      <h2>{say('The program')}</h2>
      {#await picture}<p>{say('Drawing the blocks ...')}</p>{:then { svg, width }}<div
          class="blocks"
          style="max-width: {Math.min(178, width * 0.2646)}mm"
          data-testid="program-picture"
        >
          {@html svg}
        </div>{/await}
    </section>
  {/if}
  {#if parts.flow}
    <section>
      <h2>{say('Its flow')}</h2>
      {#await charts then all}<div class="flex flex-wrap gap-6">
          {#each all as placed (placed.flow.id)}<div class="flow">
              <FlowChart {placed} program={project.program} />
            </div>{/each}
        </div>{/await}
    </section>
  {/if}
  {#if parts.kit}
    <section>
      <h2>{say('The kit: {name}', { name: project.kit.name })}</h2>
      {#if trackMm(project.kit)}<p>
          {say('Wheels {x}, {trackMm} mm apart', {
            x: [...new Set(project.kit.wheels.map((w) => w.diameterMm))].join(` ${say('and')} `) + ' mm',
            trackMm: trackMm(project.kit)
          })}
        </p>{/if}
      <Table>
        <thead><tr><th>{say('Socket')}</th><th>{say('Part')}</th><th>{say('is called')}</th></tr></thead>
        <tbody>
          {#each project.kit.parts as part, i (i)}<tr
              ><td>{part.socket}</td><td>{typeName(part.type)}</td><td>{part.name}</td></tr
            >{/each}
        </tbody>
      </Table>
    </section>
  {/if}
  {#if parts.mat}
    <section>
      <h2>
        {say('The mat: {name}, {round} × {round2} cm', {
          name: project.mat.name,
          round: Math.round(project.mat.width * 100),
          round2: Math.round(project.mat.height * 100)
        })}
      </h2>
      <svg
        viewBox="-1 -1 {project.mat.width * 100 + 2} {project.mat.height * 100 + 2}"
        class="mat"
        role="img"
        aria-label={say('The mat from above')}
      >
        <MatShape mat={project.mat} />
      </svg>
      <p>{say('One square of the grid is 10 cm.')}</p>
    </section>
  {/if}
  {#if asksRun && !run}<p>{say('Making the run ...')}</p>{/if}
  {#if parts.path && run && trace}
    <section>
      <h2>{say('The way that it went')}</h2>
      <svg
        viewBox="-1 -1 {project.mat.width * 100 + 2} {project.mat.height * 100 + 2}"
        class="mat"
        role="img"
        aria-label={say('The way that it went')}
        data-testid="sheet-path"
      >
        <MatShape mat={project.mat} />
        <polyline points={way} fill="none" stroke="#222" stroke-width="0.8" stroke-dasharray="1.6 1" />
        {#each found.filter((f) => f.at) as f, i (f.rule + f.fromUs + i)}<g
            transform="translate({f.at!.x * 100} {(project.mat.height - f.at!.y) * 100})"
            ><circle r="3" fill="#fff" stroke="#000" stroke-width="0.4" /><text
              text-anchor="middle"
              dy="1.4"
              font-size="4">{i + 1}</text
            ></g
          >{/each}
      </svg>
    </section>
  {/if}
  {#if parts.graphs && graphs}
    <section>
      <h2>{say('What it measured')}</h2>
      {#await graphs then svg}<div class="blocks" data-testid="sheet-graphs">{@html svg}</div>{/await}
    </section>
  {/if}
  {#if parts.findings && run}
    <section data-testid="sheet-findings">
      <h2>{parts.blank ? say('What happened, why, and what to try') : say('Findings')}</h2>
      {#each found as f, i (f.rule + f.fromUs + i)}
        <div class="finding">
          <b>{i + 1}. {(f.fromUs / 1e6).toFixed(2)} s</b>
          {#if parts.blank}
            <p>{say('What happened?')} <span class="fill"></span></p>
            <p>{say('Which block?')} <span class="fill"></span></p>
            <p>{say('What will you try?')} <span class="fill"></span></p>
          {:else}
            {f.says}
            {#if f.blocks[0]}<br /><i>{names.get(f.blocks[0]) ?? ''}</i>{/if}
            <br />{f.todo}
          {/if}
        </div>
      {:else}<p>
          {whatCame(run.trace, project.kit, programOf(project)).every((c) => c.asAsked)
            ? say('Nothing to find: the run did what it was asked.')
            : say('No rule tells what went wrong: compare what was asked with what came of it.')}
        </p>{/each}
    </section>
  {/if}
  <p class="check"><span></span>{say('10 cm, if it was printed at its true size')}</p>
</main>

<style>
  .sheet {
    width: 190mm;
    max-width: 100%;
    box-sizing: border-box;
    margin: 0 auto;
    padding: 8mm 6mm;
    background: #fff;
    color: #111;
    font-size: 11.5pt;
  }
  h2 {
    margin: 5mm 0 1.5mm;
    font-size: 13pt;
    font-weight: 700;
  }
  section {
    break-inside: avoid-page;
  }
  .finding {
    margin: 2mm 0;
    break-inside: avoid;
  }
  .fill {
    display: inline-block;
    width: 120mm;
    border-bottom: 0.3mm solid #999;
  }
  .rule {
    border-bottom: 0.3mm solid #999;
  }
  .blocks :global(svg) {
    width: 100%;
    height: auto;
  }
  .flow :global(svg) {
    max-width: 178mm;
    height: auto;
  }
  table {
    border-collapse: collapse;
  }
  td,
  th {
    border: 0.2mm solid #888;
    padding: 0.6mm 3mm;
    text-align: left;
  }
  .mat {
    width: 120mm;
    border: 0.2mm solid #888;
  }
  .check {
    margin-top: 6mm;
    font-size: 9pt;
  }
  .check span {
    display: inline-block;
    width: 100mm;
    height: 2mm;
    border: 0.3mm solid #111;
    border-top: 0;
    margin-right: 3mm;
  }
  @media print {
    .no-print {
      display: none;
    }
    .sheet {
      width: auto;
      padding: 0;
    }
  }
  @page {
    size: A4;
    margin: 12mm;
  }
</style>
