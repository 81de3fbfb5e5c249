<script lang="ts">
  import { say } from '../../../../core/words.ts';
  import { mats } from '../../../../core/yard/mats.ts';
  import { useWorkbench } from '../workbench.svelte.ts';
  import Face from './Face.svelte';
  import Yard from './Yard.svelte';
  import { Tones } from './tones.ts';

  const w = useWorkbench();
  const tones = new Tones();
  $effect(() => {
    const live =
      (w.runs.state === 'running' && w.runs.speed <= 4 && w.runs.scrubUs === undefined) ||
      (w.runs.shown === 'device' && w.device.running);
    tones.play(live && !w.muted ? w.runs.view?.tone : undefined);
  });
  $effect(() => () => tones.play(undefined));
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

<section
  class="grid h-full min-h-0 grid-cols-[minmax(0,1fr)] grid-rows-[auto_auto_1fr] border-r border-rule"
  aria-label={say('Yard')}
>
  <div class="bar">
    <h2 class="mr-1 font-sans text-[14px] font-bold">{say('Yard')}</h2>
    <span class="text-soft">{say('from above')}</span>
    <span class="flex-1"></span>
    <label class="flex items-center gap-1.5 text-soft"
      >{say('Mat')}
      <select
        class="rounded-md border border-rule bg-card px-1.5 py-0.5 text-ink"
        value={w.session.project.mat.name}
        onchange={(e) => lay(e.currentTarget.value)}
        disabled={w.runs.busy}
        >{#each names as name (name)}<option>{name}</option>{/each}</select
      ></label
    >
  </div>
  <Face />
  <Yard />
</section>
