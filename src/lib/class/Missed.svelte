<!-- Of each goal, how many of those who tried have not met it yet. -->
<script lang="ts">
  import { scaleLinear } from 'd3-scale';
  import { say } from '../../../core/words.ts';
  import type { ClassShows } from './class.ts';
  let { goals, hidden }: { goals: ClassShows['goals']; hidden: boolean } = $props();
  const most = $derived(Math.max(1, ...goals.map((g) => g.of)));
  const x = $derived(scaleLinear([0, most], [0, 100]));
</script>

<ul class="flex flex-col gap-2.5" data-testid="missed">
  {#each goals as goal, i (i)}
    <li>
      <span class="flex items-baseline gap-2"
        ><span class="min-w-0 flex-1">{goal.words}</span><b class="tabular-nums"
          >{say('{n} of {of} not yet', { n: goal.missedBy.length, of: goal.of })}</b
        ></span
      >
      <svg class="mt-1 block h-3 w-full" viewBox="0 0 100 4" preserveAspectRatio="none" aria-hidden="true">
        <rect width={x(goal.of)} height="4" fill="var(--moss)" /><rect
          width={x(goal.missedBy.length)}
          height="4"
          fill="var(--clay)"
        />
      </svg>
      {#if goal.missedBy.length && !hidden}<small class="text-soft">{goal.missedBy.join(', ')}</small>{/if}
    </li>
  {/each}
</ul>
