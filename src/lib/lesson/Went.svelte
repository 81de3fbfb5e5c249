<!-- What a run did: its way on the mat as it goes, the pictures that it showed and for how long, and what there is to know. -->
<script lang="ts">
  import type { Snippet } from 'svelte';
  import { hasWheels } from '../../../core/kit/kit.ts';
  import type { Project } from '../../../core/project.ts';
  import { stateAt } from '../../../core/trace/query.ts';
  import { endUs } from '../../../core/trace/trace.ts';
  import { say } from '../../../core/words.ts';
  import DeviceShape from '../ui/DeviceShape.svelte';
  import Dots from '../ui/Dots.svelte';
  import MatShape from '../workbench/yard/MatShape.svelte';
  import { trail } from '../workbench/yard/trail.ts';
  import type { Ran } from './room.svelte.ts';
  let {
    project,
    ran,
    still = false,
    over
  }: {
    project: Project;
    ran: Ran;
    /** its end, at once */ still?: boolean;
    /** more on the mat */ over?: Snippet;
  } = $props();
  const mat = $derived(project.mat);
  const end = $derived(endUs(ran.trace));
  /** a run is seen in so many seconds at the most */
  const MOST_S = 6;
  let nowUs = $state(0);
  $effect(() => {
    const whole = end;
    if (still || matchMedia('(prefers-reduced-motion: reduce)').matches) {
      nowUs = whole;
      return;
    }
    const pace = Math.max(1, whole / (MOST_S * 1e6));
    const began = performance.now();
    let frame = requestAnimationFrame(function next(now) {
      nowUs = Math.min(whole, (now - began) * 1000 * pace);
      if (nowUs < whole) frame = requestAnimationFrame(next);
    });
    return () => cancelAnimationFrame(frame);
  });
  const now = $derived(stateAt(ran.trace, nowUs));
  const long = (us: number): string => {
    const s = us / 1e6;
    return s < 0.05 ? `${(us / 1000).toFixed(1)} ms` : `${s.toFixed(2)} s`;
  };
</script>

<div class="flex flex-col gap-1.5" data-testid="went" data-over={nowUs >= end || undefined}>
  {#if hasWheels(project.kit)}
    <svg
      viewBox="-1 -1 {mat.width * 100 + 2} {mat.height * 100 + 2}"
      class="max-h-[300px] w-full rounded-md border border-rule"
      role="img"
      aria-label={say('The way that it went')}
    >
      <MatShape {mat} />
      <polyline points={trail(ran.trace, nowUs, mat.height)} fill="none" stroke="#b5842a" stroke-width="0.9" />
      <g transform="translate({now.x * 100} {(mat.height - now.y) * 100}) rotate({now.facingDeg - 90}) scale(0.1)"
        ><DeviceShape kit={project.kit} lamps={now.lamps} picture={now.picture} /></g
      >
      {@render over?.()}
    </svg>
  {/if}
  {#if project.kit.display && ran.came.pictures.length}
    <ol class="flex flex-wrap gap-2" aria-label={say('What it showed')}>
      {#each ran.came.pictures as shown, i (i)}
        <li class="text-center text-[12.5px] text-soft" data-testid="face">
          <svg class="block" width="92" height="62" viewBox="-46 -31 92 62" aria-hidden="true"
            ><Dots display={project.kit.display} picture={shown.what} wide={92} high={62} /></svg
          >{i === ran.came.pictures.length - 1 ? say('stays') : long(shown.toUs - shown.fromUs)}
        </li>
      {/each}
    </ol>
  {/if}
  <p class="tabular-nums" data-testid="came">{ran.came.says}</p>
  {#if ran.came.logs.length}<p class="font-mono text-[13px]">{ran.came.logs.join(' · ')}</p>{/if}
  {#each ran.came.findings as says (says)}<p class="text-soft">{says}</p>{/each}
</div>
