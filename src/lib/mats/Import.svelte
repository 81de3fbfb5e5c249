<!-- A drawing or a picture becomes the mat, or its floor. -->
<script lang="ts">
  import Remark from '../ui/Remark.svelte';
  import OpenFile from '../ui/OpenFile.svelte';
  import Button from '../ui/Button.svelte';
  import NumberField from '../ui/NumberField.svelte';
  import Dialog from '../ui/Dialog.svelte';
  import { say } from '../../../core/words.ts';
  import type { MatEditor } from './editor.svelte.ts';
  import type { Opened } from './import.ts';
  let { editor }: { editor: MatEditor } = $props();
  let open = $state(false);
  let file = $state.raw<File>();
  let opened = $state.raw<Opened>();
  let width = $state(120);
  let problem = $state('');
  let ignored = $state.raw<string[]>([]);
  let input: OpenFile;
  const isSvg = $derived(!!file && (/svg/.test(file.type) || /\.svg$/i.test(file.name)));

  export const choose = () => input.choose();
  export async function take(chosen: File | undefined) {
    if (!chosen) return;
    file = chosen;
    opened = undefined;
    ignored = [];
    open = true;
    const { tooLarge, openSvg } = await import('./import.ts');
    problem = tooLarge(chosen) ?? '';
    if (problem) return;
    try {
      if (/svg/.test(chosen.type) || /\.svg$/i.test(chosen.name)) opened = openSvg(await chosen.text(), chosen.name);
    } catch (error) {
      problem = (error as Error).message;
    }
  }
  async function go() {
    problem = '';
    if (!file) return;
    try {
      const { matOf, openPicture } = await import('./import.ts');
      if (opened) {
        const found = matOf(opened, width);
        ignored = found.ignored;
        editor.change(say('take a drawing in'), found.mat);
        if (!ignored.length) open = false;
        else file = undefined;
      } else {
        editor.change(say('lay a floor picture'), await openPicture(file, editor.mat, width));
        open = false;
      }
      editor.chosen = [];
    } catch (error) {
      problem = (error as Error).message;
    }
  }
</script>

<OpenFile
  bind:this={input}
  label={say('Drawing or picture')}
  accept=".svg,image/svg+xml,image/png,image/jpeg,image/webp"
  {take}
/>
<Dialog bind:open title={say('A drawing or picture for the mat')}>
  {#if problem}<Remark>{problem}</Remark>{/if}
  {#if file && (opened || !isSvg)}
    <p><b>{file.name}</b></p>
    {#if opened?.metres}<p class="text-soft">
        {say(
          'It says itself how large it is: {cm} cm wide. Its shapes become areas, lines, walls and marks; the mat as it is now goes (undo brings it back).',
          {
            cm: Math.round(opened.metres * opened.drawing.box[2] * 1000) / 10
          }
        )}
      </p>
    {:else}
      <label class="flex items-center gap-2"
        >{say('How wide is it in the yard?')}
        <NumberField
          class="w-24! text-right"
          min={20}
          max={1000}
          bind:value={width}
          aria-label={say('Width in the yard, cm')}
        /> cm</label
      >
      <p class="text-soft">
        {isSvg
          ? say('Its shapes become areas, lines, walls and marks; the mat as it is now goes (undo brings it back).')
          : say('It lies under everything; line sensors see how light it is. The mat takes its shape.')}
      </p>
    {/if}
  {/if}
  {#if ignored.length}
    <p>{say('The drawing is on the mat. This was left out:')}</p>
    <ul class="max-h-48 list-disc overflow-auto pl-5 text-[13px]" data-testid="ignored">
      {#each ignored as line, i (i)}<li>{line}</li>{/each}
    </ul>
  {/if}
  <div class="flex justify-end gap-2">
    <Button onclick={() => (open = false)}>{ignored.length ? say('Good') : say('Leave it')}</Button>
    {#if file && (opened || !isSvg) && !ignored.length}<Button look="go" onclick={go}>{say('Take it')}</Button>{/if}
  </div>
</Dialog>
