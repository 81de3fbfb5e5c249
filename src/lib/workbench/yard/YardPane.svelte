<script lang="ts">
  import Choice from '../../ui/Choice.svelte';
  import Button from '../../ui/Button.svelte';
  import { later, say, word } from '../../../../core/words.ts';
  import type { Mat } from '../../../../core/yard/mat.ts';
  import { onMount, type Component } from 'svelte';
  import { useWorkbench } from '../workbench.svelte.ts';
  import HandIcon from '@lucide/svelte/icons/hand';
  import Guess from '@lucide/svelte/icons/map-pin-check';
  import Ruler from '@lucide/svelte/icons/ruler';
  import { hasWheels } from '../../../../core/kit/kit.ts';
  import Face from './Face.svelte';
  import { download, fileName } from '../../shelf/files.ts';
  import Menu from './Menu.svelte';
  import Speech from './Speech.svelte';
  import Yard from './Yard.svelte';
  import { Tones } from './tones.ts';

  const w = useWorkbench();
  const tones = new Tones();
  $effect(() => {
    const live =
      (w.runs.state === 'running' && w.runs.speed <= 4 && w.runs.scrubUs === undefined) ||
      w.runs.playing ||
      (w.runs.shown === 'device' && w.device.running);
    tones.play(live && !w.muted ? w.runs.view?.tone : undefined);
  });
  $effect(() => () => tones.play(undefined));
  /** three dimensions are loaded when they are first looked at */
  let Scene = $state.raw<Component>();
  $effect(() => {
    if (w.view !== 'above') void import('./Scene.svelte').then((m) => (Scene = m.default));
  });
  let Hand = $state.raw<Component>();
  $effect(() => {
    if (w.handOpen) void import('./Hand.svelte').then((m) => (Hand = m.default));
  });
  async function picture() {
    const shot = await w.grab?.();
    if (!shot) return;
    const { png } = await import('./clip.ts');
    download(`${fileName(w.session.project.name)}.png`, await png(shot));
  }
  const views = [
    ['above', later('From above')],
    ['behind', later('Behind')],
    ['free', later('Free')]
  ] as const;
  /** fetched once all else is there */
  let mats = $state.raw<readonly Mat[]>([]);
  onMount(() => void import('../../../../core/yard/mats.ts').then((m) => (mats = m.mats)));
  const names = $derived([...new Set([...mats.map((m) => m.name), w.session.project.mat.name])]);
  function lay(name: string) {
    const mat = mats.find((m) => m.name === name);
    if (!mat || w.session.project.mat.name === name) return;
    const { start: _, ...rest } = w.session.project;
    w.session.change(say('lay the mat {name}', { name }), { ...rest, mat });
    w.runs.clear();
    w.runs.ghost = undefined;
  }
</script>

<section class="flex h-full min-h-0 flex-col border-r border-rule" aria-label={say('Yard')}>
  <div class="bar">
    <h2 class="mr-1 font-sans text-[14px] font-bold max-[1400px]:sr-only">{say('Yard')}</h2>
    {#each views as [view, name] (view)}<Button
        look="quiet"
        aria-pressed={w.view === view}
        onclick={() => (w.view = view)}>{word(name)}</Button
      >{/each}
    <span class="flex-1"></span>
    <Button
      look="quiet"
      class="min-h-6 px-1.5"
      aria-pressed={w.measuring}
      title={say('Ruler: measure on the mat')}
      aria-label={say('Ruler')}
      onclick={() => ((w.measuring = !w.measuring), (w.view = 'above'))}><Ruler size={15} /></Button
    >
    <Button
      look="quiet"
      class="min-h-6 px-1.5"
      aria-pressed={w.predict.open}
      title={say('Predict: where will it stop, what will it show?')}
      aria-label={say('Predict')}
      onclick={() => {
        if (w.predict.open) w.predict.shut();
        else {
          w.view = 'above';
          w.predict.start();
        }
      }}><Guess size={15} /></Button
    >
    <Button
      look="quiet"
      class="min-h-6 px-1.5"
      aria-pressed={w.handOpen}
      title={say('Hand: lean, shake, push, lift')}
      aria-label={say('Hand')}
      onclick={() => (w.handOpen = !w.handOpen)}><HandIcon size={15} /></Button
    >
    <Menu onpicture={picture} />
  </div>
  <Speech />
  {#if hasWheels(w.session.project.kit) || !w.handOpen || w.handOn}<Face />{/if}
  {#if w.handOpen && Hand}<Hand />{/if}
  <div class="relative min-h-0 flex-1">
    {#if !w.predict.open}<Choice
        size="sm"
        class="absolute! top-2 left-2 z-10 max-w-[60%] text-[12.5px]"
        aria-label={say('Mat')}
        title={say('Mat')}
        value={w.session.project.mat.name}
        onchange={(e) => lay(e.currentTarget.value)}
        disabled={w.runs.busy}
        >{#each names as name (name)}<option>{name}</option>{/each}</Choice
      >{/if}
    {#if w.predict.open}{#await import('../predict/Predict.svelte') then { default: Predict }}<Predict />{/await}{/if}
    {#if w.view === 'above'}<Yard />
    {:else}
      {#if Scene}<Scene />{/if}
    {/if}
  </div>
  {#if w.session.project.errand}{#await import('../errand/ErrandPane.svelte') then { default: ErrandPane }}<ErrandPane
      />{/await}{/if}
</section>
