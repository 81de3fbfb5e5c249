<script lang="ts">
  import Field from '../../../../lib/ui/Field.svelte';
  import Choice from '../../../../lib/ui/Choice.svelte';
  import Button from '../../../../lib/ui/Button.svelte';
  import NumberField from '$lib/ui/NumberField.svelte';
  import { say, word } from '../../../../../core/words.ts';
  import FileDown from '@lucide/svelte/icons/file-down';
  import FileUp from '@lucide/svelte/icons/file-up';
  import Magnet from '@lucide/svelte/icons/magnet';
  import Printer from '@lucide/svelte/icons/printer';
  import { matTroubles } from '../../../../../core/yard/matedit.ts';
  import { matToSvg } from '../../../../../core/yard/matsvg.ts';
  import { mats } from '../../../../../core/yard/mats.ts';
  import { MatEditor, TOOLS } from '$lib/mats/editor.svelte.ts';
  import Import from '$lib/mats/Import.svelte';
  import MatCanvas from '$lib/mats/MatCanvas.svelte';
  import MatProps from '$lib/mats/MatProps.svelte';
  import SaveState from '$lib/project/SaveState.svelte';
  import UndoButtons from '$lib/project/UndoButtons.svelte';
  import Trouble from '$lib/project/Trouble.svelte';
  import { download, fileName } from '$lib/shelf/files.ts';
  import LanguageChoice from '$lib/ui/LanguageChoice.svelte';
  import ThemeButton from '$lib/ui/ThemeButton.svelte';
  import DropPlace from '$lib/ui/DropPlace.svelte';
  import Path from '$lib/ui/Path.svelte';
  import TopBar from '$lib/ui/TopBar.svelte';
  import { useWorkbench } from '$lib/workbench/workbench.svelte.ts';

  const bench = useWorkbench();
  const session = $derived(bench.session);
  const mat = $derived(session.project.mat);
  const editor = new MatEditor(() => session);
  let importer = $state<Import>();
  const troubles = $derived(matTroubles(mat, session.project.kit));
  const GRIDS = [0, 0.005, 0.01, 0.05, 0.1];
  function lay(name: string) {
    const other = mats.find((m) => m.name === name);
    if (other) editor.change(say('lay the mat {name}', { name }), other);
    editor.chosen = [];
  }
  const draws = $derived(['lines', 'arc', 'free', 'areas'].includes(editor.tool));
</script>

<svelte:head><title>{say('Mat · {name} · Moss Bell', { name: session.project.name })}</title></svelte:head>
<div class="flex h-full flex-col">
  <TopBar>
    {#snippet name()}<Path
        steps={[
          { name: session.project.name, href: `/project/${session.id}` },
          { name: say('Mat · {name}', { name: mat.name }) }
        ]}
      />{/snippet}
    <SaveState {session} />
    <span class="flex-1"></span>
    <UndoButtons {session} />
    <Button
      look="ghost"
      class="px-2"
      aria-label={say('Take in a drawing (SVG) or a picture')}
      title={say('Take in a drawing (SVG) or a picture')}
      onclick={() => importer?.choose()}><FileUp size={17} /></Button
    >
    <Button
      look="ghost"
      class="px-2"
      aria-label={say('Save as SVG')}
      title={say('Save as SVG')}
      onclick={() => download(`${fileName(mat.name)}.svg`, matToSvg(mat), 'image/svg+xml')}
      ><FileDown size={17} /></Button
    >
    <Button
      look="ghost"
      class="px-2"
      href="/project/{session.id}/mat/print"
      target="_blank"
      aria-label={say('Print')}
      title={say('Print: 1 to 1 on several sheets, or a map')}><Printer size={17} /></Button
    >
    <LanguageChoice />
    <ThemeButton />
    <Button look="go" href="/project/{session.id}">{say('Back to the workbench')}</Button>
  </TopBar>
  <Trouble {session} />
  <main class="grid min-h-0 flex-1 grid-cols-[150px_1fr_280px]">
    <div
      class="flex flex-col gap-0.5 overflow-auto border-r border-rule bg-paper p-2"
      role="toolbar"
      aria-label={say('What to draw')}
    >
      {#each TOOLS as [tool, name] (tool)}
        <Button
          look="bare"
          class="rounded-md px-2.5 py-1 text-left pointer-coarse:min-h-10 {editor.tool === tool
            ? 'bg-[var(--mosswash)] font-semibold'
            : 'hover:bg-linen'}"
          aria-pressed={editor.tool === tool}
          onclick={() => {
            editor.tool = tool;
            editor.corners = [];
            if (tool !== 'choose') editor.chosen = [];
          }}>{word(name)}</Button
        >
      {/each}
      {#if draws}
        <div class="mt-2 flex flex-col gap-1.5 border-t border-rule px-1 pt-2 text-[12.5px]">
          <label class="flex items-center gap-2"
            ><span class="flex-1 text-soft">{say('colour')}</span><Field
              look="colour"
              type="color"
              bind:value={editor.colour}
              aria-label={say('Colour to draw with')}
            /></label
          >
          {#if editor.tool !== 'areas'}<label class="flex items-center gap-1"
              ><span class="flex-1 text-soft">{say('width')}</span><NumberField
                size="sm"
                class="w-14! text-right"
                min={0.1}
                max={30}
                step={0.1}
                value={Math.round(editor.lineWidth * 1000) / 10}
                put={(cm) => (editor.lineWidth = cm / 100)}
              />cm</label
            >{/if}
          {#if editor.tool === 'arc'}<label class="flex items-center gap-1"
              ><span class="flex-1 text-soft">{say('turns')}</span><NumberField
                size="sm"
                class="w-14! text-right"
                min={-340}
                max={340}
                bind:value={editor.arcDeg}
              />°</label
            >{/if}
        </div>
      {/if}
      <label class="mt-2 flex items-center gap-1.5 border-t border-rule px-1 pt-2 text-[12.5px] text-soft"
        ><Magnet size={14} />
        <Choice size="sm" aria-label={say('Grid to snap to')} bind:value={editor.grid}
          >{#each GRIDS as g (g)}<option value={g}>{g ? `${g * 100} cm` : say('free')}</option>{/each}</Choice
        ></label
      >
      <span class="flex-1"></span>
      <label class="px-1 text-[12.5px] text-soft"
        >{say('Begin from')}
        <Choice
          size="sm"
          class="w-full"
          value=""
          onchange={(e) => (lay(e.currentTarget.value), (e.currentTarget.value = ''))}
          ><option value="">…</option>{#each mats as m (m.name)}<option>{m.name}</option>{/each}</Choice
        ></label
      >
    </div>
    <div class="relative flex min-h-0 min-w-0 flex-col">
      <div class="min-h-0 flex-1"><MatCanvas {editor} kit={session.project.kit} /></div>
      {#if troubles.length}
        <ul class="max-h-28 overflow-auto border-t border-rule bg-card px-3 py-1.5 text-[13px]" data-testid="troubles">
          {#each troubles as t, i (i)}<li class="text-clay">{t}</li>{/each}
        </ul>
      {/if}
    </div>
    <div class="flex min-h-0 flex-col border-l border-rule bg-paper"><MatProps {editor} /></div>
  </main>
</div>
<Import bind:this={importer} {editor} />
<DropPlace take={(file) => importer?.take(file)}>{say('Drop a drawing (SVG) or a picture to take it in')}</DropPlace>
