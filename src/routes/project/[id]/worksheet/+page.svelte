<!-- A worksheet to print: the program, the idea in plain words, the kit, the mat. A4, readable in black and white. -->
<script lang="ts">
  import { later, say, word } from '../../../../../core/words.ts';
  import { page } from '$app/state';
  import { partName, typeName } from '../../../../../core/kit/kit.ts';
  import { flowsOf } from '../../../../../core/language/outline.ts';
  import { notebookLines } from '../../../../../core/notebook.ts';
  import MatShape from '$lib/workbench/yard/MatShape.svelte';
  import FlowChart from '$lib/workbench/program/flow/FlowChart.svelte';
  import { useWorkbench } from '$lib/workbench/workbench.svelte.ts';
  const w = useWorkbench();
  const project = $derived(w.session.project);
  const lines = $derived(notebookLines(project.notebook).filter((l) => l.text));
  let parts = $state({ program: true, flow: false, notebook: true, kit: true, mat: true });
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
    mat: later('Mat')
  } as const;
</script>

<svelte:head><title>{say('{name} · worksheet', { name: project.name })}</title></svelte:head>
<div class="no-print flex items-center gap-3 border-b border-rule bg-linen px-4 py-2">
  <a class="btn btn-plain" href="/project/{page.params.id}">{say('Back to the workbench')}</a>
  {#each Object.entries(NAMES) as [key, name] (key)}
    <label class="flex items-center gap-1.5"
      ><input type="checkbox" bind:checked={parts[key as keyof typeof parts]} /> {word(name)}</label
    >
  {/each}
  <span class="flex-1"></span>
  <button class="btn btn-go" onclick={() => window.print()}>{say('Print')}</button>
</div>
<main class="sheet" data-testid="worksheet">
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
      <p>
        {say('Wheels {x}, {trackMm} mm apart', {
          x:
            project.kit.wheels.leftDiameterMm === project.kit.wheels.rightDiameterMm
              ? `${project.kit.wheels.leftDiameterMm} mm`
              : `${project.kit.wheels.leftDiameterMm} ${say('and')} ${project.kit.wheels.rightDiameterMm} mm`,
          trackMm: project.kit.wheels.trackMm
        })}
      </p>
      <table>
        <thead><tr><th>{say('Socket')}</th><th>{say('Part')}</th><th>{say('is called')}</th></tr></thead>
        <tbody>
          {#each project.kit.parts as part (part.socket)}<tr
              ><td>{part.socket}</td><td>{typeName(part.type)}</td><td>{part.name}</td></tr
            >{/each}
        </tbody>
      </table>
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
  <p class="check"><span></span>{say('10 cm, if it was printed at its true size')}</p>
</main>

<style>
  .sheet {
    width: 190mm;
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
